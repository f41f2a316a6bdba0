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
import underbaton.core.loop.Loop;
import underbaton.core.loop.Loops;
import underbaton.core.perform.Clock;
import underbaton.web.performances.Recorder;

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
        boolean moves = state.playing().filter(p -> !p.paused()).isPresent();
        if (state != kept || moves) {
            kept = state;
            PlaybackState reached =
                    Engine.step(state, Event.pass(clock.nanos())).next();
            long epochMicros = clock.epochMicrosAt(reached.nowNanos());
            file.write(new DeskFile.Standing(
                    now.get().showId,
                    RunSnapshot.of(reached, epochMicros),
                    now.get().out,
                    recorder.since(now.get().showId).orElse(0)));
        }
        if (stage.onDesk().isEmpty()) {
            // It was taken from the desk while this was being written.
            file.forget();
        }
    }

    @PreDestroy
    void close() {
        loop.close();
    }
}
