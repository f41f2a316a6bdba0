package underbaton.core.signal;

import java.util.List;
import java.util.Optional;
import java.util.function.IntUnaryOperator;
import java.util.stream.IntStream;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;

/** What a relay puts into the blank of what it sends. */
public sealed interface Filling {

    /** There is no blank. */
    record Nothing() implements Filling {}

    /** An amount made of the number that comes with the signal. */
    record Scaled(Scale scale) implements Filling {}

    /**
     * The name that stands at the signal's number in a list.
     *
     * @param listOf the machine whose own list it is; 0 for the names here
     * @param names those of a list of nobody's, at most 1,000
     * @param first the number of the first name, as the sender prints it
     */
    record Named(int listOf, List<String> names, int first) implements Filling {

        private static final int MOST = 1_000;

        public Named {
            names = names.stream()
                    .map(n -> Refusal.requireShort("names", n.strip(), 200))
                    .toList();
            if (names.size() > MOST) {
                throw new Refusal("names", "A list has at most 1,000 names.");
            }
            if (listOf == 0 && names.isEmpty()) {
                throw new Refusal(
                        "names", "Paste the names, one on each line, or choose the machine whose list it is.");
            }
            if (Math.abs(first) > 100_000) {
                throw new Refusal("first", "The first name has a number up to 100,000.");
            }
        }

        /** @return empty where the list has no name there */
        public Optional<String> at(double number, Optional<Device> owner) {
            List<String> all = listOf == 0
                    ? names
                    : owner.map(d -> d.places().stream()
                                    .map(p -> p.map(Phrase::name).orElse(""))
                                    .toList())
                            .orElse(List.of());
            double place = number - first;
            boolean isThere = place == Math.rint(place) && place >= 0 && place < all.size();
            return isThere ? Optional.of(all.get((int) place)).filter(n -> !n.isEmpty()) : Optional.empty();
        }
    }

    /** The same with the ids of its show's parts exchanged; 0 stays 0. */
    default Filling pointing(IntUnaryOperator ids) {
        if (this instanceof Named named) {
            return new Named(ids.applyAsInt(named.listOf), named.names, named.first);
        }
        return this instanceof Scaled scaled ? new Scaled(scaled.scale.pointing(ids)) : this;
    }

    /** All ids of the show's parts that it points to. */
    default IntStream pointsTo() {
        if (this instanceof Named named) {
            return named.listOf == 0 ? IntStream.empty() : IntStream.of(named.listOf);
        }
        return this instanceof Scaled scaled
                ? scaled.scale.second().stream().mapToInt(Scale.Second::deviceId)
                : IntStream.empty();
    }
}
