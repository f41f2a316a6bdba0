package underbaton.web.desk;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import underbaton.core.cue.Cue;
import underbaton.core.cue.Doubt;
import underbaton.core.cue.Item;
import underbaton.core.cue.PlannedLength;
import underbaton.core.cue.Show;
import underbaton.core.engine.PlaybackState;
import underbaton.core.engine.RunSnapshot;
import underbaton.core.engine.music.Playing;
import underbaton.core.loop.Clock;
import underbaton.core.plan.OutTonight;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;
import underbaton.core.plan.TimedCalls;
import underbaton.core.rig.Amount;
import underbaton.core.rig.Device;
import underbaton.core.timings.Timings;

/**
 * The open page of the prompt book as the Desk shows it.
 *
 * @param now the item of the cue fired last, or of the standby before the first GO
 * @param itemPlace its place in the running order, from 1
 * @param seconds how long that item lasts, as planned or by its score; 0 when nobody knows
 * @param vamp what goes round now and what GO does about it
 * @param goWords what GO would do besides firing the standby, or that it waits for a second press
 * @param coming the standby's followers, then the cues after them
 * @param startsItem whether GO begins an item whose first cue comes by itself
 * @param timed what comes by itself while the song plays
 * @param led how the item in hand gets on with the machine by whose time it goes
 * @param held where the band has stopped, in words
 * @param crashedEpochMillis when a crash came after which nothing has been played yet; 0 for none
 * @param running what goes on by itself on the machines
 * @param outNow in words, what is out tonight
 * @param standsOut whether the standby cue itself is out tonight
 * @param pace the tempo of the day in per cent of what is written; 100 while nothing plays
 * @param listens whether the master switch of the listeners is on
 * @param aside what is known besides the state
 */
public record DeskView(
        Show show,
        Optional<Item> now,
        int itemPlace,
        int seconds,
        Optional<Row> standby,
        Optional<Row> last,
        long lastEpochMillis,
        Optional<Row> pending,
        long pendingEpochMillis,
        List<Row> coming,
        String goNumber,
        String goWords,
        String nextNumber,
        String backNumber,
        Optional<String> vamp,
        boolean stopped,
        boolean startsItem,
        List<Timed> timed,
        Optional<Led> led,
        Optional<String> held,
        long crashedEpochMillis,
        List<Running> running,
        List<String> outNow,
        boolean standsOut,
        double pace,
        boolean listens,
        Aside aside) {

    private static final int MOST_COMING = 40;
    private static final int MOST_TIMED = 6;

    /**
     * One cue on the page.
     *
     * @param heading the item that begins with this cue, where a new one does
     */
    public record Row(PlannedCue cue, String starts, List<CallWords> said, Optional<Item> heading) {}

    /**
     * A cue that comes by itself.
     *
     * @param atMillis when, since the item began
     * @param afterGo whether a vamp goes round before it until GO lets the music go on
     */
    public record Timed(Row row, long atMillis, boolean afterGo) {}

    /** {@code 98.5 %} where the music does not go as it is written; else empty. */
    public String tempo() {
        return pace == 100 ? "" : Amount.plain(pace) + " %";
    }

    /** {@code 3:42}. */
    public String length() {
        return PlannedLength.tell(seconds);
    }

    /** When the standby cue comes; empty where none stands by. */
    public String standbyComes() {
        if (standsOut) {
            return "out tonight: GO sends nothing of it";
        }
        return standby.map(row -> {
                    if (startsItem) {
                        return "GO starts the " + row.cue.item().kind().word() + "; this cue comes " + row.starts;
                    }
                    return row.cue.byHand() ? "at GO" : row.starts + "; at GO, because you jumped here";
                })
                .orElse("");
    }

    /** @param sinceEpochMillis when it was set going */
    public record Running(Device device, String what, long sinceEpochMillis) {}

    /**
     * What the page shows that the state of the show does not say.
     *
     * @param left how it stood when a crash came
     * @param waiting in words, the edits that wait to be taken over
     * @param run the performance that goes on
     * @param writesDown whether each GO's place is kept for the score
     * @param troubles in words, what could not be done and nobody has said to have seen
     * @param unaccounted by how many messages what was said to be sent and what left differ; 0 when all is well
     */
    public record Aside(
            Optional<Offer> offer,
            Optional<RunSnapshot> left,
            List<String> waiting,
            Optional<String> ends,
            Optional<Run> run,
            boolean writesDown,
            List<String> troubles,
            long unaccounted) {}

    /**
     * @param overSeconds by how much the items are over, or, below 0, under
     * @param endsEpochMillis when it will be over; 0 when nobody knows
     */
    public record Run(long sinceEpochMillis, long overSeconds, long endsEpochMillis) {

        /** @param ahead what the time of day, by which a page counts, is ahead of the run's, µs */
        static Run of(long sinceMicros, Timings timings, long ahead) {
            OptionalLong ends = timings.endsAt();
            return new Run(
                    (sinceMicros + ahead) / 1000,
                    Math.round(timings.overMicros() / 1e6),
                    ends.isEmpty() ? 0 : (ends.getAsLong() + ahead) / 1000);
        }

        /** {@code 1:20 over}. */
        public String words() {
            if (overSeconds == 0) {
                return "";
            }
            return PlannedLength.tell((int) Math.abs(overSeconds)) + (overSeconds > 0 ? " over" : " under");
        }
    }

    /**
     * After a jump, or when the book was changed under the show.
     *
     * @param to where the machines can be brought, as {@link Destinations} calls it
     * @param count how many things are not as the book says there
     */
    public record Offer(String to, int count) {}

    /**
     * What one device gets.
     *
     * @param doubt what of it cannot be meant as it is written, in words; null when all is well
     * @param guarded whether a phrase of it is guarded: this GO sends it without a second act
     */
    public record CallWords(Device device, String phrase, String doubt, boolean guarded) {}

    static DeskView of(Show show, PlaybackState state, Clock clock, Aside aside) {
        List<PlannedCue> cues = state.plan().cues();
        Optional<PlannedCue> standby = state.standbyCue();
        Optional<Item> now = state.begunItem()
                .map(PlannedItem::item)
                .or(() -> state.last().map(f -> f.cue().item()))
                .or(() -> standby.map(PlannedCue::item));
        int next = state.plan().waitingFrom(state.standby() + 1);
        int back = state.plan().waitingBefore(state.standby());
        return new DeskView(
                show,
                now,
                now.map(i -> 1 + place(show, i)).orElse(0),
                now.flatMap(i -> state.plan().item(i.id()))
                        .map(PlannedItem::seconds)
                        .orElse(0),
                standby.map(c -> row(show, state, c, Optional.empty())),
                state.last().map(f -> row(show, state, f.cue(), Optional.empty())),
                state.last().map(f -> clock.epochMicrosAt(f.atNanos()) / 1000).orElse(0L),
                state.followOn().map(p -> row(show, state, p.cue(), Optional.empty())),
                state.followOn()
                        .map(p -> clock.epochMicrosAt(p.dueNanos()) / 1000)
                        .orElse(0L),
                coming(show, state, standby),
                standby.map(c -> c.label()).orElse(""),
                goWords(state, clock),
                next < cues.size() ? cues.get(next).number().toString() : "",
                back < state.standby() ? cues.get(back).number().toString() : "",
                vamp(state),
                state.stopped(),
                standby.isPresent() && state.plan().beginsItem(state.standby()),
                timed(show, state),
                Led.of(state, clock),
                held(state, clock),
                aside.left()
                        .filter(l -> state.operator().moved())
                        .map(l -> l.epochMicros() / 1000)
                        .orElse(0L),
                running(state, clock),
                out(state),
                standby.filter(c -> !c.armed()).isPresent(),
                pace(state),
                state.hearing().on(),
                aside);
    }

    /** Of a machine that leads, no more than an eye can use. */
    private static double pace(PlaybackState state) {
        double pace = state.playing().map(p -> p.anchor().permille() / 10.0).orElse(100.0);
        return state.follow().doing().doing().isLed() ? Math.round(pace) : pace;
    }

    private static List<String> out(PlaybackState state) {
        OutTonight out = state.plan().out();
        List<String> words = new ArrayList<>();
        state.plan().devices().stream()
                .filter(d -> out.devices().contains(d.id()))
                .forEach(d -> words.add(d.name()));
        state.plan().items().stream()
                .filter(i -> out.items().contains(i.item().id()))
                .forEach(i -> words.add(i.item().name()));
        state.plan().cues().stream()
                .filter(c -> out.cues().contains(c.cueId()) && c.copy().isEmpty())
                .forEach(c -> words.add("cue " + c.number()));
        return words;
    }

    /** While a vamp goes round, GO does not fire the standby cue: it lets the music go on. */
    private static Optional<String> vamp(PlaybackState state) {
        return state.playing().filter(Playing::vamping).flatMap(p -> p.vamp()
                .map(v -> "Vamp, bars %d to %d, time %d: GO leaves it %s"
                        .formatted(
                                v.vamp().bar(),
                                v.vamp().after() - 1,
                                p.pass(),
                                v.vamp().leave().words())));
    }

    private static int place(Show show, Item item) {
        List<Integer> ids = show.items().stream().map(Item::id).toList();
        return ids.indexOf(item.id());
    }

    /** Those that come by themselves while the song plays stand above, with the time until then. */
    private static List<Row> coming(Show show, PlaybackState state, Optional<PlannedCue> before) {
        List<PlannedCue> cues = state.plan().cues();
        int playing = state.playing().map(p -> p.item().item().id()).orElse(0);
        List<Row> rows = new ArrayList<>();
        int itemId = before.map(c -> c.item().id()).orElse(0);
        for (int i = state.standby() + 1; i < cues.size() && rows.size() < MOST_COMING; i++) {
            PlannedCue cue = cues.get(i);
            if (cue.atNanos().isPresent() && cue.item().id() == playing) {
                continue;
            }
            boolean first = cue.item().id() != itemId;
            rows.add(row(show, state, cue, first ? Optional.of(cue.item()) : Optional.empty()));
            itemId = cue.item().id();
        }
        return rows;
    }

    private static List<Timed> timed(Show show, PlaybackState state) {
        return state.playing().stream()
                .flatMap(p -> p.ahead().stream()
                        .filter(TimedCalls::strikes)
                        .limit(MOST_TIMED)
                        .map(t -> new Timed(
                                row(show, state, t.cue(), Optional.empty()),
                                t.nanos() / 1_000_000,
                                p.waitsForRelease(t))))
                .toList();
    }

    /** What GO would do besides, or what it waits for. */
    private static String goWords(PlaybackState state, Clock clock) {
        if (state.asksAt(clock.nanos())) {
            return "press again";
        }
        long skipped = state.skippedByGo();
        return skipped == 0 ? "" : "leaves the song, " + (skipped == 1 ? "1 cue" : skipped + " cues") + " at once";
    }

    private static Optional<String> held(PlaybackState state, Clock clock) {
        if (!state.progress().held()) {
            return Optional.empty();
        }
        return state.playing().map(p -> p.item()
                .times()
                .map(t -> p.item().item().name() + ", bar "
                        + t.bars()
                                .position(t.tempi().tick(Math.max(0, p.position(clock.nanos()))))
                                .bar())
                .orElse(p.item().item().name()));
    }

    private static List<Running> running(PlaybackState state, Clock clock) {
        List<Running> running = new ArrayList<>();
        state.runningAt(clock.nanos()).forEach((id, slots) -> state.plan()
                .device(id)
                .ifPresent(d -> slots.forEach(s ->
                        running.add(new Running(d, s.call().phrase(), clock.epochMicrosAt(s.sinceNanos()) / 1000)))));
        return running;
    }

    private static Row row(Show show, PlaybackState state, PlannedCue cue, Optional<Item> heading) {
        Optional<Cue> written = show.cue(cue.cueId());
        List<CallWords> said = new ArrayList<>();
        for (Device device : show.devices()) {
            List<String> phrases = cue.calls().stream()
                    .filter(c -> c.deviceId() == device.id())
                    .map(PlannedCall::phrase)
                    .toList();
            if (!phrases.isEmpty()) {
                String doubt = written.flatMap(c -> Doubt.of(c, device))
                        .or(() -> state.untoldFade(cue, device).map(w -> "nobody knows where it stands: the fade " + w))
                        .orElse(null);
                boolean guarded = cue.calls().stream()
                        .filter(c -> c.deviceId() == device.id())
                        .anyMatch(state.plan()::isGuarded);
                said.add(new CallWords(device, String.join(" + ", phrases), doubt, guarded));
            }
        }
        String starts = state.plan()
                .item(cue.item().id())
                .map(i -> i.starts(cue))
                .orElse(cue.start().toString());
        return new Row(cue, starts, said, heading);
    }
}
