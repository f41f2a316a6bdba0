package underbaton.web.access;

import java.security.SecureRandom;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import org.springframework.stereotype.Component;
import underbaton.core.loop.Clock;
import underbaton.core.rig.Cut;
import underbaton.core.rig.Refusal;
import underbaton.web.live.Live;

/**
 * Devices that have asked to be let in. Each shows a number of six figures, and whoever runs the show sees the same beside its name; the
 * number lets nobody in, it only says which of two tablets in the same house is meant. Any thread may call it.
 */
@Component
public class WaitingDevices {

    private static final int MOST = 20;
    private static final int MOST_OF_AN_ADDRESS = 3;
    private static final long LONGEST_NANOS = TimeUnit.MINUTES.toNanos(5);
    private static final int LONGEST_NAME = 40;
    private static final int KEY_BYTES = 32;

    /** What has become of somebody who asked. */
    public enum State {
        WAITS,
        LET_IN,
        REFUSED
    }

    /**
     * @param key by which the device asks what has become of it; a secret of its own
     * @param code of six figures
     * @param token what it is to show from now on, once it is let in
     */
    public record Device(
            int number,
            String key,
            String name,
            String address,
            String code,
            long sinceNanos,
            State state,
            String token) {

        /** In two groups, as it is read out. */
        public String shownCode() {
            return code.substring(0, 3) + " " + code.substring(3);
        }

        private Device become(State now, String shown) {
            return new Device(number, key, name, address, code, sinceNanos, now, shown);
        }
    }

    private final Clock clock;
    private final Guests guests;
    private final Live live;
    private final SecureRandom random = new SecureRandom();
    private final Map<Integer, Device> devices = new LinkedHashMap<>();
    private int last;

    WaitingDevices(Clock clock, Guests guests, Live live) {
        this.clock = clock;
        this.guests = guests;
        this.live = live;
    }

    /** @throws Refusal when it has no name, or too many wait */
    public synchronized Device ask(String name, String address) {
        forgetOld();
        String called = Cut.to(LONGEST_NAME, name.strip());
        if (called.isEmpty()) {
            throw new Refusal("name", "Say whose device this is, such as: Anna's tablet.");
        }
        long ofAddress = devices.values().stream()
                .filter(d -> d.state == State.WAITS && d.address.equals(address))
                .count();
        long waiting =
                devices.values().stream().filter(d -> d.state == State.WAITS).count();
        if (ofAddress >= MOST_OF_AN_ADDRESS || waiting >= MOST) {
            throw new Refusal("name", "Too many wait at the door already. Try again in a few minutes.");
        }
        byte[] key = new byte[KEY_BYTES];
        random.nextBytes(key);
        Device device = new Device(
                ++last,
                Base64.getUrlEncoder().withoutPadding().encodeToString(key),
                called,
                address,
                code(),
                clock.nanos(),
                State.WAITS,
                "");
        devices.put(device.number, device);
        live.changed("venue");
        return device;
    }

    /** None that another one shows. */
    private String code() {
        while (true) {
            String code = String.format("%06d", random.nextInt(1_000_000));
            if (devices.values().stream().noneMatch(d -> d.code.equals(code))) {
                return code;
            }
        }
    }

    private void forgetOld() {
        long now = clock.nanos();
        devices.values().removeIf(d -> now - d.sinceNanos > LONGEST_NANOS);
    }

    /** Those that wait, the first first. */
    public synchronized List<Device> all() {
        forgetOld();
        List<Device> waiting = new ArrayList<>(devices.values());
        waiting.removeIf(d -> d.state != State.WAITS);
        return waiting;
    }

    /** The device of this key; empty when it has waited too long, or has been told already that it is let in. */
    public synchronized Optional<Device> of(String key) {
        forgetOld();
        Optional<Device> found =
                devices.values().stream().filter(d -> d.key.equals(key)).findFirst();
        found.filter(d -> d.state != State.WAITS).ifPresent(d -> devices.remove(d.number));
        return found;
    }

    /**
     * Lets one in.
     *
     * @param code that was seen beside it
     * @param howLong empty for until it is taken away
     * @throws Refusal when that code is not its own, or it no longer waits
     */
    public synchronized void letIn(int number, String code, Role role, Optional<Duration> howLong) {
        Device device = waiting(number, code);
        devices.put(number, device.become(State.LET_IN, guests.letIn(device.name, role, device.address, howLong)));
        live.changed("venue");
    }

    public synchronized void refuse(int number, String code) {
        devices.put(number, waiting(number, code).become(State.REFUSED, ""));
        live.changed("venue");
    }

    /** Nobody waits any more. */
    public synchronized void clear() {
        devices.clear();
        live.changed("venue");
    }

    private Device waiting(int number, String code) {
        forgetOld();
        Device device = devices.get(number);
        if (device == null || device.state != State.WAITS || !device.code.equals(code)) {
            throw new Refusal("code", "No device with this number waits any more; let it ask again.");
        }
        return device;
    }
}
