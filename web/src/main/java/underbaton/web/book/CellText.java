package underbaton.web.book;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Show;
import underbaton.core.cue.Start;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;

/**
 * Reads what is typed into a cell of the book.
 *
 * @param column {@code number}, {@code starts}, {@code what}, or the id of a machine
 */
record CellText(String column, String text) {

    Cue into(Cue cue, Show show) {
        return switch (column) {
            case "number" -> cue.withNumber(CueNumber.of(text));
            case "starts" -> cue.withStart(Start.of(text));
            case "what" -> cue.withWhat(text);
            default -> {
                Device device = device(show);
                yield cue.withCallsFor(device.id(), calls(device));
            }
        };
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
        for (String name : text.split(" \\+ |;")) {
            if (!name.isBlank()) {
                calls.add(new Call(device.id(), phrase(device, name.strip()).id()));
            }
        }
        return calls;
    }

    /** The phrase of that name, or the only one that the text can mean. */
    private static Phrase phrase(Device device, String name) {
        Optional<Phrase> exact = device.phraseNamed(name);
        if (exact.isPresent()) {
            return exact.get();
        }
        String wanted = name.toLowerCase(Locale.ROOT);
        List<Phrase> close = device.phrases().stream()
                .filter(p -> p.name().toLowerCase(Locale.ROOT).contains(wanted))
                .sorted(Comparator.comparing(
                        p -> p.name().toLowerCase(Locale.ROOT).indexOf(wanted)))
                .toList();
        if (close.size() == 1) {
            return close.get(0);
        }
        String way = close.isEmpty()
                ? "Write it into the machine's phrasebook on the page Rig, or pick another."
                : "Did you mean “" + close.get(0).name() + "” or “"
                        + close.get(1).name() + "”?";
        throw new Refusal("cell", device.name() + " has no phrase “" + name + "”. " + way);
    }
}
