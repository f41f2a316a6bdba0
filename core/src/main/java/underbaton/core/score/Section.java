package underbaton.core.score;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import underbaton.core.rig.Refusal;

/**
 * A part of a song, from its bar to the next one's.
 *
 * @param bar 1 for the first whole bar
 * @param letter the rehearsal letter, one or two characters
 * @param as the letter of the section that this one is again: that one's cues come here too
 * @param without numbers of cues of that section that do not come here; none where this is no other one again
 */
public record Section(int bar, String letter, String name, Optional<String> as, List<String> without) {

    /** How a rehearsal letter looks, as a pattern. */
    public static final String LETTER = "[A-Z][A-Z0-9]?";

    public Section {
        if (!letter.matches(LETTER)) {
            throw new Refusal(
                    "section", "A rehearsal letter is A to Z, with a letter or figure behind it perhaps: B2.");
        }
        name = Refusal.requireShort("section", name.strip(), 60);
        if (bar < 0) {
            throw new Refusal("section", "A section begins at a bar.");
        }
        if (as.isPresent() && as.get().equals(letter)) {
            throw new Refusal("section", "Section " + letter + " cannot be itself again; name another one.");
        }
        if (as.isPresent() && !as.get().matches(LETTER)) {
            throw new Refusal("section", "Section " + letter + " is to be another again; name that one by its letter.");
        }
        without = as.isEmpty() ? List.of() : List.copyOf(without);
        if (!without.stream().allMatch(n -> n.matches("\\d{1,5}(\\.\\d{1,3})?"))) {
            throw new Refusal("section", "Behind “without” stand cue numbers, such as: without 12, 12.5.");
        }
    }

    /** Written out, and not the copy of another one. */
    public Section(int bar, String letter, String name) {
        this(bar, letter, name, Optional.empty(), List.of());
    }

    /** The same with other exceptions. */
    public Section without(List<String> numbers) {
        return new Section(bar, letter, name, as, numbers);
    }

    /** @param changed numbers that are others now */
    public Section withNumbersFollowed(Map<String, String> changed) {
        return without(without.stream().map(n -> changed.getOrDefault(n, n)).toList());
    }

    /** {@code 41 C Chorus 2 as B without 12, 14}. */
    @Override
    public String toString() {
        String left = without.isEmpty() ? "" : " without " + String.join(", ", without);
        return (bar + " " + letter + " " + NameInWords.write(name)).strip()
                + as.map(a -> " as " + a + left).orElse("");
    }
}
