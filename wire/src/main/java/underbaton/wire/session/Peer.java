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

    private static final long GUARD_NANOS = 100_000_000L;
    private static final int MOST_GUARDS = 8;

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
    /** The newest questions, the last in the lowest bit: 1 for no answer. */
    private volatile int silences;

    private volatile int asked;
    int ssrc;
    int token;
    int tries;
    long nextActionNanos;
    int unanswered;
    long syncSentNanos;
    /** What the newest question said of the time, which its answer repeats. */
    long syncStamp;

    private final SentHistory history = new SentHistory();
    private final Recovery recovery = new Recovery();
    /** Packets up to this one have been mended; what comes late of them must not happen again. */
    private long mendedUpTo = Long.MIN_VALUE;

    private long packet;
    private long guardAtNanos;
    private int guards;
    boolean owesFeedback;

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

    /** Whether we keep the session; if not, it invited us. */
    public boolean weInvited() {
        return weInvite;
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

    /**
     * How much of our last questions (32 of them at most) got no answer, or how much of what it sent did not come, the
     * worse of the two, in per cent; −1 before the first question.
     */
    public int lossPerCent() {
        int count = asked;
        int unansweredOnes = Integer.bitCount(silences);
        return count == 0 ? -1 : Math.max(100 * unansweredOnes / count, window.lossPerCent());
    }

    /** Whether the peer's feedback covers every program, controller and note sent to it. */
    public boolean hasAcknowledgedAll() {
        return history.isEmpty();
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
        for (CommandWriter.Section section : CommandWriter.sections(messages)) {
            all &= sendSection(section);
        }
        guards = 0;
        guardAtNanos = endpoint.nanos() + GUARD_NANOS;
        return all;
    }

    /** One at a time, so that sequence numbers leave in order, each with the journal of those before it. */
    private synchronized boolean sendSection(CommandWriter.Section section) {
        packet++;
        byte[] journal = history.journal(packet);
        section.commands().forEach(c -> history.sent(c, packet));
        return sendPacket(section.bytes(), journal);
    }

    private boolean sendPacket(byte[] section, byte[] journal) {
        ByteBuffer out = ByteBuffer.allocate(RtpHeader.LENGTH + section.length + journal.length);
        boolean commands = section.length > 1;
        new RtpHeader((int) (packet & 0xFFFF), (int) endpoint.now(), endpoint.ssrc()).put(out, commands);
        int first = section[0] | (journal.length > 0 ? CommandWriter.JOURNAL_FOLLOWS : 0);
        out.put((byte) first).put(section, 1, section.length - 1).put(journal).flip();
        return endpoint.sendData(out, data);
    }

    /**
     * Says the journal again in a packet without commands, when nothing has been sent for a while and the peer has not
     * acknowledged: the last packet of all could be the lost one (RFC 6295 §4, guard packets).
     */
    synchronized void guard(long now) {
        if (!isOpen() || guards >= MOST_GUARDS || guardAtNanos - now > 0 || history.isEmpty()) {
            return;
        }
        guards++;
        guardAtNanos = now + GUARD_NANOS * guards;
        packet++;
        sendPacket(new byte[] {0}, history.journal(packet));
    }

    /** @param sequence the highest that the peer has, 0–65,535 */
    synchronized void acknowledged(int sequence) {
        history.acknowledged(packet - ((int) packet - sequence & 0xFFFF));
    }

    // ---- hearing, on the endpoint's thread

    /** Takes a packet, after what the journal says was lost before it; nothing is taken twice. */
    void hear(RtpHeader header, ByteBuffer payload, long now) {
        heardAt(now);
        SequenceWindow.Place place = window.take(header.sequence());
        if (place == SequenceWindow.Place.SEEN) {
            return;
        }
        owesFeedback = true;
        long number = window.number(header.sequence());
        if (place == SequenceWindow.Place.AFTER_A_GAP && CommandReader.hasJournal(payload)) {
            mendedUpTo = number;
            recovery.mend(CommandReader.journal(payload), number).forEach(m -> tell(m, now));
        }
        CommandReader.Result result = reader.read(payload);
        boolean mended = place == SequenceWindow.Place.LATE && number < mendedUpTo;
        for (MidiMessage message : result.messages()) {
            if (!mended || !Recovery.mends(message)) {
                recovery.heard(message, number);
                tell(message, now);
            }
        }
        result.trouble().ifPresent(t -> ear.trouble(this, t));
    }

    /** A fault of one listener must not end the sessions of the others. */
    private void tell(MidiMessage message, long now) {
        try {
            ear.heard(this, message, now);
        } catch (RuntimeException fault) {
            ear.trouble(this, "our own listener failed: " + fault);
        }
    }

    /** Both sides begin anew; neither remembers what was said before. */
    synchronized void begin() {
        window.restart();
        recovery.restart();
        history.restart(packet);
        mendedUpTo = Long.MIN_VALUE;
        owesFeedback = false;
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

    /** A question was answered, or was not before the next one was due. */
    void answered(boolean was) {
        silences = silences << 1 | (was ? 0 : 1);
        asked = Math.min(Integer.SIZE, asked + 1);
    }

    /** An answer to an earlier question: it was slow, not lost. */
    void answeredLate() {
        silences &= silences - 1;
    }

    void heardAt(long nanos) {
        lastHeardNanos = nanos;
    }

    void measured(long micros) {
        roundTripMicros = micros;
        ear.changed(this);
    }
}
