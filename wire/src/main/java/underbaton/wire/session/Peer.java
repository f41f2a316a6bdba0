package underbaton.wire.session;

import java.net.InetSocketAddress;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ThreadLocalRandom;
import java.util.concurrent.atomic.AtomicBoolean;
import underbaton.core.midi.MidiMessage;
import underbaton.wire.Arrival;
import underbaton.wire.Whereabouts;

/**
 * The other side of one session, as seen from here: it is known by its identifier (SSRC), its two addresses and the token
 * that began the session, all of them together. Sending may be done from any thread; everything else happens on the
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

    private static final long MILLI = 1_000_000L;
    private static final int MOST_GUARDS = 80;

    private static final long PROMPT = 50 * MILLI;
    private static final long PATIENCE = 1500 * MILLI;
    private static final long PATIENCE_AT_FIRST = 100 * MILLI;
    /** A machine that has not said a word of what came after so many guards does not give feedback. */
    private static final int GUARDS_WITHOUT_FEEDBACK = 8;
    /**
     * So many packets without a prompt word tell that none will come. Of a line that loses half of all that goes either way, sixteen in a
     * row bring none in one session of a hundred, and these in one of a million.
     */
    private static final int PACKETS_UNKNOWN = 48;
    /** Of so many packets it is remembered when they were sent; a power of two. */
    private static final int REMEMBERED = 64;

    /** Packet, journal and all headers stay inside an Ethernet frame. */
    private static final int LARGEST_PACKET = 1400;

    private final SessionEndpoint endpoint;
    final boolean weInvite;
    final SessionEndpoint.Ear ear;
    /** Our own identifier in this session alone: what a stranger is told of us is no key to another session. */
    final int ourSsrc = ThreadLocalRandom.current().nextInt();

    final CommandReader reader = new CommandReader();
    final SequenceWindow window = new SequenceWindow();
    private final LossOfTheMinute packets = new LossOfTheMinute();
    private final LossOfTheMinute questions = new LossOfTheMinute();

    /** Where it is invited; null for one that invites us. */
    final Whereabouts where;

    final AtomicBoolean lookedUp = new AtomicBoolean();
    volatile InetSocketAddress control;
    volatile InetSocketAddress data;
    volatile String name;
    volatile String trouble = "not invited yet";
    private volatile State state = State.WAITING;
    private volatile long roundTripMicros = -1;
    private volatile long lastHeardNanos;
    int ssrc;
    int token = ThreadLocalRandom.current().nextInt();
    int tries;
    long nextActionNanos;
    int unanswered;
    /** Whether it has answered any question of the time in this session; some machines never do. */
    volatile boolean answersClock;

    volatile boolean clockless;
    long syncSentNanos;
    /** What the newest question said of the time, which its answer repeats. */
    long syncStamp;

    private final SentHistory history = new SentHistory();
    private final Recovery recovery = new Recovery();
    /** Packets up to this one have been mended; what comes late of them must not happen again. */
    private long mendedUpTo = Long.MIN_VALUE;

    private long packet;
    private long firstPacket;
    private boolean feedback;
    private long guardAtNanos;
    private int guards;
    /** The newest packet with something that no journal says again, and what became of it. */
    private long uncarried = -1;

    /** The newest packet with commands. */
    private long newest;

    private Arrival uncarriedArrival = Arrival.ARRIVED;
    /** What waits for the arrival of what it repeats or ends. */
    private final HeldCommands held = new HeldCommands(history);

    /** Whether it has answered a packet at once; one that answers now and then does not tell a loss from a pause. */
    private boolean prompt;

    /** Nothing more is taken for it: it waits for the word that what it was told has come. */
    private boolean leaving;

    private long leavesAtNanos;

    private final long[] sentAtNanos = new long[REMEMBERED];
    boolean owesFeedback;

    Peer(SessionEndpoint endpoint, Whereabouts where, String name, SessionEndpoint.Ear ear) {
        this.endpoint = endpoint;
        this.where = where;
        this.weInvite = where != null;
        this.name = name;
        this.ear = ear;
    }

    /** Its control port is there, its data port the next one (RFC 6295, appendix C.6; common practice of network MIDI). */
    void isAt(InetSocketAddress there) {
        control = there;
        data = new InetSocketAddress(there.getAddress(), there.getPort() + 1);
    }

    /** How far the session has come. Any thread. */
    public State state() {
        return state;
    }

    /** Whether both of its streams are agreed. Any thread. */
    public boolean isOpen() {
        return state == State.OPEN;
    }

    /** Whether we keep the session; if not, it invited us. */
    public boolean weInvited() {
        return weInvite;
    }

    /** Whether it is open and the machine has lately shown that it is there. */
    public boolean isThere() {
        return isOpen() && (!clockless || endpoint.nanos() - lastHeardNanos < SessionEndpoint.CLOCKLESS_SILENCE);
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
     * How much of our questions of the last minute got no answer, or how much of what it sent did not come, the worse of
     * the two, in per cent; −1 when neither was to be expected.
     */
    public int lossPerCent() {
        long now = endpoint.nanos();
        return Math.max(questions.perCent(now), packets.perCent(now));
    }

    /** What is known of the arrival of what was sent to it last, and of all before that may still be mended. */
    public synchronized Arrival arrival() {
        if (!history.isEmpty() || !held.isEmpty()) {
            return feedback || guards < GUARDS_WITHOUT_FEEDBACK ? Arrival.AWAITED : Arrival.NO_WORD;
        }
        return uncarried == newest ? uncarriedArrival : Arrival.ARRIVED;
    }

    /** Why the session is not open, or what else is to be known of it, for a technician; empty when all is well. */
    public String trouble() {
        if (isOpen() && clockless) {
            return isThere()
                    ? "it does not answer the clock, so a failure shows some seconds later"
                    : "it accepted our invitation and has answered nothing since; what is sent may not arrive";
        }
        return isOpen() ? "" : trouble;
    }

    // ---- sending

    /**
     * Sends messages that belong to the same moment, as few packets as they fit in. What would be lost for good between
     * two that arrive (see {@link HeldCommands}) follows its predecessor by a moment, on a line that loses packets.
     *
     * @return whether the session was open and the network took them
     */
    public synchronized boolean send(List<? extends MidiMessage> messages) {
        if (!isOpen() || leaving) {
            return false;
        }
        long now = endpoint.nanos();
        List<MidiMessage> going = new ArrayList<>();
        for (MidiMessage message : messages) {
            for (MidiMessage command : message.commands()) {
                if (!held.takes(command, going, now, patience())) {
                    going.addAll(held.before(command));
                    going.add(command);
                }
            }
        }
        return going.isEmpty() || sendNow(going);
    }

    /** How long something may be held back for the sake of what came before it, ns. */
    private long patience() {
        boolean unknown = packet - firstPacket < PACKETS_UNKNOWN;
        return prompt ? PATIENCE : unknown ? PATIENCE_AT_FIRST : 0;
    }

    private boolean sendNow(List<? extends MidiMessage> commands) {
        boolean all = true;
        for (CommandWriter.Section section : CommandWriter.sections(commands)) {
            all &= sendSection(section);
        }
        guards = 0;
        guardAtNanos = endpoint.nanos() + guardPause(0);
        return all;
    }

    /** Sequence numbers leave in order, each with the journal of those before it. */
    private boolean sendSection(CommandWriter.Section section) {
        packet++;
        byte[] journal = history.journal(packet, LARGEST_PACKET - RtpHeader.LENGTH - section.bytes().length);
        for (MidiMessage command : section.commands()) {
            history.sent(command, packet);
            held.sent(command, packet);
        }
        newest = packet;
        if (!section.isCarried()) {
            uncarried = packet;
            boolean answers = feedback || packet - firstPacket < GUARDS_WITHOUT_FEEDBACK;
            uncarriedArrival = answers ? Arrival.AWAITED : Arrival.NO_WORD;
        }
        return sendPacket(section.bytes(), journal);
    }

    private boolean sendPacket(byte[] section, byte[] journal) {
        ByteBuffer out = ByteBuffer.allocate(RtpHeader.LENGTH + section.length + journal.length);
        boolean commands = section.length > 1;
        new RtpHeader((int) (packet & 0xFFFF), (int) endpoint.now(), ourSsrc).put(out, commands);
        int first = section[0] | (journal.length > 0 ? CommandWriter.JOURNAL_FOLLOWS : 0);
        out.put((byte) first).put(section, 1, section.length - 1).put(journal).flip();
        sentAtNanos[(int) packet & REMEMBERED - 1] = endpoint.nanos();
        return endpoint.sendData(out, data);
    }

    private void releaseDue(long now) {
        List<MidiMessage> due = held.due(now);
        if (!due.isEmpty()) {
            sendNow(due);
        }
    }

    /** After how long the journal is said again, while nobody acknowledges: soon at first, so that little waits for it. */
    private static long guardPause(int guards) {
        return (guards < 10 ? 10 : guards < 25 ? 25 : guards < 45 ? 50 : 200) * MILLI;
    }

    /**
     * Sends what was held and takes nothing more; before a goodbye.
     *
     * @return whether it is to be waited for that the machine says it has all, until {@code deadline} at most
     */
    synchronized boolean saysItsLast(long deadline) {
        if (isOpen() && !leaving) {
            List<MidiMessage> rest = held.all();
            if (!rest.isEmpty()) {
                sendNow(rest);
            }
            leaving = true;
            leavesAtNanos = deadline;
        }
        return leaving && feedback && isUnsettled();
    }

    synchronized boolean isLeaving() {
        return leaving && isOpen();
    }

    /** Whether all was said that was to be said to it, and has come, or has had its time. */
    synchronized boolean hasLeft(long now) {
        return leaving && (!isUnsettled() || now - leavesAtNanos >= 0);
    }

    /** Whether something is on its way of which the peer has not said that it is there. */
    synchronized boolean isUnsettled() {
        return isOpen() && (!held.isEmpty() || guards < MOST_GUARDS && !history.isEmpty());
    }

    /**
     * Says the journal again in a packet without commands, when nothing has been sent for a while and the peer has not
     * acknowledged: the last packet of all could be the lost one (RFC 6295 §4, guard packets).
     */
    synchronized void guard(long now) {
        if (!isOpen()) {
            return;
        }
        releaseDue(now);
        int most = feedback ? MOST_GUARDS : GUARDS_WITHOUT_FEEDBACK;
        if (guards >= most || guardAtNanos - now > 0 || history.isEmpty()) {
            return;
        }
        guards++;
        guardAtNanos = now + guardPause(guards);
        packet++;
        sendPacket(new byte[] {0}, history.journal(packet, LARGEST_PACKET - RtpHeader.LENGTH - 1));
    }

    /** @param sequence the highest that the peer has, 0–65,535 */
    synchronized void acknowledged(int sequence, long now) {
        long number = packet - ((int) packet - sequence & 0xFFFF);
        if (number <= firstPacket) {
            return;
        }
        feedback = true;
        // Guards go on while its word is on the way, so that it need not be of the newest packet.
        prompt |= packet - number < REMEMBERED && now - sentAtNanos[(int) number & REMEMBERED - 1] < PROMPT;
        history.acknowledged(number);
        if (uncarriedArrival == Arrival.AWAITED && number >= uncarried) {
            // A later packet that came says nothing of this one, which no journal mends.
            uncarriedArrival = number == uncarried ? Arrival.ARRIVED : Arrival.NO_WORD;
        }
        releaseDue(now);
    }

    // ---- hearing, on the endpoint's thread

    /** Takes a packet, after what the journal says was lost before it; nothing is taken twice. */
    void hear(RtpHeader header, ByteBuffer payload, long now) {
        heardAt(now);
        long expected = window.expected();
        long lost = window.lost();
        SequenceWindow.Place place = window.take(header.sequence());
        packets.count(now, (int) (window.expected() - expected), (int) (window.lost() - lost));
        if (place == SequenceWindow.Place.SEEN) {
            return;
        }
        owesFeedback = true;
        long number = window.number(header.sequence());
        boolean mayLack = place == SequenceWindow.Place.FIRST || place == SequenceWindow.Place.AFTER_A_GAP;
        if (mayLack && CommandReader.hasJournal(payload)) {
            mendedUpTo = number;
            recovery.mend(CommandReader.journal(payload), number).forEach(m -> tell(m, now));
        }
        CommandReader.Result result = reader.read(payload);
        boolean mended = place == SequenceWindow.Place.LATE && number < mendedUpTo;
        for (int i = 0; i < result.messages().size(); i++) {
            MidiMessage message = result.messages().get(i);
            if (!mended || !SentHistory.carries(message)) {
                recovery.heard(message, number);
                tell(message, now - result.ages().get(i));
            }
        }
        result.trouble().ifPresent(t -> ear.trouble(this, t));
    }

    /** A fault of one listener must not end the sessions of the others. */
    private void tell(MidiMessage message, long now) {
        try {
            ear.heard(this, message, now);
        } catch (RuntimeException | StackOverflowError fault) {
            ear.trouble(this, "our own listener failed: " + fault);
        }
    }

    /** Both sides begin anew; neither remembers what was said before. */
    synchronized void begin() {
        window.restart();
        recovery.restart();
        history.restart(packet);
        firstPacket = packet;
        feedback = false;
        uncarriedArrival = Arrival.ARRIVED;
        prompt = false;
        held.restart();
        mendedUpTo = Long.MIN_VALUE;
        owesFeedback = false;
        answersClock = false;
        clockless = false;
        unanswered = 0;
    }

    /** Ends the session for good, with a goodbye. */
    public void close() {
        endpoint.leave(this);
    }

    /** Closed is final, whoever still looks its name up. */
    void become(State next, String why) {
        boolean differs;
        synchronized (this) {
            if (state == State.CLOSED) {
                return;
            }
            differs = next != state;
            state = next;
            trouble = why;
        }
        if (differs) {
            ear.changed(this);
        }
    }

    /** A question was asked. */
    void asked(long now) {
        questions.count(now, 1, 0);
    }

    /** It was not answered before the next one was due; or, after all, it was. */
    void unanswered(long now, boolean really) {
        questions.count(now, 0, really ? 1 : -1);
    }

    void heardAt(long nanos) {
        lastHeardNanos = nanos;
    }

    void measured(long micros) {
        roundTripMicros = micros;
        ear.changed(this);
    }
}
