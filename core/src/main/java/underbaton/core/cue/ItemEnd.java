package underbaton.core.cue;

import java.util.Optional;
import underbaton.core.rig.Refusal;
import underbaton.core.score.Score;

/**
 * Where an item is over, as far as somebody has said: at the last bar of its score, or a film after its planned length.
 *
 * @param nanos since the item began; {@code Long.MAX_VALUE} when nobody has said
 * @param words why it is over there; empty when nobody has said
 */
public record ItemEnd(Optional<Score.Times> times, long nanos, String words) {

    /** Of a song from its last bar, of others from their planned length, where that is known. */
    public static ItemEnd of(Item item) {
        Optional<Score.Times> times = item.score().map(Score::read);
        int last = item.score().map(Score::lastBar).orElse(0);
        if (last > 0) {
            long end = times.orElseThrow().nanosOfBar(last + 1);
            return new ItemEnd(times, end, "bar " + last + " is the last");
        }
        if (item.kind() == ItemKind.FILM && item.plannedSeconds() > 0) {
            return new ItemEnd(
                    times,
                    item.plannedSeconds() * 1_000_000_000L,
                    "the film is " + PlannedLength.tell(item.plannedSeconds()) + " long");
        }
        return new ItemEnd(times, Long.MAX_VALUE, "");
    }

    /** Why a cue that comes by itself lies behind the end; empty for all others. */
    public Optional<String> behind(Cue cue) {
        if (words.isEmpty() || !(cue.start() instanceof Start.Landing landing)) {
            return Optional.empty();
        }
        try {
            return landing.nanos(times) >= nanos ? Optional.of("behind the end: " + words) : Optional.empty();
        } catch (Refusal noSuchPlace) {
            return Optional.empty();
        }
    }
}
