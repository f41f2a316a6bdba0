package underbaton.web.venue;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import underbaton.web.access.Guest;
import underbaton.web.access.Role;
import underbaton.web.access.WaitingDevices;

/**
 * Who waits at the door and who is in.
 *
 * @param waiting those that ask
 * @param guests those that were let in
 */
record VenueView(List<WaitingDevices.Device> waiting, List<Line> guests) {

    /** For how long somebody is let in. */
    enum HowLong {
        TONIGHT("for tonight", Optional.of(Duration.ofHours(16))),
        WEEK("for a week", Optional.of(Duration.ofDays(7))),
        ALWAYS("until taken away", Optional.empty());

        private final String words;
        private final Optional<Duration> length;

        HowLong(String words, Optional<Duration> length) {
            this.words = words;
            this.length = length;
        }

        public String words() {
            return words;
        }

        Optional<Duration> length() {
            return length;
        }
    }

    /**
     * @param until empty for until it is taken away
     * @param seen when it was seen last; empty where it was not since the start
     */
    record Line(
            long id,
            String name,
            Role role,
            String address,
            Optional<LocalDateTime> until,
            Optional<LocalDateTime> seen) {

        static Line of(Guest guest, Optional<Long> seenMs) {
            return new Line(
                    guest.id(),
                    guest.name(),
                    guest.role(),
                    guest.address(),
                    guest.untilMs() == 0 ? Optional.empty() : Optional.of(local(guest.untilMs())),
                    seenMs.map(Line::local));
        }

        private static LocalDateTime local(long ms) {
            return LocalDateTime.ofInstant(Instant.ofEpochMilli(ms), ZoneId.systemDefault());
        }
    }

    public Role[] roles() {
        return Role.values();
    }

    public HowLong[] lengths() {
        return HowLong.values();
    }
}
