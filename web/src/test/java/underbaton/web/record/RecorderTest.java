package underbaton.web.record;

import static org.assertj.core.api.Assertions.assertThat;
import static underbaton.web.UnderBaton.until;

import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loops;
import underbaton.web.UnderBaton;
import underbaton.web.record.PerformanceMapper.MomentRow;

/** A run in whose middle somebody puts the computer's time right, into the real database. */
class RecorderTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private static final long SECOND = 1_000_000;
    private static final long HOUR = 3600 * SECOND;

    private final Turned clock = new Turned();
    private final PerformanceMapper mapper = baton.bean(PerformanceMapper.class);
    private final Recorder recorder = new Recorder(mapper, clock, new Loops(Thread::new));
    private final int show = baton.show("The Ferryman’s Lantern");
    private final long began = clock.epochMicros();

    private static final class Turned implements Clock {
        volatile long micros;
        volatile long set = 4_000_000_000L * SECOND;

        @Override
        public long nanos() {
            return micros * 1000;
        }

        @Override
        public long epochMicros() {
            return set + micros;
        }
    }

    @AfterEach
    void forget() {
        recorder.close();
        mapper.forgetMoments(began);
        mapper.forget(began);
    }

    private List<MomentRow> written(int moments) {
        until("all moments are written", () -> mapper.moments(began).size() == moments);
        return mapper.moments(began);
    }

    @Test
    void whatIsSetBackInTheMiddleLengthensAndShortensNothing() {
        recorder.begin(show);
        clock.micros += 10 * SECOND;
        recorder.ordered(show, "GO");
        clock.set -= 2 * HOUR;
        clock.micros += 10 * SECOND;
        recorder.ordered(show, "GO");
        clock.set += 5 * HOUR;
        clock.micros += 10 * SECOND;
        recorder.end();
        assertThat(written(2)).extracting(m -> m.epochMicros() - began).containsExactly(10 * SECOND, 20 * SECOND);
        until("the end is written", () -> mapper.run(began).orElseThrow().endedMicros() != null);
        assertThat(mapper.run(began).orElseThrow().endedMicros() - began).isEqualTo(30 * SECOND);
    }

    @Test
    void aRunThatGoesOnAfterACrashStandsBehindWhatItHas() {
        recorder.begin(show);
        clock.micros += 10 * SECOND;
        recorder.ordered(show, "GO");
        written(1);
        clock.set -= 2 * HOUR;
        Recorder again = new Recorder(mapper, clock, new Loops(Thread::new));
        again.resume(show, began);
        clock.micros += 5 * SECOND;
        again.ordered(show, "GO");
        assertThat(written(2)).extracting(m -> m.epochMicros() - began).containsExactly(10 * SECOND, 15 * SECOND);
        again.close();
    }
}
