package underbaton.core.engine.follow;

import java.util.Optional;
import java.util.OptionalLong;
import org.pcollections.PMap;
import underbaton.core.engine.follow.FollowState.Since;
import underbaton.core.engine.follow.FollowState.Taken;
import underbaton.core.engine.music.Holds;
import underbaton.core.engine.music.Jumps;
import underbaton.core.engine.music.Music;
import underbaton.core.engine.music.Playing;
import underbaton.core.engine.out.Happening;
import underbaton.core.engine.out.StepContext;
import underbaton.core.follow.Doing;
import underbaton.core.follow.Following;
import underbaton.core.follow.Following.Kind;
import underbaton.core.follow.TimeFilter;
import underbaton.core.follow.TimeFilter.Sender;
import underbaton.core.follow.TimeHeard;
import underbaton.core.midi.MidiMessage;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedItem;
import underbaton.core.score.Anchor;
import underbaton.core.signal.Signal;
import underbaton.core.signal.Source;

/**
 * Takes the time of a machine for the item that goes by it, while a step is taken: the music is put where the machine is, and goes as
 * fast. It looks at each stamp that is heard, and at the moments at which one should have been.
 *
 * <p>An item that stands by at its beginning begins by itself when the machine comes to it. A place that is far from where the music is,
 * is wanted of whoever has the book worked out ({@link Happening.PlaceWanted}), who brings all machines there. A machine that has
 * stopped holds the show; one of which nothing is heard leaves it alone for a while first. Whoever moves the music otherwise
 * has taken the item over, until it is given back. Not thread-safe, used once.
 */
public final class TimeTaking {

    /** What is nearer stays as it is, so that the music is not moved at every stamp. */
    private static final long NEAR_NANOS = 2_000_000;

    /** What is farther is another place of the book, and not a sender who hurries. */
    private static final long FAR_NANOS = 400_000_000;

    /** Nearer to its beginning than this an item begins as if from there. */
    private static final long OPENING_NANOS = 2_000_000_000;

    /** Behind the moment at which something should have been heard. */
    private static final long SILENT_NANOS = 150_000_000;

    /** Who was asked to bring the show elsewhere has so long. */
    private static final long ASKED_NANOS = 1_000_000_000;

    /** Two bars of a slow song. */
    private static final long NO_TAPS_NANOS = 8_000_000_000L;

    private static final int MUCH_FASTER = 10;
    private static final long MILLI = 1_000_000;

    private final StepContext step;
    private final Music music;
    private final Holds holds;
    private final Jumps jumps;
    private final Runnable release;
    private PMap<Integer, TimeHeard> heard;
    private Optional<Taken> taken;
    private Optional<Taps> taps;
    private int byHand;
    private Since doing;
    private OptionalLong asked;
    private PMap<Integer, Integer> spent;

    /** Made anew for each step, of the parts that it asks. @param release lets the vamp that goes round be left */
    public TimeTaking(StepContext step, Music music, Holds holds, Jumps jumps, Runnable release, FollowState before) {
        this.step = step;
        this.music = music;
        this.holds = holds;
        this.jumps = jumps;
        this.release = release;
        heard = before.heard();
        taken = before.taken();
        taps = before.taps();
        byHand = before.byHand();
        doing = before.doing();
        asked = before.askedNanos();
        spent = before.spent();
    }

    /** The part's own record as it stands now: what the next step begins with. */
    public FollowState state() {
        return new FollowState(heard, taken, taps, byHand, doing, asked, spent);
    }

    // ---- what is heard, ordered, and what time brings

    /** Something has come in; what does not concern the time of a machine that leads is passed over. */
    public void hear(Source source, Signal signal) {
        int id = source.deviceId();
        Plan plan = step.plan();
        if (id == Source.OTHERS
                || !plan.leaders().contains(id)
                || plan.out().devices().contains(id)
                || !(signal.message() instanceof MidiMessage message)
                || !TimeHeard.is(message)) {
            return;
        }
        long at = Math.min(step.now(), Math.max(step.now() - SILENT_NANOS, signal.arrivalNanos()));
        TimeHeard before = heard.getOrDefault(id, TimeHeard.NOTHING);
        TimeHeard now = before.heard(message, at);
        heard = heard.plus(id, now);
        Optional<Leader> leads = leading().filter(l -> l.how().deviceId() == id);
        leads.ifPresent(l -> take(l, before));
        if (leads.filter(this::isInside).isEmpty()) {
            standingBy(id).ifPresentOrElse(item -> mayBegin(item, before), () -> spend(id, now));
        }
        look();
    }

    /** The machine leads again what was taken over by hand, or begins the item that stands by, wherever in it it is; what it leads is taken over. */
    public void followOrNot() {
        if (leading().isPresent() && !isByHand() && doing.doing().isLed()) {
            takeOver();
            look();
            return;
        }
        byHand = 0;
        asked = OptionalLong.empty();
        if (leading().isEmpty()) {
            inHand().map(this::leader).filter(this::isInside).ifPresent(this::begin);
        }
        look();
    }

    /** Somebody may have moved the music, not we. @param before what played before */
    public void mayBeMoved(Optional<Playing> before) {
        Optional<Playing> now = music.playing();
        boolean moved = now.isPresent()
                && (before.isEmpty()
                        || before.get().item().item().id()
                                != now.get().item().item().id()
                        || !before.get().anchor().equals(now.get().anchor())
                        || before.get().paused() != now.get().paused());
        if (moved) {
            takeOver();
        }
        look();
    }

    /** What plays goes on by itself, at the pace it has; a hand that taps takes it up from there. */
    public void takeOver() {
        if (isTapped()) {
            taps = Optional.empty();
        } else if (leading().isPresent()) {
            byHand = music.playingItemId();
            asked = OptionalLong.empty();
        }
    }

    // ---- taps

    private boolean isTapped() {
        return leading().filter(l -> l.how().kind() == Kind.TAPS).isPresent();
    }

    /** Somebody taps a beat. @return whether the music goes by that */
    public boolean tap() {
        if (!isTapped() || step.isDryRun()) {
            return false;
        }
        Playing p = music.playing().orElseThrow();
        int itemId = p.item().item().id();
        taps.filter(t -> t.itemId() == itemId)
                .orElseGet(() -> Taps.none(p, step.now()))
                .heard(p, step.now(), leading().orElseThrow().how())
                .ifPresent(heardNow -> {
                    taps = Optional.of(heardNow);
                    TimeFilter best = heardNow.best();
                    music.led(best.placeAt(step.now()), (int) Math.round(best.pace() * Anchor.AS_WRITTEN));
                    is(Doing.FOLLOWS);
                });
        return true;
    }

    /** Who does not tap lets the last tempo go on. */
    private void lookAtTaps() {
        Optional<Taps> now = tapped();
        boolean fresh =
                now.filter(t -> step.now() - t.best().atNanos() < NO_TAPS_NANOS).isPresent();
        is(now.isEmpty() ? Doing.WAITS : fresh ? Doing.FOLLOWS : Doing.ALONE);
    }

    private Optional<Taps> tapped() {
        return taps.filter(t -> t.itemId() == music.playingItemId());
    }

    /** When it is to be looked whether something was heard; far away for never. */
    public long nextNanos() {
        if (step.isDryRun() || step.plan().leaders().isEmpty()) {
            return StepContext.NEVER;
        }
        Optional<Leader> leads = leading();
        if (leads.isEmpty() || isByHand()) {
            return StepContext.NEVER;
        }
        if (isTapped()) {
            return tapped().isPresent() && doing.doing() == Doing.FOLLOWS
                    ? Math.max(step.now(), tapped().get().best().atNanos() + NO_TAPS_NANOS)
                    : StepContext.NEVER;
        }
        long next =
                switch (doing.doing()) {
                    case JUMPS -> asked.orElse(step.now()) + ASKED_NANOS;
                    case FOLLOWS -> expected(leads.get()) + SILENT_NANOS + 1;
                    case ALONE ->
                        expected(leads.get()) + SILENT_NANOS + leads.get().how().aloneMillis() * MILLI + 1;
                    case STANDS -> music.progress().held() ? StepContext.NEVER : doing.nanos() + SILENT_NANOS;
                    default -> StepContext.NEVER;
                };
        return Math.max(next, step.now());
    }

    // ---- who leads

    private Optional<PlannedItem> playing() {
        return music.playing().map(Playing::item);
    }

    private Optional<Leader> leading() {
        return playing().filter(i -> i.item().follows().isPresent()).map(this::leader);
    }

    /** The item that stands by at its beginning, and follows. */
    private Optional<PlannedItem> inHand() {
        int standby = music.standby();
        return standby < step.plan().cues().size() && step.plan().isFirst(standby)
                ? step.plan()
                        .item(music.standbyItemId())
                        .filter(i -> i.item().follows().isPresent())
                : Optional.empty();
    }

    private Optional<PlannedItem> standingBy(int deviceId) {
        return inHand().filter(i -> i.item().follows().orElseThrow().deviceId() == deviceId);
    }

    private Leader leader(PlannedItem item) {
        Following how = item.item().follows().orElseThrow();
        return leader(item, heard.getOrDefault(how.deviceId(), TimeHeard.NOTHING));
    }

    private Leader leader(PlannedItem item, TimeHeard says) {
        return new Leader(step.plan(), item, item.item().follows().orElseThrow(), says);
    }

    private boolean isByHand() {
        return byHand != 0 && byHand == music.playingItemId();
    }

    // ---- beginning

    private boolean isInside(Leader leader) {
        OptionalLong place = leader.place();
        return leader.runs() && place.isPresent() && leader.isWithin(place.getAsLong());
    }

    /** It begins when the machine begins to run inside of it, or comes to its beginning; who only passes by with the standby begins nothing. */
    private void mayBegin(PlannedItem item, TimeHeard before) {
        Leader now = leader(item);
        OptionalLong place = now.place();
        if (!now.runs() || place.isEmpty()) {
            return;
        }
        boolean comes = leader(item, before).place().orElse(0) < 0;
        boolean fresh = now.run() > spent.getOrDefault(now.how().deviceId(), 0);
        if (!isInside(now)) {
            fresh = false;
        } else if (fresh || comes) {
            begin(now);
        }
        if (place.getAsLong() >= 0) {
            spent = spent.plus(now.how().deviceId(), now.run());
        }
    }

    private void spend(int deviceId, TimeHeard says) {
        int run = Math.max(says.clock().run(), says.code().run());
        spent = spent.plus(deviceId, Math.max(run, spent.getOrDefault(deviceId, 0)));
    }

    private void begin(Leader leader) {
        long place = leader.place().orElseThrow();
        byHand = 0;
        taken = Optional.of(Taken.first(
                leader.item().item().id(), leader.run(), TimeFilter.from(leader.atNanos(), place, 1, Sender.MACHINE)));
        if (place < OPENING_NANOS) {
            jumps.play(leader.item(), 0, 0);
            music.led(taken.get().filter().placeAt(step.now()), Anchor.AS_WRITTEN);
        } else {
            want(leader, taken.get().filter().placeAt(step.now()));
        }
    }

    // ---- following

    /** The stamp that was heard is taken in. @param before what had been heard before it */
    private void take(Leader leader, TimeHeard before) {
        OptionalLong place = leader.place();
        boolean stamped = leader.runs() && place.isPresent() && !leader.heard().equals(before);
        if (!stamped) {
            return;
        }
        int itemId = leader.item().item().id();
        double pace = music.playing()
                .map(p -> p.anchor().permille() / (double) Anchor.AS_WRITTEN)
                .orElse(1.0);
        taken = Optional.of(taken.filter(t -> t.itemId() == itemId && t.run() == leader.run())
                .map(t -> t.heard(leader.atNanos(), place.getAsLong()))
                .orElseGet(() -> Taken.first(
                        itemId,
                        leader.run(),
                        TimeFilter.from(leader.atNanos(), place.getAsLong(), pace, Sender.MACHINE))));
        if (leader.isWithin(place.getAsLong())) {
            spent = spent.plus(leader.how().deviceId(), leader.run());
        }
    }

    /** The moment at which something is to be heard, or was. */
    private long expected(Leader leader) {
        long due = music.playing().orElseThrow().dueAt(leader.nextPlace());
        return leader.nextPlace() == 0 ? leader.atNanos() : Math.max(leader.atNanos(), due);
    }

    /** Puts the music where the machine is, if it is not there. */
    public void look() {
        if (step.isDryRun() || step.plan().leaders().isEmpty() && doing.doing() == Doing.NOTHING) {
            return;
        }
        Optional<Leader> leads = leading();
        if (asked.isPresent() && step.now() - asked.getAsLong() < ASKED_NANOS) {
            is(Doing.JUMPS);
        } else if (leads.isEmpty()) {
            asked = OptionalLong.empty();
            is(inHand().isPresent() ? Doing.WAITS : Doing.NOTHING);
        } else if (isByHand()) {
            is(Doing.BY_HAND);
        } else {
            asked = OptionalLong.empty();
            if (isTapped()) {
                lookAtTaps();
            } else {
                lookAt(leads.get());
            }
        }
    }

    private void lookAt(Leader leader) {
        Optional<TimeFilter> filter = taken.filter(
                        t -> t.itemId() == leader.item().item().id() && t.run() == leader.run())
                .map(Taken::filter);
        if (leader.isOfAnotherRate()) {
            is(Doing.OTHER_RATE);
        } else if (filter.isEmpty()) {
            is(doing.doing().isLed() && !leader.runs() ? stand(Doing.STANDS) : Doing.WAITS);
        } else if (!leader.runs()) {
            is(stand(Doing.STANDS));
        } else {
            long silent = step.now() - expected(leader) - SILENT_NANOS;
            if (silent > leader.how().aloneMillis() * MILLI) {
                is(stand(Doing.SILENT));
            } else if (silent > 0) {
                is(Doing.ALONE);
            } else {
                lead(leader, filter.get());
            }
        }
    }

    /** The music stands at once; the show is held when it does so for a moment, for a machine that jumps stops too. */
    private Doing stand(Doing why) {
        music.pause();
        boolean standsFor = doing.doing() == why && step.now() - doing.nanos() >= SILENT_NANOS;
        if (why == Doing.SILENT || standsFor) {
            holds.hold();
        }
        return why;
    }

    private void lead(Leader leader, TimeFilter filter) {
        long there = filter.placeAt(step.now());
        Playing p = music.playing().orElseThrow();
        long off = Math.abs(there - p.position(step.now()));
        if (!leader.isWithin(there)) {
            is(Doing.ELSEWHERE);
        } else if (off > FAR_NANOS) {
            want(leader, there);
        } else {
            if (p.paused()) {
                holds.goOn();
            }
            if (p.vamping() && !p.released()) {
                release.run();
            }
            int permille = (int) Math.round(filter.pace() * Anchor.AS_WRITTEN);
            boolean faster = Math.abs(permille - p.anchor().permille()) >= MUCH_FASTER;
            if (p.paused() || off > NEAR_NANOS || faster) {
                music.led(there, permille);
            }
            is(Doing.FOLLOWS);
        }
    }

    private void want(Leader leader, long place) {
        asked = OptionalLong.of(step.now());
        step.happens(new Happening.PlaceWanted(leader.item().item().id(), place, step.now()));
        is(Doing.JUMPS);
    }

    /** The show has been brought there. */
    public void arrived() {
        asked = OptionalLong.empty();
        look();
    }

    private void is(Doing now) {
        if (doing.doing() != now) {
            doing = new Since(now, step.now());
            Optional<PlannedItem> item = leading().map(Leader::item).or(this::inHand);
            step.happens(new Happening.Follows(
                    item.map(i -> i.item().id()).orElse(0),
                    item.map(i -> i.item().follows().orElseThrow().deviceId()).orElse(0),
                    now,
                    step.now()));
        }
    }
}
