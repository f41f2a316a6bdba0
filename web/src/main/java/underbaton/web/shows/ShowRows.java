package underbaton.web.shows;

import java.math.BigDecimal;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Show;
import underbaton.core.cue.Span;
import underbaton.core.cue.Start;
import underbaton.core.rig.Amount;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Levels;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.PositionList;
import underbaton.core.rig.Remarks;
import underbaton.core.rig.SpeechWording;
import underbaton.core.score.Score;

/** A show as the rows of its tables, and back. Rows are values, so two states of a show can be compared row by row. */
final class ShowRows {

    private static final SpeechWording WIRE = new SpeechWording(Numbering.WIRE);
    private static final String NETWORK_MIDI = "network-midi";
    private static final String LOCAL_MIDI = "local-midi";
    private static final String OSC = "osc-";
    private static final String TEXT = "text ";
    private static final String NUMBER = "number ";

    record ShowRow(int id, String name, int revision, int nextId) {}

    record DeviceRow(
            int showId,
            int id,
            int place,
            String name,
            String department,
            String wire,
            String host,
            int port,
            String question,
            int channel,
            int firstProgram,
            int bankSize,
            String valueStyle,
            int firstOctave,
            boolean flats,
            int firstPlace,
            int leadMs,
            int settleMs,
            String levels,
            String listKind,
            int listFirst) {}

    record PhraseRow(
            int showId,
            int id,
            int deviceId,
            int place,
            String name,
            String says,
            String argument,
            String effect,
            boolean guarded,
            boolean listed,
            String mark,
            String note,
            String heading) {}

    record ItemRow(int showId, int id, int place, String kind, String name, int plannedSeconds, String score) {}

    record CueRow(
            int showId,
            int id,
            int itemId,
            BigDecimal number,
            String starts,
            String what,
            String mark,
            String note,
            int version) {}

    record CallRow(
            int showId, int cueId, int place, int deviceId, int phraseId, String amount, String motion, String late) {}

    final Map<Integer, DeviceRow> devices = new LinkedHashMap<>();
    final Map<Integer, PhraseRow> phrases = new LinkedHashMap<>();
    final Map<Integer, ItemRow> items = new LinkedHashMap<>();
    final Map<Integer, CueRow> cues = new LinkedHashMap<>();
    final Map<List<Integer>, CallRow> calls = new LinkedHashMap<>();

    /** The rows of nothing: what a new show is compared with. */
    ShowRows() {}

    ShowRows(Show show) {
        int place = 0;
        for (Device device : show.devices()) {
            add(show.id(), device, place++);
        }
        place = 0;
        for (Item item : show.items()) {
            items.put(
                    item.id(),
                    new ItemRow(
                            show.id(),
                            item.id(),
                            place++,
                            item.kind().name(),
                            item.name(),
                            item.plannedSeconds(),
                            item.score().map(Score::toString).orElse("")));
            item.cues().forEach(cue -> add(show.id(), item, cue));
        }
    }

    static ShowRow row(Show show) {
        return new ShowRow(show.id(), show.name(), show.revision(), show.nextId());
    }

    private void add(int showId, Device d, int place) {
        Connection.Osc osc = d.connection() instanceof Connection.Osc o ? o : null;
        Connection.Network network = d.connection() instanceof Connection.Network n ? n : null;
        Numbering numbering = d.numbering();
        devices.put(
                d.id(),
                new DeviceRow(
                        showId,
                        d.id(),
                        place,
                        d.name(),
                        d.department().name(),
                        osc != null ? OSC + osc.carrier().code() : network != null ? NETWORK_MIDI : LOCAL_MIDI,
                        network != null ? network.host() : d.connection().where(),
                        network != null ? network.port() : 0,
                        osc != null ? osc.question() : "",
                        d.channel(),
                        numbering.firstProgram(),
                        numbering.bankSize(),
                        numbering.values().name(),
                        numbering.firstOctave(),
                        numbering.flats(),
                        numbering.firstPlace(),
                        d.leadMs(),
                        d.settleMs(),
                        d.levels().toString(),
                        d.list().map(l -> l.kind().name()).orElse(""),
                        d.list().map(PositionList::first).orElse(0)));
        int phrasePlace = 0;
        for (Phrase p : d.phrases()) {
            phrases.put(
                    p.id(),
                    new PhraseRow(
                            showId,
                            p.id(),
                            d.id(),
                            phrasePlace++,
                            p.name(),
                            WIRE.write(p.says()),
                            p.argument().map(Argument::toString).orElse(""),
                            p.effect().toString(),
                            p.guarded(),
                            p.listed(),
                            p.remarks().mark().name(),
                            p.remarks().note(),
                            p.remarks().group()));
        }
    }

    private void add(int showId, Item item, Cue cue) {
        cues.put(
                cue.id(),
                new CueRow(
                        showId,
                        cue.id(),
                        item.id(),
                        cue.number().value(),
                        cue.start().toString(),
                        cue.what(),
                        cue.mark().name(),
                        cue.note(),
                        cue.version()));
        int place = 0;
        for (Call call : cue.calls()) {
            calls.put(
                    List.of(cue.id(), place),
                    new CallRow(
                            showId,
                            cue.id(),
                            place,
                            call.deviceId(),
                            call.phraseId(),
                            amount(call.amount()),
                            call.motion().map(MotionText::write).orElse(""),
                            call.offset().thousandths() == 0
                                    ? ""
                                    : call.offset().toString()));
            place++;
        }
    }

    /** Builds the show from rows that stand in the order of their places. */
    static Show show(
            ShowRow show,
            List<DeviceRow> devices,
            List<PhraseRow> phrases,
            List<ItemRow> items,
            List<CueRow> cues,
            List<CallRow> calls) {
        return new Show(
                show.id(),
                show.name(),
                show.revision(),
                show.nextId(),
                devices.stream().map(d -> device(d, phrases)).toList(),
                items.stream().map(i -> item(i, cues, calls)).toList());
    }

    private static Device device(DeviceRow d, List<PhraseRow> phrases) {
        return new Device(
                d.id(),
                d.name(),
                Department.valueOf(d.department()),
                connection(d),
                d.channel(),
                new Numbering(
                        d.firstProgram(),
                        d.bankSize(),
                        Numbering.Values.valueOf(d.valueStyle()),
                        d.firstOctave(),
                        d.flats(),
                        d.firstPlace()),
                d.leadMs(),
                d.settleMs(),
                Levels.of(d.levels()),
                list(d),
                phrases.stream()
                        .filter(p -> p.deviceId() == d.id())
                        .map(ShowRows::phrase)
                        .toList());
    }

    private static Connection connection(DeviceRow d) {
        return switch (d.wire()) {
            case NETWORK_MIDI -> new Connection.NetworkMidi(d.host(), d.port());
            case LOCAL_MIDI -> new Connection.LocalMidi(d.host());
            default ->
                Stream.of(Connection.Carrier.values())
                        .filter(c -> d.wire().equals(OSC + c.code()))
                        .findFirst()
                        .map(c -> new Connection.Osc(d.host(), d.port(), d.question(), c))
                        .orElseGet(() -> new Connection.Osc(d.host(), d.port(), d.question()));
        };
    }

    private static Phrase phrase(PhraseRow p) {
        return new Phrase(
                p.id(),
                p.name(),
                WIRE.read(p.says()),
                p.argument().isEmpty() ? Optional.empty() : Optional.of(Argument.of(p.argument())),
                Effect.of(p.effect()),
                p.guarded(),
                p.listed(),
                new Remarks(Remarks.Mark.valueOf(p.mark()), p.note(), p.heading()));
    }

    private static String amount(Optional<Amount> amount) {
        return amount.map(
                        a -> a instanceof Amount.Text text ? TEXT + text.text() : NUMBER + ((Amount.Measure) a).value())
                .orElse("");
    }

    private static Optional<Amount> amount(String written) {
        if (written.isEmpty()) {
            return Optional.empty();
        }
        return Optional.of(
                written.startsWith(TEXT)
                        ? new Amount.Text(written.substring(TEXT.length()))
                        : new Amount.Measure(Double.parseDouble(written.substring(NUMBER.length()))));
    }

    private static Optional<PositionList> list(DeviceRow d) {
        return d.listKind().isEmpty()
                ? Optional.empty()
                : Optional.of(new PositionList(PositionList.Kind.valueOf(d.listKind()), d.listFirst()));
    }

    private static Item item(ItemRow i, List<CueRow> cues, List<CallRow> calls) {
        return new Item(
                i.id(),
                ItemKind.valueOf(i.kind()),
                i.name(),
                i.plannedSeconds(),
                i.score().isEmpty() ? Optional.empty() : Optional.of(Score.of(i.score())),
                cues.stream()
                        .filter(c -> c.itemId() == i.id())
                        .map(c -> cue(c, calls))
                        .toList());
    }

    private static Cue cue(CueRow c, List<CallRow> calls) {
        return new Cue(
                c.id(),
                new CueNumber(c.number()),
                Start.of(c.starts()),
                c.what(),
                calls.stream()
                        .filter(call -> call.cueId() == c.id())
                        .map(call -> new Call(
                                call.deviceId(),
                                call.phraseId(),
                                amount(call.amount()),
                                MotionText.read(call.motion()),
                                call.late().isEmpty() ? Span.ZERO : Span.of(call.late())))
                        .toList(),
                Remarks.Mark.valueOf(c.mark()),
                c.note(),
                c.version());
    }
}
