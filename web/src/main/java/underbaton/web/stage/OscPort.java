package underbaton.web.stage;

import java.io.IOException;
import java.net.InetAddress;
import java.util.List;
import java.util.concurrent.ThreadFactory;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import underbaton.wire.osc.OscInlet;
import underbaton.wire.osc.OscTcpInlet;

/** The port at which machines reach us by Open Sound Control, the same number for UDP and TCP. */
public final class OscPort implements AutoCloseable {

    private static final Logger LOG = LoggerFactory.getLogger(OscPort.class);
    private static final int TRIES = 20;

    private OscInlet datagrams;
    private OscTcpInlet streams;

    /** @param wanted the port; the next free one is taken where it is not to be had */
    public OscPort(InetAddress bind, int wanted, ThreadFactory threads, Arrivals arrivals) {
        OscInlet.Ear ear = (message, from) -> {
            arrivals.heard(from, message);
            return List.of();
        };
        for (int i = 0; i < TRIES && datagrams == null; i++) {
            try {
                OscInlet udp = new OscInlet(bind, wanted == 0 ? 0 : wanted + i, threads, ear);
                try {
                    streams = new OscTcpInlet(bind, udp.port(), threads, ear);
                    datagrams = udp;
                } catch (IOException taken) {
                    udp.close();
                }
            } catch (IOException taken) {
                LOG.debug("OSC port {} is taken", wanted + i);
            }
        }
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
