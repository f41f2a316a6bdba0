package underbaton.web.shows;

import java.math.BigDecimal;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Show;
import underbaton.core.cue.Start;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.PositionList;
import underbaton.core.rig.Wording;

/** A show as the rows of its tables, and back. Rows are values, so two states of a show can be compared row by row. */
final class ShowRows {

    private static final Wording WIRE = new Wording(Numbering.WIRE);
    private static final String NETWORK_MIDI = "network-midi";
    private static final String OSC = "osc";

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
            int firstValue,
            int firstOctave,
            int leadMs,
            String listKind,
            int listFirst) {}

    record PhraseRow(
            int showId,
            int id,
            int deviceId,
            int place,
            String name,
            String says,
            String effect,
            boolean guarded,
            boolean listed) {}

    record ItemRow(int showId, int id, int place, String kind, String name, int plannedSeconds) {}

    record CueRow(int showId, int id, int itemId, BigDecimal number, String starts, String what, int version) {}

    record CallRow(int showId, int cueId, int place, int deviceId, int phraseId) {}

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
                    new ItemRow(show.id(), item.id(), place++, item.kind().name(), item.name(), item.plannedSeconds()));
            item.cues().forEach(cue -> add(show.id(), item, cue));
        }
    }

    static ShowRow row(Show show) {
        return new ShowRow(show.id(), show.name(), show.revision(), show.nextId());
    }

    private void add(int showId, Device d, int place) {
        boolean midi = d.connection() instanceof Connection.NetworkMidi;
        String question = d.connection() instanceof Connection.Osc osc ? osc.question() : "";
        devices.put(
                d.id(),
                new DeviceRow(
                        showId,
                        d.id(),
                        place,
                        d.name(),
                        d.department().name(),
                        midi ? NETWORK_MIDI : OSC,
                        d.connection().host(),
                        d.connection().port(),
                        question,
                        d.channel(),
                        d.numbering().firstProgram(),
                        d.numbering().firstValue(),
                        d.numbering().firstOctave(),
                        d.leadMs(),
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
                            p.effect().name(),
                            p.guarded(),
                            p.listed()));
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
                        cue.version()));
        int place = 0;
        for (Call call : cue.calls()) {
            calls.put(List.of(cue.id(), place), new CallRow(showId, cue.id(), place, call.deviceId(), call.phraseId()));
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
        Connection connection = d.wire().equals(NETWORK_MIDI)
                ? new Connection.NetworkMidi(d.host(), d.port())
                : new Connection.Osc(d.host(), d.port(), d.question());
        return new Device(
                d.id(),
                d.name(),
                Department.valueOf(d.department()),
                connection,
                d.channel(),
                new Numbering(d.firstProgram(), d.firstValue(), d.firstOctave()),
                d.leadMs(),
                list(d),
                phrases.stream()
                        .filter(p -> p.deviceId() == d.id())
                        .map(p -> new Phrase(
                                p.id(),
                                p.name(),
                                WIRE.read(p.says()),
                                Effect.valueOf(p.effect()),
                                p.guarded(),
                                p.listed()))
                        .toList());
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
                        .map(call -> new Call(call.deviceId(), call.phraseId()))
                        .toList(),
                c.version());
    }
}
