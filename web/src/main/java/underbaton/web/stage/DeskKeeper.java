package underbaton.web.stage;

import jakarta.annotation.PreDestroy;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import org.springframework.stereotype.Component;
import underbaton.core.engine.Engine;
import underbaton.core.engine.Event;
import underbaton.core.engine.PlaybackState;
import underbaton.core.engine.RunSnapshot;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loop;
import underbaton.core.loop.Loops;
import underbaton.web.record.Recorder;

/** Writes down, a few times a second, how the show on the desk stands, for the case of a crash. */
@Component
class DeskKeeper {

    private static final long KEEP_NANOS = TimeUnit.MILLISECONDS.toNanos(250);

    private final Stage stage;
    private final DeskFile file;
    private final Clock clock;
    private final Recorder recorder;
    private final Loop loop;
    /** As it was written down last. */
    private PlaybackState kept;

    private long keptRun;

    DeskKeeper(Stage stage, DeskFile file, Clock clock, Loops loops, Recorder recorder) {
        this.recorder = recorder;
        this.stage = stage;
        this.file = file;
        this.clock = clock;
        loop = loops.start("desk file", this::keep);
    }

    private void keep() {
        LockSupport.parkNanos(this, KEEP_NANOS);
        Optional<OnDesk> now = stage.onDesk();
        if (now.isEmpty()) {
            return;
        }
        PlaybackState state = now.get().performer.state();
        long run = recorder.since(now.get().showId).orElse(0);
        boolean moves = state.playing().filter(p -> !p.paused()).isPresent();
        if (state != kept || moves || run != keptRun) {
            kept = state;
            keptRun = run;
            file.write(new DeskFile.Standing(now.get().showId, standing(now.get(), state), now.get().out, run));
        }
        if (stage.onDesk().isEmpty()) {
            // It was taken from the desk while this was being written.
            file.forget();
        }
    }

    /** Until somebody does something, a show that a crash has left stands as it left it: a second crash does not make the first one later. */
    private RunSnapshot standing(OnDesk desk, PlaybackState state) {
        if (desk.left.isPresent() && !desk.touched) {
            return desk.left.get();
        }
        PlaybackState reached = Engine.step(state, Event.pass(clock.nanos())).next();
        return RunSnapshot.of(reached, clock.epochMicrosAt(reached.nowNanos()));
    }

    @PreDestroy
    void close() {
        loop.close();
    }
}
