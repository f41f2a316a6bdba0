package underbaton.wire.session;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.ByteBuffer;
import java.nio.channels.DatagramChannel;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;

/**
 * A machine at the other end of a session that shares no code with ours: it reads packets and their recovery journals by
 * hand (RFC 6295, from memory), says what it has got, and can be made to lose packets, to fall silent, or to know less.
 */
final class IndependentPeer implements AutoCloseable {

    /** What it knows; a test turns off what it wants to see missing. */
    volatile boolean readsJournals = true;

    volatile boolean givesFeedback = true;
    volatile boolean answersClock = true;
    volatile boolean frozen;
    /** Of packets to and of feedback from it, in per cent. */
    volatile int loss;

    private final DatagramChannel control;
    private final DatagramChannel data;
    private final Random random;
    private final int ssrc;
    private final List<Thread> threads = new ArrayList<>();
    private volatile InetSocketAddress theirControl;
    private volatile int token;
    private volatile int theirSsrc;
    volatile int invitations;
    /** Those that reached its data port, also those that it loses. */
    volatile int packets;

    volatile int goodbyes;

    /** Executed commands in order, as hexadecimal, and what state they left. */
    private final List<String> executed = new ArrayList<>();

    private final Map<String, Integer> state = new TreeMap<>();
    private final Map<String, Long> since = new HashMap<>();
    private final Map<String, Integer> counts = new HashMap<>();
    private long highest = -1;
    private int largest;

    IndependentPeer(InetAddress bind, long seed) throws IOException {
        random = new Random(seed);
        ssrc = random.nextInt();
        DatagramChannel first = null;
        DatagramChannel second = null;
        while (second == null) {
            first = DatagramChannel.open().bind(new InetSocketAddress(bind, 0));
            try {
                second = DatagramChannel.open()
                        .bind(new InetSocketAddress(bind, first.socket().getLocalPort() + 1));
            } catch (IOException | IllegalArgumentException taken) {
                first.close();
            }
        }
        control = first;
        data = second;
        listen(control);
        listen(data);
    }

    int port() {
        return control.socket().getLocalPort();
    }

    int ssrc() {
        return ssrc;
    }

    int token() {
        return token;
    }

    int theirSsrc() {
        return theirSsrc;
    }

    InetSocketAddress theirControl() {
        return theirControl;
    }

    synchronized List<String> executed() {
        return List.copyOf(executed);
    }

    synchronized Map<String, Integer> state() {
        return new TreeMap<>(state);
    }

    /** Of the packets with commands that came to its data port, in bytes. */
    int largestPacket() {
        return largest;
    }

    private void listen(DatagramChannel channel) {
        Thread thread = new Thread(() -> {
            ByteBuffer room = ByteBuffer.allocate(65_535);
            try {
                while (true) {
                    room.clear();
                    InetSocketAddress from = (InetSocketAddress) channel.receive(room);
                    room.flip();
                    while (frozen) {
                        Thread.sleep(5);
                    }
                    take(channel, room, from);
                }
            } catch (IOException | InterruptedException closed) {
                // Switched off.
            }
        });
        thread.setDaemon(true);
        thread.start();
        threads.add(thread);
    }

    private synchronized void take(DatagramChannel channel, ByteBuffer in, InetSocketAddress from) throws IOException {
        if (in.remaining() < 12) {
            return;
        }
        if (in.getShort(0) == (short) 0xFFFF) {
            String kind = "" + (char) in.get(2) + (char) in.get(3);
            if (kind.equals("IN")) {
                invited(channel, in, from);
            } else if (kind.equals("BY")) {
                goodbyes++;
            } else if (kind.equals("CK") && answersClock && in.get(8) == 0) {
                ByteBuffer answer =
                        ByteBuffer.allocate(36).put(in.array(), 0, 4).putInt(ssrc);
                answer.put((byte) 1)
                        .put(new byte[3])
                        .putLong(in.getLong(12))
                        .putLong(7)
                        .putLong(0);
                channel.send(answer.flip(), from);
            }
            return;
        }
        if (channel == data) {
            packets++;
            if (random.nextInt(100) >= loss) {
                rtp(in);
            }
        }
    }

    private void invited(DatagramChannel channel, ByteBuffer in, InetSocketAddress from) throws IOException {
        invitations++;
        token = in.getInt(8);
        theirSsrc = in.getInt(12);
        if (channel == control) {
            theirControl = from;
        } else {
            highest = -1;
        }
        channel.send(exchange("OK", token, ssrc), from);
    }

    static ByteBuffer exchange(String kind, int token, int ssrc) {
        return ByteBuffer.allocate(24)
                .putShort((short) 0xFFFF)
                .put(kind.getBytes(StandardCharsets.US_ASCII))
                .putInt(2)
                .putInt(token)
                .putInt(ssrc)
                .put("Desk\0\0\0\0".getBytes(StandardCharsets.US_ASCII))
                .flip();
    }

    /** Plays a packet as a musician would, from its data port. */
    void play(ByteBuffer packet) throws IOException {
        data.send(packet, new InetSocketAddress(theirControl.getAddress(), theirControl.getPort() + 1));
    }

    /** Asks for the time itself, as some machines do on sessions that others keep. */
    void askForTheTime() {
        ByteBuffer question = ByteBuffer.allocate(36).putShort((short) 0xFFFF).put(new byte[] {'C', 'K'});
        question.putInt(ssrc).put(new byte[28]).flip();
        try {
            play(question);
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }

    // ---- RTP MIDI

    private void rtp(ByteBuffer in) throws IOException {
        if (in.getInt(8) != theirSsrc) {
            return;
        }
        largest = Math.max(largest, in.remaining());
        int sequence = in.getShort(2) & 0xFFFF;
        long number = highest < 0 ? sequence : highest + (short) (sequence - (int) highest);
        boolean first = highest < 0;
        if (!first && number <= highest) {
            return;
        }
        boolean gap = first || number > highest + 1;
        highest = number;
        in.position(12);
        int flags = in.get() & 0xFF;
        int length = (flags & 0x80) != 0 ? (flags & 0x0F) << 8 | in.get() & 0xFF : flags & 0x0F;
        int commands = in.position();
        if (gap && readsJournals && (flags & 0x40) != 0) {
            in.position(commands + length);
            journal(in, number);
        }
        in.position(commands);
        commands(in, commands + length, number);
        if (givesFeedback && random.nextInt(100) >= loss) {
            ByteBuffer feedback = ByteBuffer.allocate(12).putShort((short) 0xFFFF);
            feedback.put("RS".getBytes(StandardCharsets.US_ASCII)).putInt(ssrc).putInt(sequence << 16);
            control.send(feedback.flip(), theirControl);
        }
    }

    /** Ours have no running status and no delta before the first command. */
    private void commands(ByteBuffer in, int end, long number) {
        for (boolean first = true; in.position() < end; first = false) {
            if (!first) {
                in.get();
            }
            int status = in.get() & 0xFF;
            if (status == 0xF0) {
                int from = in.position();
                while ((in.get() & 0xFF) != 0xF7) {
                    continue;
                }
                byte[] body = new byte[in.position() - from];
                in.get(from, body);
                execute("F0" + HexFormat.of().withUpperCase().formatHex(body), "X", number, 0);
            } else {
                int one = status == 0xF6 ? 0 : in.get() & 0xFF;
                boolean two = status < 0xC0 || status >= 0xE0 && status != 0xF3 && status != 0xF6;
                command(status, one, two ? in.get() & 0xFF : 0, number);
            }
        }
    }

    private void command(int status, int one, int two, long number) {
        int channel = status & 0x0F;
        String text = "%02X%02X%02X".formatted(status, one, two);
        switch (status & 0xF0) {
            case 0x80 -> execute(text, "N%d/%d".formatted(channel, one), number, 0);
            case 0x90 -> execute(text, "N%d/%d".formatted(channel, one), number, two);
            case 0xA0 -> execute(text, "A%d/%d".formatted(channel, one), number, two);
            case 0xB0 -> execute(text, "C%d/%d".formatted(channel, one), number, two);
            case 0xC0 -> execute(text, "P%d".formatted(channel), number, one);
            case 0xD0 -> execute(text, "T%d".formatted(channel), number, one);
            case 0xE0 -> execute(text, "W%d".formatted(channel), number, one | two << 7);
            default -> execute(text, "S", number, one);
        }
    }

    private void execute(String command, String what, long number, int value) {
        executed.add(command);
        state.put(what, value);
        since.put(what, number);
        counts.merge(what, 1, Integer::sum);
    }

    private boolean isNews(String what, int value, boolean older, long checkpoint) {
        return state.getOrDefault(what, -1) != value || since.getOrDefault(what, -1L) < checkpoint || !older;
    }

    // ---- the journal

    private void journal(ByteBuffer in, long number) {
        int head = in.get() & 0xFF;
        int sequence = in.getShort() & 0xFFFF;
        long checkpoint = number - ((int) number - sequence & 0xFFFF);
        if ((head & 0x40) != 0) {
            system(in, number);
        }
        for (int i = (head & 0x20) != 0 ? (head & 0x0F) + 1 : 0; i > 0; i--) {
            channel(in, number - 1, checkpoint);
        }
    }

    private void system(ByteBuffer in, long number) {
        int start = in.position();
        int head = in.getShort() & 0xFFFF;
        int end = start + (head & 0x3FF);
        if ((head & 0x4000) != 0) {
            int d = in.get() & 0xFF;
            for (int flag = 0x40; flag >= 0x10; flag >>= 1) {
                if ((d & flag) != 0) {
                    in.get();
                }
            }
        }
        while (in.position() < end) {
            int flags = in.get() & 0xFF;
            int count = in.get() & 0xFF;
            StringBuilder body = new StringBuilder("F0");
            int octet = 0;
            while ((flags & 0x08) != 0 && (octet & 0x80) == 0) {
                octet = in.get() & 0xFF;
                body.append("%02X".formatted(octet & 0x7F));
            }
            int missing = count - counts.getOrDefault("X", 0) & 0xFF;
            if (missing > 0 && missing < 128) {
                execute(body + "F7", "X", number - 1, 0);
                counts.put("X", count);
            }
        }
        in.position(end);
    }

    private void channel(ByteBuffer in, long before, long checkpoint) {
        int start = in.position();
        int head = in.getShort() & 0xFFFF;
        int channel = head >> 11 & 0x0F;
        int contents = in.get() & 0xFF;
        if ((contents & 0x80) != 0) {
            int program = in.get() & 0xFF;
            int high = in.get() & 0xFF;
            int low = in.get() & 0x7F;
            boolean banked = (high & 0x80) != 0;
            boolean otherBank = banked
                    && (state.getOrDefault("C%d/0".formatted(channel), -1) != (high & 0x7F)
                            || state.getOrDefault("C%d/32".formatted(channel), -1) != low);
            if (otherBank) {
                command(0xB0 | channel, 0, high & 0x7F, before);
                command(0xB0 | channel, 32, low, before);
            }
            if (otherBank || isNews("P" + channel, program & 0x7F, program > 0x7F, checkpoint)) {
                command(0xC0 | channel, program & 0x7F, 0, before);
            }
        }
        if ((contents & 0x40) != 0) {
            controllers(in, channel, before, checkpoint);
        }
        if ((contents & 0x20) != 0) {
            parameters(in, channel, before);
        }
        if ((contents & 0x10) != 0) {
            int one = in.get() & 0xFF;
            int two = in.get() & 0x7F;
            if (isNews("W" + channel, one & 0x7F | two << 7, one > 0x7F, checkpoint)) {
                command(0xE0 | channel, one & 0x7F, two, before);
            }
        }
        if ((contents & 0x08) != 0) {
            notes(in, channel, before, checkpoint);
        }
        if ((contents & 0x02) != 0) {
            int pressure = in.get() & 0xFF;
            if (isNews("T" + channel, pressure & 0x7F, pressure > 0x7F, checkpoint)) {
                command(0xD0 | channel, pressure & 0x7F, 0, before);
            }
        }
        if ((contents & 0x01) != 0) {
            for (int logs = (in.get() & 0x7F) + 1; logs > 0; logs--) {
                int note = in.get() & 0xFF;
                int pressure = in.get() & 0x7F;
                if (isNews("A%d/%d".formatted(channel, note & 0x7F), pressure, note > 0x7F, checkpoint)) {
                    command(0xA0 | channel, note & 0x7F, pressure, before);
                }
            }
        }
        if (in.position() != start + (head & 0x3FF)) {
            throw new IllegalStateException("a channel journal lies about its length");
        }
    }

    private void controllers(ByteBuffer in, int channel, long before, long checkpoint) {
        for (int logs = (in.get() & 0x7F) + 1; logs > 0; logs--) {
            int number = in.get() & 0xFF;
            int value = in.get() & 0xFF;
            String what = "C%d/%d".formatted(channel, number & 0x7F);
            if (value < 0x80) {
                if (isNews(what, value, number > 0x7F, checkpoint)) {
                    command(0xB0 | channel, number & 0x7F, value, before);
                }
            } else if ((value & 0x40) != 0) {
                int missing = (value & 0x3F) - counts.getOrDefault(what, 0) & 0x3F;
                for (; missing > 0 && missing < 32 && state.containsKey(what); missing--) {
                    command(0xB0 | channel, number & 0x7F, state.get(what), before);
                }
            }
        }
    }

    private void parameters(ByteBuffer in, int channel, long before) {
        int start = in.position();
        int length = in.getShort() & 0x3FF;
        while (in.position() < start + length) {
            int low = in.get() & 0x7F;
            int high = in.get() & 0xFF;
            int fields = in.get() & 0xFF;
            int first = (high & 0x80) != 0 ? 98 : 100;
            command(0xB0 | channel, first + 1, high & 0x7F, before);
            command(0xB0 | channel, first, low, before);
            if ((fields & 0x80) != 0) {
                command(0xB0 | channel, 6, in.get() & 0x7F, before);
            }
            if ((fields & 0x40) != 0) {
                command(0xB0 | channel, 38, in.get() & 0x7F, before);
            }
        }
    }

    private void notes(ByteBuffer in, int channel, long before, long checkpoint) {
        int logs = in.get() & 0x7F;
        int range = in.get() & 0xFF;
        int low = range >> 4;
        int high = range & 0x0F;
        logs = logs == 127 && range == 0xF0 ? 128 : logs;
        List<int[]> begun = new ArrayList<>();
        for (int i = 0; i < logs; i++) {
            int note = in.get() & 0xFF;
            int velocity = in.get() & 0xFF;
            String what = "N%d/%d".formatted(channel, note & 0x7F);
            boolean sounds = state.getOrDefault(what, 0) > 0;
            if (!sounds || since.getOrDefault(what, -1L) < checkpoint || note < 0x80) {
                begun.add(new int[] {note & 0x7F, velocity & 0x7F});
            }
        }
        for (int octet = low; octet <= high; octet++) {
            int bits = in.get() & 0xFF;
            for (int bit = 0; bit < 8; bit++) {
                int note = octet * 8 + bit;
                boolean sounds = state.getOrDefault("N%d/%d".formatted(channel, note), 0) > 0;
                if ((bits & 0x80 >> bit) != 0 && sounds) {
                    command(0x80 | channel, note, 0, before);
                }
            }
        }
        begun.forEach(b -> command(0x90 | channel, b[0], b[1], before));
    }

    @Override
    public void close() {
        try {
            control.close();
            data.close();
        } catch (IOException gone) {
            throw new UncheckedIOException(gone);
        }
    }
}
