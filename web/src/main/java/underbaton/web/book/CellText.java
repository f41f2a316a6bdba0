package underbaton.web.book;

import java.util.ArrayList;
import java.util.List;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.Show;
import underbaton.core.cue.Start;
import underbaton.core.rig.Device;
import underbaton.core.rig.Refusal;
import underbaton.core.score.Score;

/**
 * Reads what is typed into a cell of the book.
 *
 * @param column {@code number}, {@code starts}, {@code what}, or the id of a machine
 */
record CellText(String column, String text) {

    Cue into(Cue cue, Show show) {
        return switch (column) {
            case "number" -> cue.withNumber(CueNumber.of(text));
            case "starts" -> cue.withStart(start(cue, show));
            case "what" -> cue.withWhat(text);
            default -> {
                Device device = device(show);
                yield cue.withCallsFor(device.id(), calls(device));
            }
        };
    }

    /** A beat must be there before a cue can land on it. */
    private Start start(Cue cue, Show show) {
        Start start = Start.of(text);
        if (start instanceof Start.Landing landing) {
            landing.nanos(show.itemOf(cue.id()).flatMap(Item::score).map(Score::read));
        }
        return start;
    }

    /** What the cell says now. */
    String standing(Cue cue, Show show) {
        return switch (column) {
            case "number" -> cue.number().toString();
            case "starts" -> cue.start().toString();
            case "what" -> cue.what();
            default -> BookView.text(show, cue, device(show).id());
        };
    }

    private Device device(Show show) {
        return show.device(column.matches("\\d{1,9}") ? Integer.parseInt(column) : 0)
                .orElseThrow(() -> new Refusal("device", "That machine is no longer in the rig; reload the page."));
    }

    private List<Call> calls(Device device) {
        List<Call> calls = new ArrayList<>();
        for (String part : text.split(" \\+ |;")) {
            if (!part.isBlank()) {
                calls.add(Call.of(device, part.strip()));
            }
        }
        return calls;
    }
}
