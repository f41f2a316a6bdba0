package underbaton.web;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.UnknownHostException;
import java.util.concurrent.ThreadFactory;
import java.util.concurrent.atomic.AtomicInteger;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loops;
import underbaton.core.perform.Scribe;
import underbaton.core.traffic.Traffic;
import underbaton.standins.Model;
import underbaton.standins.RehearsalRoom;
import underbaton.web.kernel.Settings;
import underbaton.web.live.Live;
import underbaton.web.stage.Arrivals;
import underbaton.web.stage.OscPort;
import underbaton.wire.Switchboard;
import underbaton.wire.SystemClock;
import underbaton.wire.near.Neighbourhood;

/** The parts that are there once: clock, threads, log, ways out, rehearsal room. */
@Configuration
class House {

    private static final Logger LOG = LoggerFactory.getLogger(House.class);
    private static final String OUR_NAME = "Under Baton";
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
    Loops loops(ThreadFactory threads) {
        return new Loops(threads, (loop, fault, inARow) -> {
            if (inARow == 1) {
                LOG.error("A fault in {}; it goes on", loop, fault);
            } else {
                LOG.warn("A fault in {} for the {}th time in a row: {}", loop, inARow, fault.toString());
            }
        });
    }

    @Bean
    Traffic traffic() {
        return new Traffic(TRAFFIC_KEPT);
    }

    @Bean(destroyMethod = "close")
    Scribe scribe(Traffic traffic, Loops loops) {
        return new Scribe(traffic, loops);
    }

    /** Sessions and OSC are held on all networks of this computer: the machines are there. Pages are not. */
    @Bean
    InetAddress wires(Settings settings) throws UnknownHostException {
        return InetAddress.getByName(settings.wires().address());
    }

    @Bean(destroyMethod = "close")
    Switchboard switchboard(InetAddress wires, Settings settings, Clock clock, Loops loops, Arrivals arrivals) {
        return new Switchboard(OUR_NAME, wires, settings.wires().sessionPort(), clock, loops, arrivals);
    }

    @Bean(destroyMethod = "close")
    OscPort oscPort(InetAddress wires, Settings settings, Clock clock, Loops loops, Arrivals arrivals) {
        return new OscPort(wires, settings.wires().oscPort(), clock, loops, arrivals);
    }

    @Bean(destroyMethod = "close")
    Neighbourhood neighbourhood(Loops loops, Live live, RehearsalRoom room) {
        Neighbourhood neighbourhood = new Neighbourhood(OUR_NAME, loops, () -> live.changed("found"));
        room.standIns().stream()
                .filter(s -> s.model() instanceof Model.Midi)
                .forEach(s -> neighbourhood.announceNear(
                        // Another copy of Under Baton on this computer has stand-ins of the same names.
                        s.name() + ", stand-in " + s.port(), s.port()));
        return neighbourhood;
    }

    @Bean(destroyMethod = "close")
    RehearsalRoom rehearsalRoom(Settings settings, Clock clock, Loops loops, Live live, OscPort oscPort) {
        RehearsalRoom room = new RehearsalRoom(
                InetAddress.getLoopbackAddress(),
                settings.standins().port(),
                clock,
                loops,
                oscPort::number,
                () -> live.changed("room"));
        try {
            room.switchOn();
        } catch (IOException taken) {
            room.close();
            throw new UncheckedIOException(taken);
        }
        return room;
    }
}
