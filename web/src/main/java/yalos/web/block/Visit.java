package yalos.web.block;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import org.springframework.ui.Model;

/**
 * What every change from a page comes with: the state it was made for, the stage it was made on, and the answer to fill.
 *
 * @param version of the block when the page was made
 */
public record Visit(long version, Stage stage, HttpServletRequest request, HttpServletResponse response, Model model) {}
