package underbaton.core.signal;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalInt;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import underbaton.core.midi.ChannelMessage.BankProgram;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.PitchBend;
import underbaton.core.midi.Message;
import underbaton.core.midi.OscMessage;
import underbaton.core.midi.ShowControl;
import underbaton.core.midi.SystemCommon.SongSelect;
import underbaton.core.rig.Numbering;

/** Two patterns overlap when a message is taken by both: here all messages are tried that could be. */
class OverlapTest {

    private static final int PAIRS = Integer.getInteger("baton.pairs", 3000);

    private final Random random = new Random(2030);

    /** A message with what was heard before it. */
    private record Case(Message message, Memory heard) {}

    @Test
    void itIsWhatAnyMessageShows() {
        int overlaps = 0;
        for (int i = 0; i < PAIRS; i++) {
            int kind = random.nextInt(7);
            Pattern one = pattern(kind);
            Pattern other = pattern(kind);
            boolean both = said(kind, one, other).anyMatch(s -> takes(one, s) && takes(other, s));
            assertThat(Overlap.of(one, other)).as("%s and %s", one, other).isEqualTo(both);
            assertThat(Overlap.of(other, one)).as("%s and %s", other, one).isEqualTo(both);
            overlaps += both ? 1 : 0;
        }
        assertThat(overlaps).as("of both kinds there are many").isBetween(PAIRS / 5, PAIRS * 4 / 5);
    }

    private static boolean takes(Pattern pattern, Case said) {
        return pattern.speaksOf(said.message)
                && pattern.missed(said.message, said.heard, Numbering.WIRE).isEmpty();
    }

    private int[] range(int most) {
        int from = random.nextInt(most + 1);
        return new int[] {from, Math.min(most, from + random.nextInt(1 + random.nextInt(most)))};
    }

    private Pattern pattern(int kind) {
        int[] r = range(127);
        return switch (kind) {
            case 0 -> {
                int[] v = range(126);
                yield new Pattern.Note(r[0] / 16, r[1] / 16, v[0] + 1, v[1] + 1, random.nextInt(3) > 0);
            }
            case 1 -> {
                Pattern.Way way = Pattern.Way.values()[random.nextInt(4)];
                int least = way == Pattern.Way.CHANGED ? 1 : 0;
                yield new Pattern.Controller(random.nextInt(2), way, Math.max(least, r[0]), Math.max(least, r[1]));
            }
            case 2 -> new Pattern.Program(random.nextInt(3) - 1, r[0], r[1]);
            case 3 -> {
                int[] b = range(16_383);
                yield new Pattern.Bend(b[0] - 8192, b[1] - 8192);
            }
            case 4 ->
                new Pattern.Show(
                        random.nextBoolean() ? ShowControl.Command.GO : ShowControl.Command.STOP,
                        one("", "1", "2"),
                        one("", "5", "5.0", "17"));
            case 5 -> new Pattern.Song(r[0], r[1]);
            default -> new Pattern.Osc(address(), conditions());
        };
    }

    private String one(String... of) {
        return of[random.nextInt(of.length)];
    }

    private String address() {
        StringBuilder address = new StringBuilder("/");
        for (int i = 1 + random.nextInt(4); i > 0; i--) {
            address.append(one("a", "b", "c", "a", "b", "/", "*", "?", "[ab]", "[!a]", "[a-b]", "{a,bc}", "{b,}"));
        }
        return address.toString();
    }

    private List<Condition> conditions() {
        return IntStream.range(0, random.nextInt(3))
                .mapToObj(i -> new Condition(
                        random.nextInt(2), Condition.Relation.values()[random.nextInt(4)], one("1", "2", "2.5", "on")))
                .toList();
    }

    private static Stream<Case> said(int kind, Pattern one, Pattern other) {
        return switch (kind) {
            case 0 ->
                IntStream.rangeClosed(0, 7)
                        .boxed()
                        .flatMap(n -> Stream.concat(
                                IntStream.rangeClosed(0, 127).mapToObj(v -> (Message) new NoteOn(0, n, v)),
                                Stream.of((Message) new NoteOff(0, n, 0))))
                        .map(m -> new Case(m, Memory.NONE));
            case 1 ->
                IntStream.rangeClosed(-1, 127)
                        .boxed()
                        .flatMap(before -> IntStream.rangeClosed(0, 127).boxed().flatMap(value -> Stream.of(0, 1)
                                .map(c -> new Case(
                                        new ControlChange(0, c, value),
                                        new Memory(
                                                before < 0 ? OptionalInt.empty() : OptionalInt.of(before),
                                                OptionalInt.empty())))));
            case 2 ->
                IntStream.rangeClosed(0, 127).boxed().flatMap(p -> IntStream.rangeClosed(0, 2)
                        .mapToObj(b -> new Case(new BankProgram(0, b, p), Memory.NONE)));
            case 3 -> IntStream.rangeClosed(0, 16_383).mapToObj(b -> new Case(new PitchBend(0, b), Memory.NONE));
            case 4 ->
                Stream.of(ShowControl.Command.GO, ShowControl.Command.STOP)
                        .flatMap(c -> Stream.of("", "1", "2").flatMap(list -> Stream.of("5", "5.0", "17", "3")
                                .map(cue -> new Case(
                                        new ShowControl(1, ShowControl.LIGHTING, c, cue, list, ""), Memory.NONE))));
            case 5 -> IntStream.rangeClosed(0, 127).mapToObj(n -> new Case(new SongSelect(n), Memory.NONE));
            default -> osc((Pattern.Osc) one, (Pattern.Osc) other);
        };
    }

    private static final List<String> ADDRESSES = addresses();

    /** All of up to six letters. */
    private static List<String> addresses() {
        List<String> all = new ArrayList<>(List.of("/"));
        List<String> last = List.of("/");
        for (int i = 0; i < 5; i++) {
            last = last.stream()
                    .flatMap(a -> Stream.of("a", "b", "c", "/").map(c -> a + c))
                    .toList();
            all.addAll(last);
        }
        return all;
    }

    private static Stream<Case> osc(Pattern.Osc one, Pattern.Osc other) {
        List<Object> values = List.of(0, 1, 1.5f, 2, 2.2f, 2.5f, 9f, "on", "off");
        boolean meet = ADDRESSES.stream()
                .anyMatch(a -> OscAddress.matches(one.address(), a) && OscAddress.matches(other.address(), a));
        if (!meet) {
            return Stream.empty();
        }
        String address = ADDRESSES.stream()
                .filter(a -> OscAddress.matches(one.address(), a) && OscAddress.matches(other.address(), a))
                .findFirst()
                .orElseThrow();
        return values.stream().flatMap(first -> values.stream()
                .map(second -> new Case(new OscMessage(address, List.of(first, second)), Memory.NONE)));
    }

    @Test
    void whoListensElsewhereOrInAnotherItemIsNotMeant() {
        Listener pedal = listener(Set.of(3), OptionalInt.of(0), 0);
        assertThat(Overlap.of(pedal, listener(Set.of(), OptionalInt.empty(), 0)))
                .isTrue();
        assertThat(Overlap.of(pedal, listener(Set.of(4), OptionalInt.empty(), 0)))
                .isFalse();
        assertThat(Overlap.of(pedal, listener(Set.of(3), OptionalInt.of(1), 0))).isFalse();
        assertThat(Overlap.of(listener(Set.of(), OptionalInt.empty(), 7), listener(Set.of(), OptionalInt.empty(), 8)))
                .isFalse();
        assertThat(Overlap.of(listener(Set.of(), OptionalInt.empty(), 7), pedal))
                .isTrue();
        assertThat(Overlap.of(
                        listener(Set.of(), OptionalInt.empty(), 0),
                        listener(Set.of(Source.OTHERS), OptionalInt.empty(), 0)))
                .as("those who are no machines of the rig")
                .isFalse();
    }

    private static Listener listener(Set<Integer> from, OptionalInt channel, int item) {
        return new Listener(
                0,
                "pedal",
                from,
                channel,
                Pattern.Controller.pressed(64),
                new Reaction.Give(Deed.GO),
                0,
                item,
                false,
                true);
    }
}
