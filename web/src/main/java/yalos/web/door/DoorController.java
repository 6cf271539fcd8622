package yalos.web.door;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.time.Duration;
import java.time.LocalDateTime;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseCookie;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yalos.core.fault.InputFault;
import yalos.web.shell.Here;
import yalos.web.shell.Person;
import yalos.web.store.PassMapper;

/** Signing in and out, and tokens for scripts. */
@Controller
class DoorController {
    private static final Duration STAYS = Duration.ofHours(14);
    private static final int LONGEST_NAME = 80;

    private final Doorway doorway;
    private final PassPhrase phrase;
    private final Throttle throttle;
    private final PassMapper passes;

    DoorController(Doorway doorway, PassPhrase phrase, Throttle throttle, PassMapper passes) {
        this.doorway = doorway;
        this.phrase = phrase;
        this.throttle = throttle;
        this.passes = passes;
    }

    @GetMapping("/sign-in")
    String page(@RequestParam(defaultValue = "/jobs") String to, Model model) {
        model.addAttribute("to", Here.path(to));
        return doorway.guarded() ? "door/sign-in" : "redirect:/jobs";
    }

    @PostMapping("/sign-in")
    String signIn(
            @RequestParam(defaultValue = "") String name,
            @RequestParam(defaultValue = "", name = "phrase") String typed,
            @RequestParam(defaultValue = "/jobs") String to,
            HttpServletRequest request,
            HttpServletResponse response,
            Model model) {
        String client = request.getRemoteAddr();
        long wait = throttle.waitS(client);
        String refused = wait > 0
                ? "%d s to wait: too many wrong pass phrases from your address.".formatted(wait)
                : refused(name.strip(), typed, client);
        if (!refused.isEmpty()) {
            model.addAttribute("to", Here.path(to));
            model.addAttribute("name", name);
            model.addAttribute("refused", refused);
            response.setStatus(wait > 0 ? 429 : 401);
            return "door/sign-in";
        }
        throttle.right(client);
        passes.forgetExpired(LocalDateTime.now());
        String token = Secrets.token();
        passes.signIn(Secrets.hash(token), name.strip(), LocalDateTime.now().plus(STAYS));
        response.addHeader(HttpHeaders.SET_COOKIE, cookie(token, STAYS, request));
        return "redirect:" + Here.path(to);
    }

    private String refused(String name, String typed, String client) {
        if (name.isEmpty() || name.length() > LONGEST_NAME) {
            return "Type your name, at most %d letters; it is kept with your changes.".formatted(LONGEST_NAME);
        }
        if (!phrase.is(typed)) {
            throttle.wrong(client);
            return "That is not the pass phrase.";
        }
        return "";
    }

    @PostMapping("/sign-out")
    String signOut(HttpServletRequest request, HttpServletResponse response) {
        SignInFilter.cookie(request).ifPresent(token -> passes.signOut(Secrets.hash(token)));
        response.addHeader(HttpHeaders.SET_COOKIE, cookie("", Duration.ZERO, request));
        return "redirect:/sign-in";
    }

    private static String cookie(String token, Duration stays, HttpServletRequest request) {
        return ResponseCookie.from(SignInFilter.COOKIE, token)
                .path("/")
                .maxAge(stays)
                .httpOnly(true)
                .secure(request.isSecure())
                .sameSite("Strict")
                .build()
                .toString();
    }

    @GetMapping("/tokens")
    String tokens(Model model) {
        model.addAttribute("tokens", passes.tokens());
        model.addAttribute("guarded", doorway.guarded());
        return "door/tokens";
    }

    /** Makes a token and shows it, this once. */
    @PostMapping("/tokens")
    String makeToken(@RequestParam(defaultValue = "") String name, Model model) {
        String named = name.strip();
        if (named.isEmpty() || named.length() > LONGEST_NAME) {
            throw new InputFault("name", name, "Name the script, in at most %d letters.".formatted(LONGEST_NAME));
        }
        String token = Secrets.token();
        passes.makeToken(named, Secrets.hash(token), Person.present());
        model.addAttribute("made", token);
        return tokens(model);
    }

    @PostMapping("/tokens/{id}/revoke")
    String revoke(@PathVariable long id) {
        passes.revoke(id);
        return "redirect:/tokens";
    }
}
