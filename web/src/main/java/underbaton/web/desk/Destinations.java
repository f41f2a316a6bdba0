package underbaton.web.desk;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;
import underbaton.core.cue.CueNumber;
import underbaton.core.engine.Correction;
import underbaton.core.engine.DryRun;
import underbaton.core.engine.Order;
import underbaton.core.engine.PlaybackState;
import underbaton.core.engine.Playing;
import underbaton.core.perform.Clock;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;
import underbaton.core.rig.Control;
import underbaton.core.rig.Refusal;
import underbaton.core.score.Score;
import underbaton.core.score.Section;
import underbaton.web.page.Typed;
import underbaton.web.stage.NotOnDesk;
import underbaton.web.stage.Stage;

/** Where the Desk can bring the machines: to the standby cue, or to a place of the song that is held. */
@Component
class Destinations {

    static final String STANDBY = "standby";
    static final String HERE = "here";
    /** Where the show stands, as the book is by now. */
    static final String PRESENT = "present";

    static final String SECTION = "section";
    /** So long before the next cue as the operator has set. */
    static final String NEXT = "next";
    /** Followed by the number of a cue. */
    static final String CUE = "cue ";
    /** Followed by the letter of a section. */
    static final String LETTER = "section ";
    /** Where the music would be had no crash come. */
    static final String NOW = "now";

    private final Stage stage;
    private final Clock clock;

    Destinations(Stage stage, Clock clock) {
        this.stage = stage;
        this.clock = clock;
    }

    PlaybackState now(int showId) {
        return stage.playback(showId).orElseThrow(NotOnDesk::new);
    }

    /** @param to {@link #STANDBY}, {@link #PRESENT}, {@link #HERE}, {@link #SECTION}, {@link #NOW}, {@link #NEXT}, {@link #CUE},
     *     {@link #LETTER}, or the number of a bar */
    Destination of(int showId, String to) {
        PlaybackState state = now(showId);
        DryRun run = stage.dryRun(showId);
        return switch (to) {
            case STANDBY -> standby(state, run);
            case PRESENT -> present(state, run);
            case NEXT -> next(state, run);
            default -> to.startsWith(CUE) ? fromCue(state, run, to) : place(showId, state, run, to);
        };
    }

    private static Destination standby(PlaybackState state, DryRun run) {
        Optional<PlannedCue> cue = state.standbyCue();
        int index = cue.map(c -> run.plan().indexOf(c))
                .filter(i -> i >= 0)
                .orElse(run.plan().cues().size());
        List<Order> before =
                cue.<Order>map(c -> new Order.Leave(c.cueId())).stream().toList();
        String words = cue.map(c -> "just before cue " + c.label()).orElse("at the end of the book");
        return new Destination(words, run.before(index), Set.of(), before, List.of());
    }

    /** Nothing moves on the way there: what plays goes on. */
    private Destination present(PlaybackState state, DryRun run) {
        Optional<Playing> playing = state.playing();
        PlaybackState book = playing.isPresent()
                ? run.before(
                        playing.get().item().item().id(),
                        Math.max(0, playing.get().position(clock.nanos())))
                : run.before(
                        state.last().map(l -> run.plan().indexOf(l.cue()) + 1).orElse(state.standby()));
        return new Destination("as the book has it now", book, Set.of(), List.of(), List.of());
    }

    /** The machines as they are just before the cue, and then the cue, and what the music brings behind it. */
    private Destination fromCue(PlaybackState state, DryRun run, String to) {
        CueNumber number = CueNumber.of(to.substring(CUE.length()));
        PlannedCue cue = state.plan().cues().stream()
                .filter(c -> c.number().equals(number) && c.copy().isEmpty())
                .findFirst()
                .orElseThrow(() -> new Refusal("number", "There is no cue " + number + " in this show."));
        if (cue.atNanos().isPresent()) {
            return playing(run, cue.item().id(), cue.atNanos().getAsLong(), "at cue " + cue.label());
        }
        return new Destination(
                "at cue " + cue.label(),
                run.before(run.plan().indexOf(cue)),
                Set.of(),
                List.of(new Order.Leave(cue.cueId())),
                List.of(new Order.StandBy(cue.cueId()), new Order.Go()));
    }

    /** The item plays from there on. */
    private Destination playing(DryRun run, int itemId, long nanos, String words) {
        PlannedItem item = run.plan().item(itemId).orElseThrow();
        return new Destination(
                words,
                run.before(itemId, nanos),
                coming(item, nanos),
                List.of(new Order.Leave(
                        item.cues().isEmpty() ? 0 : item.cues().get(0).cueId())),
                List.of(new Order.Play(itemId, nanos)));
    }

    /** Cue to cue: on to shortly before the next cue that does not come with the one before it. */
    private Destination next(PlaybackState state, DryRun run) {
        Plan plan = state.plan();
        long lead = stage.cueToCueNanos();
        int index = reached(state, lead) + 1;
        while (index < plan.cues().size()
                && (plan.cues().get(index).follows() || !plan.cues().get(index).armed())) {
            index++;
        }
        if (index >= plan.cues().size()) {
            throw new Refusal("next", "There is no cue behind this one.");
        }
        PlannedCue cue = plan.cues().get(index);
        if (cue.atNanos().isPresent()) {
            long from = Math.max(0, cue.atNanos().getAsLong() - lead);
            return playing(run, cue.item().id(), from, "on the way to cue " + cue.label());
        }
        return new Destination(
                "just before cue " + cue.label(),
                run.before(index),
                Set.of(),
                List.of(new Order.Leave(cue.cueId())),
                List.of());
    }

    /** The place of the cue that the show has come to; one that is about to come counts. */
    private int reached(PlaybackState state, long lead) {
        Plan plan = state.plan();
        int last = state.last().map(l -> plan.indexOf(l.cue())).orElse(-1);
        if (state.playing().isEmpty()) {
            return state.hand().moved() ? state.standby() : last;
        }
        Playing playing = state.playing().get();
        long soon = playing.position(clock.nanos()) + lead;
        int first = plan.firstOf(playing.item().item().id());
        int reached = Math.max(last, first - 1);
        for (int i = 0; i < playing.item().cues().size(); i++) {
            if (playing.item().cues().get(i).atNanos().orElse(Long.MAX_VALUE) <= soon) {
                reached = Math.max(reached, first + i);
            }
        }
        return reached;
    }

    /** Where nothing plays, the item that stands by is played from there. */
    private Destination fromPlace(PlaybackState state, DryRun run, String to) {
        PlannedItem item = state.standbyCue()
                .flatMap(c -> run.plan().item(c.item().id()))
                .filter(i -> i.times().isPresent())
                .orElseThrow(() -> new Refusal("bar", "What stands by has no bars; jump to a cue of a song first."));
        long nanos = nanos(item.times().get(), 0, to);
        return playing(
                run,
                item.item().id(),
                nanos,
                item.item().name() + " " + words(item.times().get(), nanos));
    }

    private static String words(Score.Times times, long nanos) {
        return "at bar " + times.bars().position(times.tempi().tick(nanos)).bar();
    }

    private Destination place(int showId, PlaybackState state, DryRun run, String to) {
        if (state.playing().isEmpty()) {
            return fromPlace(state, run, to);
        }
        Playing playing = state.playing().get();
        long here = playing.position(clock.nanos());
        Optional<Score.Times> times = playing.item().times();
        long nanos = to.equals(NOW)
                ? here + missed(showId)
                : to.equals(HERE) || times.isEmpty() ? here : nanos(times.get(), here, to);
        String words = times.map(t -> words(t, nanos)).orElse("where it stopped");
        List<Order> after = new ArrayList<>();
        if (nanos != here) {
            after.add(new Order.Locate(nanos));
        }
        after.add(new Order.Resume());
        PlaybackState book = run.before(playing.item().item().id(), nanos);
        return new Destination(words, book, coming(playing.item(), nanos), List.of(), after);
    }

    /** A look that the next instant takes away again would only be a flash. */
    private static Set<Correction.Key> coming(PlannedItem item, long nanos) {
        Set<Correction.Key> coming = new HashSet<>();
        item.timed().stream()
                .filter(t -> t.momentNanos() == nanos)
                .flatMap(t -> t.calls().stream())
                .forEach(call -> {
                    String slot = call.effect().of().toLowerCase(Locale.ROOT);
                    coming.add(new Correction.Key(call.deviceId(), Correction.Kind.SLOT, slot));
                    coming.add(new Correction.Key(call.deviceId(), Correction.Kind.RUNS, slot));
                    call.levels().keySet().forEach(c -> coming.add(level(c)));
                });
        return coming;
    }

    private static Correction.Key level(Control control) {
        return new Correction.Key(control.deviceId(), Correction.Kind.LEVEL, control.address());
    }

    /** How long ago a crash came, ns; 0 when none did. */
    private long missed(int showId) {
        return stage.left(showId)
                .map(k -> Math.max(0, clock.epochMicros() - k.epochMicros()) * 1000)
                .orElse(0L);
    }

    private static long nanos(Score.Times times, long here, String to) {
        if (to.startsWith(LETTER)) {
            String letter = to.substring(LETTER.length()).strip();
            return times.score().sections().stream()
                    .filter(s -> s.letter().equalsIgnoreCase(letter))
                    .map(s -> times.nanosOfBar(s.bar()))
                    .findFirst()
                    .orElseThrow(() -> new Refusal("bar", "This song has no section " + letter + "."));
        }
        if (!to.equals(SECTION)) {
            int bar = Typed.number("bar", to);
            if (bar < 1 || bar > times.score().endBar()) {
                throw new Refusal(
                        "bar", "This song has bars 1 to " + times.score().endBar() + ".");
            }
            return times.nanosOfBar(bar);
        }
        return times.score().sections().stream()
                .map(Section::bar)
                .map(times::nanosOfBar)
                .filter(n -> n <= here)
                .reduce((one, later) -> later)
                .orElse(0L);
    }
}
