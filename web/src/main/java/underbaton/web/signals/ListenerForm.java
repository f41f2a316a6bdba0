package underbaton.web.signals;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Hands;
import underbaton.core.cue.Show;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.MachineControl;
import underbaton.core.midi.Message;
import underbaton.core.midi.ShowControl;
import underbaton.core.rig.Device;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Refusal;
import underbaton.core.signal.Condition;
import underbaton.core.signal.Deed;
import underbaton.core.signal.Learning;
import underbaton.core.signal.Listener;
import underbaton.core.signal.Pattern;
import underbaton.core.signal.Reaction;
import underbaton.core.signal.Source;
import underbaton.web.kernel.Typed;

/**
 * The blanks of a listener, as they are typed: numbers in the printing of the machine that is listened to.
 *
 * @param from a machine's id, {@code rig} for all of them, {@code others} for those who are none, {@code several}
 * @param channel 1–16, or empty for any
 * @param kind of the pattern, as its file calls it
 * @param low the number that is meant, or the first
 * @param high the last; empty for the same
 * @param soft the softest velocity, the threshold, the lower value or the least change
 * @param hard the hardest velocity, or the upper value
 * @param way struck or let go, pressed, released, within, changed; a command; a move of the transport
 * @param word the list of show control
 * @param text the cue of show control, the address of OSC
 * @param argument of each condition on an OSC message, from 1
 * @param relation of each
 * @param wanted what each compares with; empty for no condition
 * @param does a deed's name, {@code cue}, {@code item}, {@code phrase}, {@code arm}, {@code disarm} or {@code relay}
 * @param cue its number; empty for the one that comes with the signal
 * @param fires anything where the cue is fired, null where it stands by
 * @param offset added to a number that comes with it
 * @param target the id of an item, a phrase with its machine ({@code 3 7}), or a listener
 * @param section the letter of a section of the item; empty for its beginning
 * @param group the ids of listeners that are armed or disarmed, with commas
 * @param among the ids of machines, with commas, where several are listened to
 * @param table which cue is meant by which number, {@code 1=20, 2=30.5}
 * @param twice anything where it may mean what another listener means too
 * @param pause ms
 * @param item to which it belongs; 0 for none
 * @param atOnce anything where what wants a second act is done at the first
 * @param listens anything where it listens
 */
public record ListenerForm(
        int id,
        String name,
        String from,
        String channel,
        String kind,
        String low,
        String high,
        String soft,
        String hard,
        String way,
        String bank,
        String word,
        String text,
        List<String> argument,
        List<String> relation,
        List<String> wanted,
        String does,
        String cue,
        String fires,
        String offset,
        String target,
        String section,
        String group,
        String among,
        String table,
        String twice,
        String pause,
        int item,
        String atOnce,
        String listens) {

    /** Blanks of another kind are not sent. */
    public ListenerForm {
        name = Typed.orEmpty(name);
        from = Typed.orEmpty(from);
        kind = Typed.orEmpty(kind);
        does = Typed.orEmpty(does);
        channel = Typed.orEmpty(channel);
        low = Typed.orEmpty(low);
        high = Typed.orEmpty(high);
        soft = Typed.orEmpty(soft);
        hard = Typed.orEmpty(hard);
        way = Typed.orEmpty(way);
        bank = Typed.orEmpty(bank);
        word = Typed.orEmpty(word);
        text = Typed.orEmpty(text);
        argument = argument == null ? List.of() : List.copyOf(argument);
        relation = relation == null ? List.of() : List.copyOf(relation);
        wanted = wanted == null ? List.of() : List.copyOf(wanted);
        cue = Typed.orEmpty(cue);
        offset = Typed.orEmpty(offset);
        target = Typed.orEmpty(target);
        section = Typed.orEmpty(section);
        group = Typed.orEmpty(group);
        among = Typed.orEmpty(among);
        table = Typed.orEmpty(table);
        pause = Typed.orEmpty(pause);
    }

    /** What can be listened for, as the page offers it. */
    static final Map<String, String> KINDS = inOrder(
            "note", "a note",
            "controller", "a controller",
            "program", "a program",
            "bend", "a pitch bend",
            "showControl", "show control",
            "machineControl", "machine control",
            "song", "song select",
            "transport", "the clock’s",
            "osc", "OSC");

    static final Map<String, String> WAYS = inOrder(
            "pressed", "pressed, from",
            "released", "let go, below",
            "within", "between",
            "changed", "moved by");

    private static Map<String, String> inOrder(String... pairs) {
        Map<String, String> map = new LinkedHashMap<>();
        for (int i = 0; i < pairs.length; i += 2) {
            map.put(pairs[i], pairs[i + 1]);
        }
        return map;
    }

    static final String RIG = "rig";
    static final String OTHERS = "others";
    static final String SEVERAL = "several";

    /** What stands in a blank of one kind; those of the other kinds are empty. */
    public String blank(String ofKind, String typed) {
        return kind.equals(ofKind) ? typed : "";
    }

    /**
     * For something that came in: that very signal, from that very machine; a relay takes all of its amounts, or programs.
     *
     * @param relay whether it is passed on
     */
    static ListenerForm of(Show show, Source source, Message message, boolean relay) {
        ListenerDraft d = new ListenerDraft();
        Numbering n = source.numbering();
        d.from = source.deviceId() == Source.OTHERS ? OTHERS : Integer.toString(source.deviceId());
        d.channel = message instanceof ChannelMessage m ? Integer.toString(Numbering.channel(m.channel())) : "";
        d.does = relay ? "relay" : "GO";
        d.listens = "on";
        d.name = show.freeListenerName(source.name());
        d.pattern(Learning.pattern(message, relay), n);
        return d.form();
    }

    /** An empty one, or one that is there. */
    static ListenerForm of(Show show, Optional<Listener> listener, boolean relay) {
        ListenerDraft d = new ListenerDraft();
        d.from = RIG;
        d.listens = "on";
        d.does = relay ? "relay" : "GO";
        d.pattern(relay ? Learning.ANY_PROGRAM : Pattern.Controller.pressed(67), Numbering.WIRE);
        listener.ifPresent(l -> d.fill(show, l));
        return d.form();
    }

    /** What it is called over its form. */
    public String title() {
        if (id == 0) {
            return isRelay() ? "New relay" : "New listener";
        }
        return isRelay() ? "Relay" : "Listener";
    }

    /** Whether it is a relay, whose further blanks are {@link RelayForm}'s. */
    boolean isRelay() {
        return "relay".equals(does);
    }

    /** The listener; where it is to be a relay, with a reaction that is still to be exchanged. */
    Listener toListener(Show show) {
        Numbering n = numbering(show);
        OptionalInt on = channel.isBlank()
                ? OptionalInt.empty()
                : OptionalInt.of(Numbering.wireChannel(Typed.number("channel", channel)));
        return new Listener(
                id,
                name,
                sources(),
                on,
                pattern(n),
                reaction(show),
                pause.isBlank() ? 0 : Typed.number("pause", pause),
                item,
                atOnce != null,
                listens != null);
    }

    private Numbering numbering(Show show) {
        Set<Integer> sources = sources();
        List<Numbering> numberings = sources.stream()
                .flatMap(i -> show.device(i).stream())
                .map(Device::numbering)
                .distinct()
                .toList();
        if (numberings.size() > 1) {
            throw new Refusal("from", "These machines print their numbers differently; make a listener for each.");
        }
        return numberings.isEmpty() ? Numbering.WIRE : numberings.get(0);
    }

    private Set<Integer> sources() {
        return switch (from) {
            case RIG -> Set.of();
            case OTHERS -> Set.of(Source.OTHERS);
            case SEVERAL -> ids("from", among);
            default -> Set.of(Typed.number("from", from));
        };
    }

    private Pattern pattern(Numbering n) {
        return switch (kind) {
            case "note" ->
                new Pattern.Note(
                        n.wireNote(low),
                        n.wireNote(or(high, low)),
                        soft.isBlank() ? 1 : Typed.number("soft", soft),
                        hard.isBlank() ? 127 : Typed.number("hard", hard),
                        !"released".equals(way));
            case "controller" -> controller(n);
            case "program" ->
                low.isBlank()
                        ? new Pattern.Program(wantedBank(), 0, 127)
                        : new Pattern.Program(wantedBank(), n.wireProgram(low), n.wireProgram(or(high, low)));
            case "bend" -> new Pattern.Bend(signed("soft", or(soft, "-8192")), signed("hard", or(hard, "8191")));
            case "showControl" -> new Pattern.Show(one(ShowControl.Command.values(), way), word.strip(), text.strip());
            case "machineControl" -> new Pattern.Machine(one(MachineControl.Command.values(), way));
            case "song" ->
                low.isBlank()
                        ? new Pattern.Song(0, 127)
                        : new Pattern.Song(Typed.number("low", low), Typed.number("high", or(high, low)));
            case "transport" -> new Pattern.Transport(one(Pattern.Move.values(), way));
            case "osc" ->
                new Pattern.Osc(
                        text.strip(),
                        rows().stream()
                                .filter(r -> !r.wanted.isBlank())
                                .map(r -> new Condition(
                                        Typed.number("argument", r.argument) - 1,
                                        one(Condition.Relation.values(), r.relation),
                                        r.wanted.strip()))
                                .toList());
            default -> throw new Refusal("kind", "Choose what it listens for.");
        };
    }

    /** A condition on an argument of an OSC message, as it is typed. */
    public record ConditionRow(String argument, String relation, String wanted) {}

    /** One more than there are, and two at least: a form that sends but one is taken apart at its commas. */
    public List<ConditionRow> rows() {
        List<ConditionRow> rows = new ArrayList<>();
        for (int i = 0; i < wanted.size(); i++) {
            if (!wanted.get(i).isBlank()) {
                rows.add(new ConditionRow(at(argument, i, "1"), at(relation, i, "IS"), wanted.get(i)));
            }
        }
        do {
            rows.add(new ConditionRow(Integer.toString(rows.size() + 1), "IS", ""));
        } while (rows.size() < 2);
        return rows;
    }

    private static String at(List<String> all, int place, String otherwise) {
        return place < all.size() ? all.get(place) : otherwise;
    }

    private Pattern controller(Numbering n) {
        Pattern.Way when = one(Pattern.Way.values(), way);
        int from =
                soft.isBlank() ? when == Pattern.Way.WITHIN ? 0 : when == Pattern.Way.CHANGED ? 1 : 64 : value(when, n);
        int to = when == Pattern.Way.WITHIN && !hard.isBlank() ? n.wireValue(hard) : 127;
        return new Pattern.Controller(Typed.number("low", low), when, from, to);
    }

    /** A change is a distance and no value. */
    private int value(Pattern.Way when, Numbering n) {
        return when == Pattern.Way.CHANGED ? Typed.number("soft", soft) : n.wireValue(soft);
    }

    private int wantedBank() {
        return bank.isBlank() ? -1 : Typed.number("bank", bank);
    }

    private static int signed(String field, String typed) {
        String text = typed.strip().replace('−', '-').replace("+", "");
        return text.startsWith("-") ? -Typed.number(field, text.substring(1)) : Typed.number(field, text);
    }

    private Reaction reaction(Show show) {
        int by = offset == null || offset.isBlank() ? 0 : signed("offset", offset);
        return switch (does) {
            case "cue" -> new Reaction.ToCue(cue.isBlank() ? 0 : cueId(show, cue), by, rows(show), fires != null);
            case "item" -> new Reaction.Play(targetId(), by, section == null ? "" : section);
            case "phrase" -> {
                String[] parts = target.split(" ");
                if (parts.length != 2) {
                    throw new Refusal("target", "Choose the phrase that is fired.");
                }
                yield new Reaction.Fire(Typed.number("target", parts[0]), Typed.number("target", parts[1]));
            }
            case "hand" -> {
                if (Hands.key(show, targetId()).isEmpty()) {
                    throw new Refusal("target", "Choose the hand cue; the page Hands makes them.");
                }
                yield new Reaction.Hand(targetId());
            }
            // Until what it passes on is put in its place.
            case "relay" -> new Reaction.Give(Deed.GO);
            case "arm", "disarm" -> new Reaction.Arm(ids("target", group), does.equals("arm"));
            default -> new Reaction.Give(one(Deed.values(), does));
        };
    }

    private static Set<Integer> ids(String field, String typed) {
        Set<Integer> ids = new TreeSet<>();
        for (String id : typed == null ? new String[0] : typed.split(",")) {
            if (!id.isBlank()) {
                ids.add(Typed.number(field, id));
            }
        }
        if (ids.isEmpty()) {
            throw new Refusal(field, "Tick at least one of them.");
        }
        return ids;
    }

    static String joined(Set<Integer> ids) {
        return ids.stream().map(String::valueOf).collect(Collectors.joining(","));
    }

    /** Whether an id is one of a blank's. */
    public boolean has(String blank, int id) {
        return List.of(blank.split(",")).contains(Integer.toString(id));
    }

    private int targetId() {
        return target == null || target.isBlank() ? 0 : Typed.number("target", target);
    }

    /** {@code 1=20, 2=30.5}: the number that comes, and the cue that it means. */
    private List<Reaction.ToCue.Row> rows(Show show) {
        List<Reaction.ToCue.Row> rows = new ArrayList<>();
        for (String row : table == null ? new String[0] : table.split("[,;\\n]")) {
            String[] parts = row.split("=");
            if (!row.isBlank() && parts.length != 2) {
                throw new Refusal("table", "“" + row.strip() + "” is no row of a table; write 1=20, 2=30.5.");
            }
            if (!row.isBlank()) {
                rows.add(new Reaction.ToCue.Row(parts[0].strip(), cueId(show, parts[1].strip())));
            }
        }
        return rows;
    }

    private static int cueId(Show show, String typed) {
        CueNumber number = CueNumber.of(typed);
        return show.cueNumbered(number)
                .map(Cue::id)
                .orElseThrow(() -> new Refusal("cue", "There is no cue " + number + " in this show."));
    }

    private static <E extends Enum<E>> E one(E[] all, String name) {
        for (E each : all) {
            if (each.name().equalsIgnoreCase(name == null ? "" : name)) {
                return each;
            }
        }
        throw new Refusal("way", "Choose one of what is offered; “" + name + "” is not.");
    }

    private static String or(String typed, String otherwise) {
        return typed == null || typed.isBlank() ? otherwise : typed;
    }
}
