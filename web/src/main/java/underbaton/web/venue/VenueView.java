package underbaton.web.venue;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import underbaton.core.cue.Show;
import underbaton.web.access.GivenPage;
import underbaton.web.access.Guest;
import underbaton.web.access.Role;
import underbaton.web.access.WaitingDevices;

/**
 * Who waits at the door and who is in.
 *
 * @param waiting those that ask
 * @param guests those that were let in
 * @param showId the show on the desk; 0 for none
 */
record VenueView(List<WaitingDevices.Device> waiting, List<Line> guests, int showId) {

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
     * @param hands the pages of hand cues of the show on the desk; none for one that works no keys
     */
    record Line(
            long id,
            String name,
            Role role,
            String address,
            Optional<LocalDateTime> until,
            Optional<LocalDateTime> seen,
            List<Hand> hands) {

        static Line of(Guest guest, Optional<Long> seenMs, Optional<Show> show) {
            List<Hand> hands = show.filter(s -> guest.role() == Role.HANDS)
                    .map(s -> s.hands().stream()
                            .map(p -> new Hand(p.id(), p.name(), guest.pages().contains(new GivenPage(s.id(), p.id()))))
                            .toList())
                    .orElse(List.of());
            return new Line(
                    guest.id(),
                    guest.name(),
                    guest.role(),
                    guest.address(),
                    guest.untilMs() == 0 ? Optional.empty() : Optional.of(local(guest.untilMs())),
                    seenMs.map(Line::local),
                    hands);
        }

        /** What it works, in words. */
        public String works() {
            String given = hands.stream().filter(Hand::given).map(Hand::name).collect(Collectors.joining(", "));
            return given.isEmpty() ? "all pages" : given;
        }

        private static LocalDateTime local(long ms) {
            return LocalDateTime.ofInstant(Instant.ofEpochMilli(ms), ZoneId.systemDefault());
        }
    }

    /** A page of hand cues. @param given whether it works this one, and no others but those given too */
    record Hand(int pageId, String name, boolean given) {}

    public Role[] roles() {
        return Role.values();
    }

    public HowLong[] lengths() {
        return HowLong.values();
    }
}
