package underbaton.core.rig;

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

        public String letter() {
            return letter;
        }
    }

    public Remarks {
        note = Refusal.requireShort("note", note.strip(), 200);
        group = Refusal.requireShort("group", group.strip(), 40);
    }
}
