package underbaton.wire.osc;

import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Deque;
import java.util.List;

/**
 * Takes an OSC 1.0 packet apart into its messages, bundles within bundles, before anything in it is understood. Depth, size
 * and number are limited here, without recursion; what lies beyond the limits is left out, and so is a bundle from the
 * place on at which its sizes cannot be true.
 */
final class OscElements {

    static final int MOST_MESSAGES = 1000;
    static final int DEEPEST = 8;
    private static final byte[] BUNDLE = "#bundle\0".getBytes(StandardCharsets.US_ASCII);
    private static final int BUNDLE_HEAD = 16;
    /** Of a time tag: at once (OSC 1.0). */
    static final long AT_ONCE = 1;

    /**
     * One message.
     *
     * @param bytes as they came
     * @param timeTag of the bundle in which it stands, as NTP has it; {@link #AT_ONCE} outside of any
     */
    record Element(byte[] bytes, long timeTag) {}

    /** A bundle, or the packet itself, from {@code at} to {@code end}. */
    private record Span(int at, int end, int depth, long timeTag) {}

    private OscElements() {}

    static List<Element> of(byte[] packet) {
        List<Element> found = new ArrayList<>();
        Deque<Span> waiting = new ArrayDeque<>();
        waiting.push(new Span(0, packet.length, 0, AT_ONCE));
        while (!waiting.isEmpty() && found.size() < MOST_MESSAGES) {
            Span span = waiting.pop();
            if (!isBundle(packet, span)) {
                found.add(new Element(Arrays.copyOfRange(packet, span.at, span.end), span.timeTag));
            } else if (span.depth < DEEPEST) {
                List<Span> inside = inside(packet, span);
                for (int i = inside.size() - 1; i >= 0; i--) {
                    waiting.push(inside.get(i));
                }
            }
        }
        return found;
    }

    private static boolean isBundle(byte[] packet, Span span) {
        return span.end - span.at >= BUNDLE_HEAD
                && Arrays.equals(packet, span.at, span.at + BUNDLE.length, BUNDLE, 0, BUNDLE.length);
    }

    private static List<Span> inside(byte[] packet, Span bundle) {
        List<Span> inside = new ArrayList<>();
        ByteBuffer numbers = ByteBuffer.wrap(packet);
        long timeTag = numbers.getLong(bundle.at + BUNDLE.length);
        int at = bundle.at + BUNDLE_HEAD;
        while (at + 4 <= bundle.end && inside.size() < MOST_MESSAGES) {
            int size = numbers.getInt(at);
            at += 4;
            if (size <= 0 || size > bundle.end - at) {
                break;
            }
            inside.add(new Span(at, at + size, bundle.depth + 1, timeTag));
            at += size;
        }
        return inside;
    }
}
