package underbaton.web;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.util.concurrent.ThreadFactory;
import java.util.concurrent.atomic.AtomicInteger;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import underbaton.core.perform.Clock;
import underbaton.core.traffic.Traffic;
import underbaton.standins.RehearsalRoom;
import underbaton.web.live.Live;
import underbaton.wire.Switchboard;
import underbaton.wire.SystemClock;

/** The parts that are there once: clock, threads, log, ways out, rehearsal room. */
@Configuration
class House {

    private static final Logger LOG = LoggerFactory.getLogger(House.class);
    private static final int TRAFFIC_KEPT = 5000;

    @Bean
    Clock clock() {
        return new SystemClock();
    }

    @Bean
    ThreadFactory threads() {
        AtomicInteger count = new AtomicInteger();
        return work -> {
            Thread thread = new Thread(work, "baton-" + count.incrementAndGet());
            thread.setDaemon(true);
            thread.setUncaughtExceptionHandler((which, fault) -> LOG.error("A fault on {}", which.getName(), fault));
            return thread;
        };
    }

    @Bean
    Traffic traffic() {
        return new Traffic(TRAFFIC_KEPT);
    }

    @Bean(destroyMethod = "close")
    Switchboard switchboard(Clock clock, ThreadFactory threads) {
        return new Switchboard("Under Baton", InetAddress.getLoopbackAddress(), clock, threads);
    }

    @Bean(destroyMethod = "close")
    RehearsalRoom rehearsalRoom(
            @Value("${baton.standins.port}") int firstPort, Clock clock, ThreadFactory threads, Live live) {
        RehearsalRoom room = new RehearsalRoom(
                InetAddress.getLoopbackAddress(), firstPort, clock, threads, () -> live.changed("room"));
        try {
            room.switchOn();
        } catch (IOException taken) {
            room.close();
            throw new UncheckedIOException(taken);
        }
        return room;
    }
}
