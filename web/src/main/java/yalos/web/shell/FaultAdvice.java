package yalos.web.shell;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.core.annotation.Order;
import org.springframework.dao.ConcurrencyFailureException;
import org.springframework.dao.DataAccessException;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.ErrorResponse;
import org.springframework.web.bind.MissingServletRequestParameterException;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import org.springframework.web.servlet.ModelAndView;
import org.springframework.web.servlet.resource.NoResourceFoundException;
import org.springframework.web.util.DisconnectedClientHelper;
import yalos.core.fault.InputFault;
import yalos.web.store.NotKept;
import yalos.web.store.Reopening;
import yalos.web.store.Unreadable;
import yalos.web.work.Busy;
import yalos.web.work.TookTooLong;

/**
 * Turns faults into messages: a line on the page for htmx, a page of its own for the rest. Never a stack.
 */
@ControllerAdvice
@Order(100)
class FaultAdvice {
    private static final Pattern BLOCK = Pattern.compile("/blocks/\\d+");

    private static final Logger LOG = LoggerFactory.getLogger(FaultAdvice.class);

    private final Reopening reopening;

    FaultAdvice(Reopening reopening) {
        this.reopening = reopening;
    }

    @ExceptionHandler(InputFault.class)
    ModelAndView input(InputFault fault, HttpServletRequest request, HttpServletResponse response) throws IOException {
        Optional<String> page = Htmx.asked(request)
                ? Optional.empty()
                : Refilled.page(request, response, fault.field(), fault.getMessage());
        if (page.isPresent()) {
            response.setStatus(HttpStatus.BAD_REQUEST.value());
            response.setContentType(MediaType.TEXT_HTML_VALUE + ";charset=UTF-8");
            response.getWriter().write(page.get());
            return null; // no view: the page is written
        }
        ModelAndView view = told(HttpStatus.BAD_REQUEST, "That cannot be", fault.getMessage(), request, response);
        view.addObject("field", fault.field());
        return view;
    }

    @ExceptionHandler({MissingServletRequestParameterException.class, MethodArgumentTypeMismatchException.class})
    ModelAndView incomplete(Exception fault, HttpServletRequest request, HttpServletResponse response) {
        return told(
                HttpStatus.BAD_REQUEST,
                "That cannot be",
                "The request lacks something or holds a value of the wrong kind. Reload the page and try again.",
                request,
                response);
    }

    @ExceptionHandler(NotThere.class)
    ModelAndView notThere(NotThere fault, HttpServletRequest request, HttpServletResponse response) {
        return told(HttpStatus.NOT_FOUND, "Not here", fault.getMessage(), request, response);
    }

    /** One record that cannot be read stops nothing else; the way back to an earlier step is offered. */
    @ExceptionHandler(Unreadable.class)
    ModelAndView unreadable(Unreadable fault, HttpServletRequest request, HttpServletResponse response) {
        LOG.warn("{} {}: {}", request.getMethod(), request.getRequestURI(), fault.getMessage());
        ModelAndView view = told(HttpStatus.CONFLICT, "This cannot be read", fault.getMessage(), request, response);
        Matcher block = BLOCK.matcher(request.getRequestURI());
        if (block.lookingAt()) {
            view.addObject("back", block.group() + "/history");
            view.addObject("backWords", "To the block's history: go back to an earlier step");
        }
        return view;
    }

    @ExceptionHandler(NoResourceFoundException.class)
    ModelAndView noPage(NoResourceFoundException fault, HttpServletRequest request, HttpServletResponse response) {
        return told(HttpStatus.NOT_FOUND, "Not here", "There is no page at this address.", request, response);
    }

    @ExceptionHandler({Busy.class, TookTooLong.class})
    ModelAndView busy(RuntimeException fault, HttpServletRequest request, HttpServletResponse response) {
        HttpStatus status = HttpStatus.valueOf(Busy.status(fault));
        response.setHeader(HttpHeaders.RETRY_AFTER, "10");
        return told(status, "Busy just now", fault.getMessage(), request, response);
    }

    /** The page that asked was left, and its work called off. */
    @ExceptionHandler(CancellationException.class)
    ModelAndView calledOff(CancellationException off, HttpServletRequest request, HttpServletResponse response) {
        return told(HttpStatus.SERVICE_UNAVAILABLE, "Called off", "It was called off. Ask again.", request, response);
    }

    /** Two were at the same thing at once; the database let one through. */
    @ExceptionHandler({DataIntegrityViolationException.class, ConcurrencyFailureException.class})
    ModelAndView atOnce(DataAccessException fault, HttpServletRequest request, HttpServletResponse response) {
        LOG.warn("{} {}: {}", request.getMethod(), request.getRequestURI(), fault.getMessage());
        return told(
                HttpStatus.CONFLICT,
                "At the same time",
                "Somebody else did the same at the same moment, and was quicker. Reload the page and look; nothing of yours was kept.",
                request,
                response);
    }

    /** The change is in the store, and may be lost with the power: it is not confirmed. */
    @ExceptionHandler(NotKept.class)
    ModelAndView notKept(NotKept fault, HttpServletRequest request, HttpServletResponse response) {
        if (fault.getCause() != null) {
            LOG.error("{} {}: not on the disk", request.getMethod(), request.getRequestURI(), fault);
            reopening.mend(fault);
        }
        return told(
                HttpStatus.INSUFFICIENT_STORAGE,
                "Not kept",
                fault.getMessage() + " What was confirmed before is safe; repeat this change then.",
                request,
                response);
    }

    @ExceptionHandler(StaleVersion.class)
    ModelAndView stale(StaleVersion stale, HttpServletRequest request, HttpServletResponse response) {
        ModelAndView view = told(
                HttpStatus.CONFLICT,
                "Changed elsewhere",
                "This block was changed in another tab or window (%s). Your change “%s” was not applied, so that nothing is overwritten."
                        .formatted(stale.present(), stale.refused()),
                request,
                response);
        view.addObject("reload", true);
        return view;
    }

    @ExceptionHandler(Exception.class)
    ModelAndView unforeseen(Exception fault, HttpServletRequest request, HttpServletResponse response)
            throws Exception {
        if (fault instanceof ErrorResponse) {
            throw fault;
        }
        if (DisconnectedClientHelper.isClientDisconnectedException(fault)) {
            return null; // no view: the page that asked was left before the answer came
        }
        LOG.error("{} {} failed", request.getMethod(), request.getRequestURI(), fault);
        if (reopening.mend(fault)) {
            return told(
                    HttpStatus.SERVICE_UNAVAILABLE,
                    "The disk was full or gone",
                    "The store had to be opened anew, at what was last confirmed. Reload the page and look; repeat what is missing.",
                    request,
                    response);
        }
        return told(
                HttpStatus.INTERNAL_SERVER_ERROR,
                "Something went wrong here",
                "This is our fault, not yours. Nothing you saved is lost; the log of the program says more.",
                request,
                response);
    }

    private static ModelAndView told(
            HttpStatus status,
            String title,
            String sentence,
            HttpServletRequest request,
            HttpServletResponse response) {
        boolean htmx = Htmx.asked(request);
        if (htmx) {
            response.setHeader(Htmx.RETARGET, "#notice");
            response.setHeader(Htmx.RESWAP, "innerHTML");
        }
        ModelAndView view = new ModelAndView(htmx ? "notice :: notice" : "error", status);
        view.addObject("headline", title);
        view.addObject("sentence", sentence);
        view.addObject("status", status.value());
        view.addObject("reload", false);
        view.addObject("frame", new FrameAdvice.Frame(Look.of(request).key(), "", "", "/jobs", ""));
        return view;
    }
}
