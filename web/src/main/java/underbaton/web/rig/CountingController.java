package underbaton.web.rig;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.OptionalInt;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import underbaton.core.rig.Device;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Sighting;
import underbaton.core.rig.Sighting.Seen;
import underbaton.web.kernel.Typed;
import underbaton.web.library.Shows;

/** Finds out how a machine counts, from what somebody sent and saw; asks for one more sighting where that is not certain. */
@Controller
class CountingController {

    private static final int MOST_SIGHTINGS = 10;

    private final Shows shows;

    CountingController(Shows shows) {
        this.shows = shows;
    }

    /** What was seen explains itself in more ways than one. */
    private static final class NotCertain extends RuntimeException {
        private final transient List<Sighting> sightings;
        private final transient List<Numbering> left;

        NotCertain(List<Sighting> sightings, List<Numbering> left) {
            this.sightings = sightings;
            this.left = left;
        }
    }

    /**
     * Sends nothing; takes what somebody sent and saw, and sets the numbering that explains it.
     *
     * @param earlier what was seen before: kind, number and display, parted by colons
     */
    @PostMapping("/shows/{showId}/rig/devices/{deviceId}/explain")
    String explain(
            @PathVariable int showId,
            @PathVariable int deviceId,
            @RequestParam String what,
            @RequestParam String sent,
            @RequestParam String shown,
            @RequestParam(defaultValue = "") String earlier,
            @RequestParam(defaultValue = "") String keep) {
        List<Sighting> sightings = new ArrayList<>(earlier(earlier, Seen.valueOf(what)));
        sightings.add(new Sighting(Seen.valueOf(what), Typed.number("sent", sent), shown));
        shows.edit(showId, "set how it counts", s -> {
            Device device = RigController.device(s, deviceId);
            List<Numbering> left = Sighting.explained(device.numbering(), sightings);
            if (left.size() > 1 && sightings.size() < MOST_SIGHTINGS) {
                throw new NotCertain(sightings, left);
            }
            return s.withDevice(WhichToKeep.settle(device, device.withNumbering(left.get(0)), keep, "found-out"));
        });
        return "redirect:/shows/" + showId + "/rig?device=" + deviceId;
    }

    private static List<Sighting> earlier(String text, Seen what) {
        return Arrays.stream(text.split("\n"))
                .map(line -> line.split(":", 3))
                .filter(parts -> parts.length == 3 && parts[0].equals(what.name()))
                .limit(MOST_SIGHTINGS)
                .map(parts -> new Sighting(what, Typed.number("sent", parts[1]), parts[2]))
                .toList();
    }

    /** The questions that a form is answered with, in the notice line of its page. */
    @ControllerAdvice
    @Order(Ordered.HIGHEST_PRECEDENCE)
    static class Questions {

        @ExceptionHandler(NotCertain.class)
        @ResponseStatus(HttpStatus.UNPROCESSABLE_CONTENT)
        String ask(NotCertain seen, Model model) {
            Seen what = seen.sightings.get(0).what();
            OptionalInt next = Sighting.next(what, seen.left);
            StringBuilder earlier = new StringBuilder();
            seen.sightings.forEach(s -> earlier.append(s.what())
                    .append(':')
                    .append(s.wire())
                    .append(':')
                    .append(s.shown())
                    .append('\n'));
            model.addAttribute("earlier", earlier.toString());
            model.addAttribute("ways", seen.left.size());
            model.addAttribute("what", what.word());
            model.addAttribute("next", next.orElse(0));
            return "rig/counting :: again";
        }

        @ExceptionHandler(WhichToKeep.class)
        @ResponseStatus(HttpStatus.UNPROCESSABLE_CONTENT)
        String ask(WhichToKeep which, Model model) {
            model.addAttribute("machine", which.name());
            model.addAttribute("phrases", which.phrases());
            model.addAttribute("examples", which.examples());
            model.addAttribute("form", which.form());
            return "rig/counting :: keep";
        }
    }
}
