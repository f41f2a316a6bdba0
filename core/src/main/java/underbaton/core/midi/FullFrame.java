package underbaton.core.midi;

import java.util.Optional;

/**
 * An MTC full frame (RP-004/008): {@code F0 7F dev 01 01 hh mm ss ff F7}.
 *
 * @param device 0–127; 127 is everyone
 */
public record FullFrame(int device, TimeCode time) implements Exclusive {

    public FullFrame {
        Limits.seven("device", device);
    }

    @Override
    public Bytes body() {
        return Bytes.of(0x7F, device, 0x01, 0x01).then(time.encode());
    }

    static Optional<FullFrame> decode(Bytes body) {
        return Exclusive.afterUniversalHeader(body, 0x01)
                .filter(rest -> rest.length() == 5 && rest.at(0) == 0x01)
                .flatMap(rest -> {
                    try {
                        return Optional.of(new FullFrame(body.at(1), TimeCode.decode(rest.slice(1, 5))));
                    } catch (IllegalArgumentException noPosition) {
                        return Optional.empty();
                    }
                });
    }
}
