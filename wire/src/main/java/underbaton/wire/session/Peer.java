package underbaton.wire.session;

import java.net.InetSocketAddress;
import java.nio.ByteBuffer;
import java.util.List;
import underbaton.core.midi.MidiMessage;

/**
 * The other side of one session, as seen from here. Sending may be done from any thread; everything else happens on the
 * endpoint's thread.
 */
public final class Peer {

    /** How far the session has come. */
    public enum State {
        /** Waiting for the next try. */
        WAITING,
        /** Invited on the control port. */
        INVITED,
        /** Accepted there; invited on the data port. */
        HALF_OPEN,
        OPEN,
        /** Ended for good, by us. */
        CLOSED
    }

    private final SessionEndpoint endpoint;
    final boolean weInvite;
    final SessionEndpoint.Ear ear;
    final CommandReader reader = new CommandReader();
    final SequenceWindow window = new SequenceWindow();

    volatile InetSocketAddress control;
    volatile InetSocketAddress data;
    volatile String name;
    volatile String trouble = "not invited yet";
    private volatile State state = State.WAITING;
    private volatile long roundTripMicros = -1;
    private volatile long lastHeardNanos;
    int ssrc;
    int token;
    int tries;
    long nextActionNanos;
    int unanswered;
    long syncSentNanos;
    private int sequence;

    Peer(SessionEndpoint endpoint, boolean weInvite, String name, SessionEndpoint.Ear ear) {
        this.endpoint = endpoint;
        this.weInvite = weInvite;
        this.name = name;
        this.ear = ear;
    }

    public State state() {
        return state;
    }

    public boolean isOpen() {
        return state == State.OPEN;
    }

    /** The name it gave itself, or its address before it gave one. */
    public String name() {
        return name;
    }

    /** The newest measured round trip in µs; −1 before the first, and on sessions that the other side keeps. */
    public long roundTripMicros() {
        return roundTripMicros;
    }

    /** When anything came from it, by the endpoint's clock; 0 for never. */
    public long lastHeardNanos() {
        return lastHeardNanos;
    }

    /** Packets of its that were lost on the way, so far. */
    public long lost() {
        return window.lost();
    }

    /** Why the session is not open, for a technician; empty when it is. */
    public String trouble() {
        return isOpen() ? "" : trouble;
    }

    /**
     * Sends messages that belong to the same moment, as few packets as they fit in.
     *
     * @return whether the session was open and the network took them
     */
    public boolean send(List<? extends MidiMessage> messages) {
        if (!isOpen()) {
            return false;
        }
        boolean all = true;
        for (byte[] section : CommandWriter.sections(messages)) {
            all &= sendSection(section);
        }
        return all;
    }

    /** One at a time, so that sequence numbers leave in order. */
    private synchronized boolean sendSection(byte[] section) {
        ByteBuffer packet = ByteBuffer.allocate(RtpHeader.LENGTH + section.length);
        sequence = sequence + 1 & 0xFFFF;
        new RtpHeader(sequence, (int) endpoint.now(), endpoint.ssrc()).put(packet);
        packet.put(section).flip();
        return endpoint.sendData(packet, data);
    }

    /** Ends the session for good, with a goodbye. */
    public void close() {
        endpoint.leave(this);
    }

    void become(State next, String why) {
        boolean differs = next != state;
        state = next;
        trouble = why;
        if (differs) {
            ear.changed(this);
        }
    }

    void heardAt(long nanos) {
        lastHeardNanos = nanos;
    }

    void measured(long micros) {
        roundTripMicros = micros;
        ear.changed(this);
    }
}
