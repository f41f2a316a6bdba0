package underbaton.web.view;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.NoSuchElementException;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import underbaton.core.cue.Show;
import underbaton.core.engine.PlaybackState;
import underbaton.core.loop.Clock;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;
import underbaton.web.live.Live;
import underbaton.web.live.Painting;
import underbaton.web.record.Recorder;
import underbaton.web.stage.Stage;

/** The views of the departments: of whatever show is on the desk, so that a link stays right from one night to the next. */
@Controller
class ViewController {

    private static final String STAGE = "stage";
    private static final String BAND = "band";
    private static final String CALL = "call";

    private final Stage stage;
    private final Recorder recorder;
    private final Clock clock;

    ViewController(Stage stage, Recorder recorder, Clock clock, Live live, Painting painting) {
        this.stage = stage;
        this.recorder = recorder;
        this.clock = clock;
        live.paintsEach(
                "view",
                (showId, whose) -> stage.isOpen(showId)
                        ? painting.of("view/parts", fragment(whose), Map.of("view", model(showId, whose)))
                        : painting.of("view/parts", "gone", Map.of()));
    }

    private static String fragment(String whose) {
        if (List.of(STAGE, BAND, CALL).contains(whose)) {
            return whose;
        }
        return whose.split("-").length > 2 ? "camera" : "department";
    }

    /** @param whose a department's code in small letters, with the id of one of its machines behind it where one is meant, and of one of its phrases */
    private Object model(int showId, String whose) {
        PlaybackState state = stage.playback(showId).orElseThrow(NoSuchElementException::new);
        Show show = stage.openShow().filter(s -> s.id() == showId).orElseThrow();
        return switch (whose) {
            case STAGE, BAND -> StageView.of(show, state, recorder.timings(showId, state.plan()), clock);
            case CALL -> CallView.of(show, state);
            default -> {
                Whose of = whose(state, whose);
                yield of.phrase().isPresent()
                        ? CameraView.of(show, state, of, clock)
                        : DepartmentView.of(show, state, of, clock);
            }
        };
    }

    private static Whose whose(PlaybackState state, String typed) {
        String[] parts = typed.split("-");
        Department department = Arrays.stream(Department.values())
                .filter(d -> d.key().equals(parts[0]))
                .findFirst()
                .orElseThrow();
        Optional<Device> device = parts.length == 1
                ? Optional.empty()
                : Optional.of(state.plan().devices().stream()
                        .filter(d -> d.department() == department && isId(d.id(), parts[1]))
                        .findFirst()
                        .orElseThrow());
        Optional<Phrase> phrase = parts.length < 3
                ? Optional.empty()
                : Optional.of(device.orElseThrow().phrases().stream()
                        .filter(p -> isId(p.id(), parts[2]))
                        .findFirst()
                        .orElseThrow());
        return new Whose(department, device, phrase);
    }

    private static boolean isId(int id, String typed) {
        return Integer.toString(id).equals(typed);
    }

    /** Which views there are. */
    @GetMapping("/view")
    String all(Model model) {
        Optional<PlaybackState> state = stage.openShow().flatMap(s -> stage.playback(s.id()));
        model.addAttribute("show", stage.openShow().orElse(null));
        model.addAttribute("departments", Department.values());
        model.addAttribute("devices", state.map(s -> s.plan().devices()).orElse(List.of()));
        return "view/views";
    }

    /** The caller's page, for one hand. */
    @GetMapping("/call")
    String call(Model model) {
        one(CALL, model);
        model.addAttribute("script", CALL);
        return "view/call";
    }

    @GetMapping("/view/{whose:[a-z]+(?:-[0-9]{1,9}){0,2}}")
    String one(@PathVariable String whose, Model model) {
        Show show = stage.openShow().orElse(null);
        model.addAttribute("show", show);
        model.addAttribute("whose", whose);
        model.addAttribute("fragment", fragment(whose));
        try {
            model.addAttribute("view", show == null ? null : model(show.id(), whose));
        } catch (NoSuchElementException noSuchDepartment) {
            return "redirect:/view";
        }
        return "view/view";
    }
}
