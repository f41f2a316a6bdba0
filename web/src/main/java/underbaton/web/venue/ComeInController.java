package underbaton.web.venue;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.time.Duration;
import java.util.Optional;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseCookie;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.CookieValue;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import underbaton.core.rig.Cut;
import underbaton.core.rig.Refusal;
import underbaton.web.access.Guests;
import underbaton.web.access.OperatorPassword;
import underbaton.web.access.Role;
import underbaton.web.access.Visitor;
import underbaton.web.access.WaitingDevices;

/** The door as those see it who stand before it: they ask to be let in, wait, and come in. */
@Controller
class ComeInController {

    private static final String ASKING = "__Host-asking";
    private static final Duration WAITS = Duration.ofMinutes(10);
    private static final int LONGEST_NAME = 40;
    private static final Duration LONGEST = Duration.ofDays(400);

    private final WaitingDevices waiting;
    private final Guests guests;
    private final OperatorPassword password;

    ComeInController(WaitingDevices waiting, Guests guests, OperatorPassword password) {
        this.waiting = waiting;
        this.guests = guests;
        this.password = password;
    }

    @GetMapping("/come-in")
    String door() {
        return Visitor.asks().isPresent() ? "redirect:/start" : "venue/come-in";
    }

    @PostMapping("/come-in/ask")
    String ask(@RequestParam String name, HttpServletRequest request, HttpServletResponse response) {
        WaitingDevices.Device device = waiting.ask(name, request.getRemoteAddr());
        cookie(response, ASKING, device.key(), WAITS);
        return "redirect:/come-in/waiting";
    }

    @GetMapping("/come-in/waiting")
    String waiting(@CookieValue(name = ASKING, defaultValue = "") String key, Model model) {
        Optional<WaitingDevices.Device> device =
                waiting.all().stream().filter(d -> d.key().equals(key)).findFirst();
        model.addAttribute("device", device.orElse(null));
        return device.isPresent() ? "venue/waiting" : "redirect:/come-in";
    }

    /** Asked every second by who waits. */
    @GetMapping("/come-in/answer")
    String answer(
            @CookieValue(name = ASKING, defaultValue = "") String key, HttpServletResponse response, Model model) {
        WaitingDevices.Device device = waiting.of(key).orElse(null);
        model.addAttribute("device", device);
        if (device != null && device.state() == WaitingDevices.State.LET_IN) {
            comesIn(device.token(), response);
            response.setHeader("HX-Redirect", "/start");
        }
        return "venue/waiting :: answer";
    }

    /** The operator, from another computer. */
    @PostMapping("/come-in/password")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void byPassword(
            @RequestParam String name,
            @RequestParam("password") String said,
            HttpServletRequest request,
            HttpServletResponse response) {
        String from = request.getRemoteAddr();
        if (!password.isRight(said, from)) {
            throw new Refusal("password", "That is not the operator's password.");
        }
        String called = name.isBlank() ? "operator at " + from : name.strip();
        comesIn(
                guests.letIn(Cut.to(LONGEST_NAME, called), Role.OPERATOR, from, VenueView.HowLong.TONIGHT.length()),
                response);
        // Another page has other styles and scripts, so it must be opened, not swapped in.
        response.setHeader("HX-Redirect", "/start");
    }

    /** Where somebody begins who was let in. */
    @GetMapping("/start")
    String start() {
        Role role = Visitor.asks().map(Visitor::role).orElse(Role.VIEWER);
        if (role == Role.OPERATOR || role == Role.WRITER) {
            return "redirect:/";
        }
        if (role == Role.VIEWER) {
            return "redirect:/view";
        }
        return role == Role.CALLER ? "redirect:/call" : "redirect:/hands";
    }

    /** The device is no longer let in, by its own wish. */
    @PostMapping("/leave")
    String leave(HttpServletResponse response) {
        Visitor.asks().filter(v -> v.id() != 0).ifPresent(v -> guests.takeAway(v.id()));
        cookie(response, Visitor.COOKIE, "", Duration.ZERO);
        return "redirect:/come-in";
    }

    private static void comesIn(String token, HttpServletResponse response) {
        cookie(response, Visitor.COOKIE, token, LONGEST);
        cookie(response, ASKING, "", Duration.ZERO);
    }

    private static void cookie(HttpServletResponse response, String name, String value, Duration length) {
        response.addHeader(
                HttpHeaders.SET_COOKIE,
                ResponseCookie.from(name, value)
                        .httpOnly(true)
                        .secure(true)
                        .sameSite("Strict")
                        .path("/")
                        .maxAge(length)
                        .build()
                        .toString());
    }
}
