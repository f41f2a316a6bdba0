package underbaton.web.book;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiFunction;
import java.util.stream.Collectors;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.Show;
import underbaton.core.cue.Start;
import underbaton.core.exchange.CueTable;
import underbaton.core.rig.Device;
import underbaton.core.rig.Refusal;
import underbaton.core.score.Score;
import underbaton.core.store.StoredForm;

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
            default -> CueTable.cell(cue, device(show));
        };
    }

    private Device device(Show show) {
        return show.device(column.matches("\\d{1,9}") ? Integer.parseInt(column) : 0)
                .orElseThrow(() -> new Refusal("device", "That machine is no longer in the rig; reload the page."));
    }

    private List<Call> calls(Device device) {
        return Call.parts(text).stream().map(p -> Call.of(device, p)).toList();
    }

    private boolean isOfAMachine() {
        return column.matches("\\d{1,9}");
    }

    /** Whether a machine is told something that it has a phrase for. */
    private boolean isKnown(Show show) {
        return isOfAMachine()
                && Call.parts(text).stream().anyMatch(p -> call(device(show), p).isPresent());
    }

    private static Optional<Call> call(Device device, String part) {
        try {
            return Optional.of(Call.of(device, part));
        } catch (Refusal unknown) {
            return Optional.empty();
        }
    }

    /**
     * The same, but what is no phrase of the machine stands there as it is written.
     *
     * @param left gets a sentence for each of those
     */
    private Cue intoAsWritten(Cue cue, Show show, List<String> left) {
        if (!isOfAMachine()) {
            return into(cue, show);
        }
        Device device = device(show);
        return cue.withCallsFor(
                device.id(),
                Call.parts(text).stream()
                        .map(part -> call(device, part).orElseGet(() -> {
                            left.add("Cue " + cue.number() + ", " + device.name() + ": “" + part
                                    + "” is no phrase of it; it stands in its cell and sends nothing");
                            return Call.asWritten(device.id(), part);
                        }))
                        .toList());
    }

    /** @throws Refusal naming the part that is only the beginning of a phrase's name, with what it may mean */
    void requireWhole(Show show) {
        if (!isOfAMachine()) {
            return;
        }
        Device device = device(show);
        for (String part : Call.parts(text)) {
            String meant = Call.of(device, part).tell(device);
            String name = device.phrase(Call.of(device, part).phraseId())
                    .orElseThrow()
                    .name();
            String typed = part.strip().replace("\"", "").toLowerCase(Locale.ROOT);
            if (!typed.startsWith(name.replace("\"", "").toLowerCase(Locale.ROOT))) {
                throw new Refusal(
                        "cell",
                        "“" + part.strip() + "” is not a whole name yet. Press Enter for “" + meant
                                + "”, write on, or Esc to leave the cell as it was.");
            }
        }
    }

    // ---- several cells

    /** A cell and the cue that it belongs to. */
    record Of(int cue, int version, Optional<String> was, CellText cell) {

        /** Two people at two cells of one cue do not disagree. */
        boolean overtaken(Cue now, Show show) {
            return now.version() != version && !was.equals(Optional.of(cell.standing(now, show)));
        }
    }

    /** What a page sends, so many cells as there are in a book. */
    private record Sent(List<One> cells) {}

    /** @param was what the page showed in the cell, where it is drawn */
    private record One(int cue, int version, String column, String text, Optional<String> was) {}

    /** @param json a list of cells, each with cue, version, column and text */
    static List<Of> all(String json) {
        return StoredForm.read("{\"cells\":" + json + "}", Sent.class).cells().stream()
                .map(c -> new Of(c.cue(), c.version(), c.was(), new CellText(c.column(), c.text())))
                .toList();
    }

    /**
     * A block from elsewhere: where it has phrases of its machines, what is none stands in its cell as it is written. One without any is
     * most likely put beside its column, and refused like what is typed.
     *
     * @param left gets a sentence for each part that is no phrase
     */
    static Show pasted(List<Of> cells, Show show, List<String> left) {
        boolean keeps = cells.stream().anyMatch(c -> c.cell.isKnown(show));
        return into(
                cells,
                show,
                keeps ? (cell, cue) -> cell.intoAsWritten(cue, show, left) : (cell, cue) -> cell.into(cue, show));
    }

    /** @throws Refusal naming the cue whose cell cannot be written; nothing has been written then */
    static Show into(List<Of> cells, Show show) {
        return into(cells, show, (cell, cue) -> cell.into(cue, show));
    }

    private static Show into(List<Of> cells, Show show, BiFunction<CellText, Cue, Cue> write) {
        Map<Integer, Cue> cues = show.cues().collect(Collectors.toMap(Cue::id, c -> c));
        Map<Integer, Cue> written = new LinkedHashMap<>();
        for (Of one : cells) {
            Cue before = cues.get(one.cue);
            if (before == null) {
                throw new Refusal("cue", "One of these cues is gone; nothing was written.");
            }
            if (one.overtaken(before, show)) {
                throw new Refusal(
                        "cell",
                        "Somebody changed cue " + before.number()
                                + " meanwhile. Nothing was written; look at it and try again.");
            }
            try {
                written.put(one.cue, write.apply(one.cell, written.getOrDefault(one.cue, before)));
            } catch (Refusal refusal) {
                throw new Refusal(
                        refusal.field(),
                        "Cue " + before.number() + ": " + refusal.getMessage() + " Nothing was written.");
            }
        }
        return show.withCuesExchanged(written.values());
    }
}
