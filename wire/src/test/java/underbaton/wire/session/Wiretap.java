package underbaton.wire.session;

import java.io.ByteArrayOutputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.ByteBuffer;
import java.nio.channels.DatagramChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.ConcurrentHashMap;

/**
 * Stands between two ends of a wire on loopback, hands every datagram on, and keeps them as a capture file (the classic
 * pcap format, link type raw IP) that network analysers read.
 */
public final class Wiretap implements AutoCloseable {

    private static final int RAW_IP = 101;

    private final List<byte[]> packets = new ArrayList<>();
    private final List<DatagramChannel> channels = new ArrayList<>();
    private final int port;
    private volatile int spoiltPercent;
    private volatile Random random = new Random(0);
    private volatile boolean feedbackDropped;
    private final Map<DatagramChannel, Runnable> heldBack = new ConcurrentHashMap<>();

    /** @param ports neighbouring ports from the target's upwards; the tap gets as many neighbouring ones of its own */
    public Wiretap(int target, int ports) throws IOException {
        List<DatagramChannel> opened = List.of();
        for (int tries = 0; opened.size() < ports && tries < 50; tries++) {
            opened = neighbours(ports);
        }
        port = opened.get(0).socket().getLocalPort();
        for (int i = 0; i < ports; i++) {
            pass(opened.get(i), new InetSocketAddress(InetAddress.getLoopbackAddress(), target + i));
        }
        channels.addAll(opened);
    }

    private static List<DatagramChannel> neighbours(int count) throws IOException {
        List<DatagramChannel> opened = new ArrayList<>();
        try {
            int next = 0;
            for (int i = 0; i < count; i++) {
                DatagramChannel channel = DatagramChannel.open();
                channel.bind(new InetSocketAddress(InetAddress.getLoopbackAddress(), next));
                next = channel.socket().getLocalPort() + 1;
                opened.add(channel);
            }
            return opened;
        } catch (IOException taken) {
            for (DatagramChannel channel : opened) {
                channel.close();
            }
            return List.of();
        }
    }

    public int port() {
        return port;
    }

    private void pass(DatagramChannel channel, InetSocketAddress target) {
        Thread thread = new Thread(() -> {
            InetSocketAddress caller = null;
            ByteBuffer room = ByteBuffer.allocate(65_535);
            try {
                while (true) {
                    room.clear();
                    InetSocketAddress from = (InetSocketAddress) channel.receive(room);
                    room.flip();
                    boolean back = from.getPort() == target.getPort();
                    caller = back ? caller : from;
                    InetSocketAddress to = back ? caller : target;
                    keep(from.getPort(), to.getPort(), room.duplicate());
                    hand(channel, room, to);
                }
            } catch (IOException closed) {
                // The tap is taken off.
            }
        });
        thread.setDaemon(true);
        thread.start();
    }

    /** From now on this share of RTP packets is lost, doubled or exchanged with its follower. */
    public void spoil(int percent, Random seeded) {
        random = seeded;
        spoiltPercent = percent;
    }

    /** From now on no feedback passes. */
    public void dropFeedback() {
        feedbackDropped = true;
    }

    private void hand(DatagramChannel channel, ByteBuffer room, InetSocketAddress to) throws IOException {
        boolean rtp = (room.get(0) & 0xC0) == 0x80;
        if (feedbackDropped && room.get(2) == 'R') {
            return;
        }
        if (!rtp || spoiltPercent == 0) {
            channel.send(room, to);
            return;
        }
        byte[] copy = new byte[room.remaining()];
        room.get(copy);
        Runnable send = () -> {
            try {
                channel.send(ByteBuffer.wrap(copy), to);
            } catch (IOException closed) {
                throw new UncheckedIOException(closed);
            }
        };
        Runnable earlier = heldBack.remove(channel);
        int luck = random.nextInt(100);
        if (luck < spoiltPercent) {
            switch (luck % 3) {
                case 0 -> {}
                case 1 -> {
                    send.run();
                    send.run();
                }
                default -> heldBack.put(channel, send);
            }
        } else {
            send.run();
        }
        if (earlier != null) {
            earlier.run();
        }
    }

    private synchronized void keep(int from, int to, ByteBuffer datagram) {
        byte[] payload = new byte[datagram.remaining()];
        datagram.get(payload);
        int length = 28 + payload.length;
        ByteBuffer packet = ByteBuffer.allocate(length);
        packet.put((byte) 0x45).put((byte) 0).putShort((short) length).putInt(0);
        packet.put((byte) 64).put((byte) 17).putShort((short) 0);
        packet.putInt(0x7F000001).putInt(0x7F000001);
        packet.putShort((short) from)
                .putShort((short) to)
                .putShort((short) (8 + payload.length))
                .putShort((short) 0);
        packets.add(packet.put(payload).array());
    }

    public synchronized void save(Path file) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        DataOutputStream out = new DataOutputStream(bytes);
        try {
            out.writeInt(0xA1B2C3D4);
            out.writeShort(2);
            out.writeShort(4);
            out.writeLong(0);
            out.writeInt(65_535);
            out.writeInt(RAW_IP);
            for (int i = 0; i < packets.size(); i++) {
                out.writeInt(i);
                out.writeInt(0);
                out.writeInt(packets.get(i).length);
                out.writeInt(packets.get(i).length);
                out.write(packets.get(i));
            }
            Files.write(file, bytes.toByteArray());
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }

    @Override
    public void close() throws IOException {
        for (DatagramChannel channel : channels) {
            channel.close();
        }
    }
}
