package underbaton.core.rig;

import java.util.Locale;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * What a person writes beside a phrase for other people; nothing of it is sent.
 *
 * @param note free text
 * @param group the heading under which the phrasebook prints it; empty for none
 */
public record Remarks(Mark mark, String note, String group) {

    public static final Remarks NONE = new Remarks(Mark.NONE, "", "");

    /** A colour mark, from the Okabe–Ito palette, told apart by its letter too. */
    public enum Mark {
        NONE(""),
        ORANGE("O"),
        SKY("S"),
        GREEN("G"),
        YELLOW("Y"),
        BLUE("B"),
        VERMILION("V"),
        PURPLE("P");

        private final String letter;

        Mark(String letter) {
            this.letter = letter;
        }

        /** Stands beside the colour, which nobody has to tell apart. */
        public String letter() {
            return letter;
        }

        /** As people write it, in lower case; empty for none. */
        public String word() {
            return this == NONE ? "" : name().toLowerCase(Locale.ROOT);
        }

        /** @throws Refusal when the word names no colour of ours; nothing means none */
        public static Mark of(String typed) {
            String word = typed.strip().toLowerCase(Locale.ROOT);
            return Stream.of(values())
                    .filter(m -> m.word().equals(word) || m.name().equalsIgnoreCase(word))
                    .findFirst()
                    .orElseThrow(() -> new Refusal(
                            "mark",
                            "“" + typed.strip() + "” is no mark; take one of "
                                    + Stream.of(values())
                                            .skip(1)
                                            .map(Mark::word)
                                            .collect(Collectors.joining(", "))
                                    + "."));
        }
    }

    public Remarks {
        note = Refusal.requireShort("note", note.strip(), 200);
        group = Refusal.requireShort("group", group.strip(), 40);
    }
}
