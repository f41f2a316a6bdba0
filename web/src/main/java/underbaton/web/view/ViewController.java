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
        return List.of(STAGE, BAND, CALL).contains(whose) ? whose : "department";
    }

    /** @param whose a department's code in small letters, with the id of one of its machines behind it where one is meant */
    private Object model(int showId, String whose) {
        PlaybackState state = stage.playback(showId).orElseThrow(NoSuchElementException::new);
        Show show = stage.openShow().filter(s -> s.id() == showId).orElseThrow();
        return switch (whose) {
            case STAGE, BAND -> StageView.of(show, state, recorder.timings(showId, state.plan()), clock);
            case CALL -> CallView.of(show, state);
            default -> DepartmentView.of(show, state, whose(state, whose), clock);
        };
    }

    private static DepartmentView.Whose whose(PlaybackState state, String typed) {
        String[] parts = typed.split("-", 2);
        Department department = Arrays.stream(Department.values())
                .filter(d -> d.key().equals(parts[0]))
                .findFirst()
                .orElseThrow();
        Optional<Device> device = parts.length == 1
                ? Optional.empty()
                : Optional.of(state.plan().devices().stream()
                        .filter(d -> d.department() == department
                                && Integer.toString(d.id()).equals(parts[1]))
                        .findFirst()
                        .orElseThrow());
        return new DepartmentView.Whose(department, device);
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

    @GetMapping("/view/{whose:[a-z]+(?:-[0-9]{1,9})?}")
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
