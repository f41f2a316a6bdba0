package underbaton.core.exchange;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.stream.Stream;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.Show;
import underbaton.core.cue.Start;
import underbaton.core.exchange.CueTable.Column;
import underbaton.core.exchange.CueTable.Row;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Remarks.Mark;
import underbaton.core.score.Score;

/**
 * Gives the rows of a cue table to the machines of a show. A phrase is looked for by its name: in the machine that has
 * the column's name, then in the others of the column's department; where the heading names no department, in every
 * machine. What nobody's phrasebook has is left out and told.
 */
final class Repointing {

    private final Show show;
    private final List<Column> columns;
    private final boolean keepsWords;
    private final List<String> left = new ArrayList<>();

    /** @param keepsWords whether what could not be matched stands in the cell of the machine of that name as it was written */
    Repointing(Show show, List<Column> columns, boolean keepsWords) {
        this.keepsWords = keepsWords;
        this.show = show;
        this.columns = columns;
    }

    /** What could not be matched so far, a sentence each. */
    List<String> left() {
        return List.copyOf(left);
    }

    /** The table's cues, ready to be added. @throws Refusal naming the row that cannot be read */
    List<Cue> cues(CueTable table) {
        Cue blank = new Cue(0, CueNumber.of("1"), Start.BY_HAND, "", List.of(), 0);
        List<Cue> cues = new ArrayList<>();
        for (Row row : table.rows()) {
            try {
                if (row.isCue()) {
                    cues.add(into(row, blank));
                }
            } catch (Refusal refusal) {
                throw Csv.at(row.line(), refusal);
            }
        }
        return cues;
    }

    /** Tells which of an item's cues wait for a place that it does not have. */
    static Stream<String> nowhere(Item item, Predicate<Cue> asked) {
        Optional<Score.Times> times = item.score().map(Score::read);
        return item.cues().stream()
                .filter(c -> asked.test(c) && !lands(c, times))
                .map(c -> "Cue " + c.number() + " starts “" + c.start() + "”, and “" + item.name()
                        + "” has no such place yet; until it has, the cue waits for GO");
    }

    private static boolean lands(Cue cue, Optional<Score.Times> times) {
        if (!(cue.start() instanceof Start.Landing landing)) {
            return true;
        }
        try {
            landing.nanos(times);
            return true;
        } catch (Refusal noSuchPlace) {
            return false;
        }
    }

    /**
     * A cue with what a row says of it. Where a column is missing, or nothing of a cell could be matched, the cue stays as
     * it is.
     *
     * @throws Refusal when its number, start or mark cannot be read
     */
    Cue into(Row row, Cue base) {
        Cue cue = base;
        String number = row.field(CueTable.CUE);
        cue = number.isEmpty() ? cue : cue.withNumber(CueNumber.of(number));
        cue = row.fields().containsKey(CueTable.STARTS) ? cue.withStart(Start.of(row.field(CueTable.STARTS))) : cue;
        cue = row.fields().containsKey(CueTable.WHAT) ? cue.withWhat(row.field(CueTable.WHAT)) : cue;
        cue = cue.withRemarks(
                row.fields().containsKey(CueTable.MARK) ? Mark.of(row.field(CueTable.MARK)) : cue.mark(),
                row.fields().containsKey(CueTable.NOTE) ? row.field(CueTable.NOTE) : cue.note());
        for (Map.Entry<Integer, List<Call>> calls : calls(row, cue).entrySet()) {
            boolean same = cue.callsFor(calls.getKey()).equals(calls.getValue());
            cue = same ? cue : cue.withCallsFor(calls.getKey(), calls.getValue());
        }
        return cue;
    }

    /** By the id of its device, what each is to get; only devices that a column speaks of. */
    private Map<Integer, List<Call>> calls(Row row, Cue cue) {
        Map<Integer, List<Call>> calls = new LinkedHashMap<>();
        for (int i = 0; i < columns.size(); i++) {
            Column column = columns.get(i);
            Optional<Device> named = named(column);
            List<Call> found = new ArrayList<>();
            boolean lost = false;
            for (String part : Call.parts(row.cells().get(i))) {
                Optional<Call> call = call(column, named, part, cue);
                call.ifPresent(found::add);
                lost |= call.isEmpty();
            }
            if (!lost || !found.isEmpty()) {
                named.ifPresent(d -> calls.putIfAbsent(d.id(), new ArrayList<>()));
            }
            found.forEach(c ->
                    calls.computeIfAbsent(c.deviceId(), d -> new ArrayList<>()).add(c));
        }
        return calls;
    }

    private Optional<Device> named(Column column) {
        return show.devices().stream()
                .filter(d ->
                        d.name().equalsIgnoreCase(column.machine()) || d.name().equalsIgnoreCase(column.toString()))
                .findFirst();
    }

    private Optional<Call> call(Column column, Optional<Device> named, String part, Cue cue) {
        List<Device> others = show.devices().stream()
                .filter(d -> column.department().map(c -> c == d.department()).orElse(true))
                .filter(d -> named.isEmpty() || named.get() != d)
                .toList();
        String why = "no machine here has that phrase";
        for (Device device : Stream.concat(named.stream(), others.stream()).toList()) {
            try {
                Call call = Call.of(device, part);
                if (named.isPresent() && named.get() == device || isWhole(device, call, part)) {
                    return Optional.of(call);
                }
            } catch (Refusal refused) {
                boolean meant = device.phrases().stream()
                        .anyMatch(p ->
                                p.name().equalsIgnoreCase(part) || p.argument().isPresent() && begins(part, p));
                why = meant ? device.name() + " refuses it: " + refused.getMessage() : why;
            }
        }
        boolean kept = keepsWords && named.isPresent();
        left.add("Cue " + cue.number() + ", " + column.machine() + ": “" + part + "”, " + why
                + (kept ? "; it stands in its cell and sends nothing" : ""));
        return named.filter(d -> kept).map(d -> Call.asWritten(d.id(), part));
    }

    /** Whether the phrase's whole name was written; an unfinished one will do for the machine of that name alone. */
    private static boolean isWhole(Device device, Call call, String part) {
        return device.phrase(call.phraseId()).filter(p -> begins(part, p)).isPresent();
    }

    private static boolean begins(String part, Phrase phrase) {
        return (part.toLowerCase(Locale.ROOT) + " ").startsWith(phrase.name().toLowerCase(Locale.ROOT) + " ");
    }
}
