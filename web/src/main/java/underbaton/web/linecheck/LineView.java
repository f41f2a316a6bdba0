package underbaton.web.linecheck;

import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;
import underbaton.web.stage.Tried;

/**
 * One line of the check: a machine, what it is tried with, and the newest result beside the one before.
 *
 * @param phrases those that may be sent without a second act
 * @param chosen the one to try with
 */
public record LineView(
        Device device, List<Phrase> phrases, Optional<Phrase> chosen, Optional<Result> now, Optional<Result> before) {

    private static final DateTimeFormatter WHEN =
            DateTimeFormatter.ofPattern("EEE d MMM, HH:mm", Locale.ENGLISH).withZone(ZoneId.systemDefault());

    /** @param seen {@code yes}, {@code no}, or empty while nobody has said */
    public record Result(
            int id,
            String when,
            String phrase,
            boolean sent,
            boolean acknowledged,
            String seen,
            String roundTrip,
            String lead,
            String trouble) {

        static Result of(LineCheckMapper.Row row) {
            int lead = new Tried(row.sent(), row.acknowledged(), row.roundTripMicros(), "", Optional.empty())
                    .suggestedLeadMs();
            return new Result(
                    row.id(),
                    WHEN.format(Instant.ofEpochMilli(row.epochMillis())),
                    row.phrase(),
                    row.sent(),
                    row.acknowledged(),
                    row.seen(),
                    row.roundTripMicros() < 0 ? "" : "%.1f ms".formatted(row.roundTripMicros() / 1000.0),
                    lead < 0 ? "" : lead + " ms",
                    row.trouble());
        }

        /** The result in a few words, for the column of the time before. */
        public String words() {
            if (!sent) {
                return "not sent";
            }
            String moved = seen.equals("yes") ? "seen" : seen.equals("no") ? "not seen" : "nobody said";
            return moved + (roundTrip.isEmpty() ? "" : ", " + roundTrip);
        }
    }

    static LineView of(Device device, List<LineCheckMapper.Row> newest) {
        List<Phrase> open = device.phrases().stream()
                .filter(p -> !p.guarded() && p.argument().isEmpty())
                .toList();
        Optional<Phrase> last = newest.stream()
                .findFirst()
                .flatMap(r -> device.phraseNamed(r.phrase()))
                .filter(p -> !p.guarded());
        return new LineView(
                device,
                open,
                last.or(() -> open.stream().filter(p -> p.effect().lasts()).findFirst())
                        .or(() -> open.stream().findFirst()),
                newest.stream().findFirst().map(Result::of),
                newest.stream().skip(1).findFirst().map(Result::of));
    }
}
