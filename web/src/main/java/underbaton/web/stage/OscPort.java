package underbaton.web.stage;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.util.List;
import java.util.Set;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loops;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.OscMessage;
import underbaton.core.signal.Signal;
import underbaton.wire.Door;
import underbaton.wire.osc.Caller;
import underbaton.wire.osc.OscDoor;
import underbaton.wire.osc.OscInlet;
import underbaton.wire.osc.OscTcpInlet;

/** The port at which machines reach us by Open Sound Control, the same number for UDP and TCP. */
public final class OscPort implements AutoCloseable {

    private static final Logger LOG = LoggerFactory.getLogger(OscPort.class);
    private static final int TRIES = 20;

    private final OscDoor door;
    private OscInlet datagrams;
    private OscTcpInlet streams;
    private volatile Language language = (message, from) -> List.of();
    private volatile Rights rights = Rights.FIRST;
    private volatile Set<InetAddress> machines = Set.of();

    /** What is said to us in our own words, and answered. */
    @FunctionalInterface
    interface Language {
        List<OscMessage> hear(OscMessage message, Caller from);
    }

    /** @param wanted the port; the next free one is taken where it is not to be had */
    public OscPort(InetAddress bind, int wanted, Clock clock, Loops loops, Arrivals arrivals) {
        door = new OscDoor(clock);
        OscInlet.Ear ear = new OscInlet.Ear() {
            @Override
            public List<OscMessage> heard(Signal signal, Caller from) {
                arrivals.heard(from.address(), signal);
                return signal.message() instanceof OscMessage osc ? language.hear(osc, from) : List.of();
            }

            @Override
            public void unread(Bytes bytes, InetSocketAddress from) {
                arrivals.unread(from, bytes);
            }
        };
        for (int i = 0; i < TRIES && datagrams == null; i++) {
            try {
                OscInlet udp = new OscInlet(bind, wanted == 0 ? 0 : wanted + i, clock, loops, door, ear);
                try {
                    streams = new OscTcpInlet(bind, udp.port(), clock, loops, door, ear);
                    datagrams = udp;
                } catch (IOException taken) {
                    udp.close();
                }
            } catch (IOException taken) {
                LOG.debug("OSC port {} is taken", wanted + i);
            }
        }
    }

    /** Says who may speak to it, besides the machines of the rig. */
    public void admit(Door wanted) {
        door.admit(wanted);
    }

    /** Says what those may who speak to it. */
    public void grant(Rights wanted) {
        rights = wanted;
    }

    /** @throws underbaton.core.rig.Refusal when a caller may not do that */
    void require(Rights.May wanted, Caller from) {
        InetAddress address = from.address().getAddress();
        rights.require(wanted, address, machines.contains(address));
    }

    /** From now on messages are heard by this as well, and answered. */
    void speak(Language newLanguage) {
        language = newLanguage;
    }

    /** The addresses of the machines of the open show. */
    void belongTo(Set<InetAddress> nowThere) {
        machines = nowThere;
        door.belongTo(nowThere);
    }

    /** 0 when no port was to be had. */
    public int number() {
        return datagrams == null ? 0 : datagrams.port();
    }

    @Override
    public void close() throws IOException {
        if (datagrams != null) {
            datagrams.close();
            streams.close();
        }
    }
}
