package underbaton.core.rig;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.OptionalInt;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What somebody saw on a machine's display after something was sent to it: from one sighting or a few it follows how the machine
 * counts.
 *
 * @param wire the number that was sent, 0–127
 * @param shown what the display read then
 */
public record Sighting(Seen what, int wire, String shown) {

    /** What was sent. */
    public enum Seen {
        PROGRAM,
        VALUE,
        NOTE;

        /** In small letters, for a sentence. */
        public String word() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    private static final int MOST = 127;
    private static final int SMALLEST_BANK = 5;
    private static final Pattern LETTERED = Pattern.compile("([A-Za-z])\\s*-?\\s*(\\d{1,3})");

    public Sighting {
        shown = Refusal.requireName("shown", shown, 20);
        if (wire < 0 || wire > MOST) {
            throw new Refusal("sent", "The wire carries the numbers 0 to 127; type the one that was sent.");
        }
    }

    /**
     * All ways of counting that explain what was seen; they differ from the present one in what the sightings are of.
     *
     * @param sightings of one kind, one at least
     * @return one when it is certain, more when it is not yet
     * @throws Refusal when no convention explains them together
     */
    public static List<Numbering> explained(Numbering now, List<Sighting> sightings) {
        List<Numbering> left = sightings.get(0).candidates(now).stream()
                .filter(n -> sightings.stream().allMatch(s -> s.isShownBy(n)))
                .toList();
        if (left.isEmpty()) {
            Sighting last = sightings.get(sightings.size() - 1);
            throw new Refusal(
                    "shown",
                    "No way of counting shows “" + last.shown + "” for " + last.what.word() + " " + last.wire
                            + " of the wire" + (sightings.size() > 1 ? " and what was seen before" : "")
                            + ". Did another message reach the machine, or is its channel another one?");
        }
        return left;
    }

    /** All ways of counting that there are. */
    static List<Numbering> explainedByAnything(Numbering now, Seen what) {
        return new Sighting(what, 0, "?").candidates(now);
    }

    private List<Numbering> candidates(Numbering now) {
        List<Numbering> all = new ArrayList<>();
        switch (what) {
            case PROGRAM -> {
                for (int first = 1; first >= 0; first--) {
                    all.add(now.withBankSize(0).withFirstProgram(first));
                    for (int size = SMALLEST_BANK; size <= MOST + 1; size++) {
                        all.add(now.withBankSize(size).withFirstProgram(first));
                    }
                }
            }
            case VALUE -> {
                for (Numbering.Values values : Numbering.Values.values()) {
                    all.add(now.withValues(values));
                }
            }
            case NOTE -> {
                for (int octave = -2; octave <= 0; octave++) {
                    all.add(now.withNotes(octave, false));
                    all.add(now.withNotes(octave, true));
                }
            }
        }
        return all;
    }

    /** Whether a machine that counts so shows this. */
    boolean isShownBy(Numbering numbering) {
        return switch (what) {
            case PROGRAM -> plain(numbering.program(wire)).equals(plain(shown));
            case VALUE -> isValue(numbering);
            case NOTE -> isNote(numbering);
        };
    }

    /** Without the zeros that some machines put before a number, and in capitals. */
    private static String plain(String program) {
        Matcher m = LETTERED.matcher(program.strip());
        if (m.matches()) {
            return m.group(1).toUpperCase(Locale.ROOT) + Integer.parseInt(m.group(2));
        }
        return program.strip().replaceFirst("^0+(?=\\d)", "");
    }

    /** Machines that print per cent round to whole ones. */
    private boolean isValue(Numbering numbering) {
        String number = shown.replace("%", "").replace(',', '.').strip();
        if (numbering.values() != Numbering.Values.PER_CENT) {
            return plain(shown).equals(numbering.value(wire));
        }
        return number.matches("\\d{1,3}(\\.\\d)?") && Math.abs(Double.parseDouble(number) - wire * 100.0 / MOST) <= 0.5;
    }

    private boolean isNote(Numbering numbering) {
        String text = shown.replace('♯', '#').replace('♭', 'b').toLowerCase(Locale.ROOT);
        boolean sharp = text.matches("[a-h](#|is).*");
        boolean flat = text.matches("([a-h]b|[a-h]es|as|es).*");
        if (text.matches("\\d+") || sharp && numbering.flats() || flat && !numbering.flats()) {
            return false;
        }
        try {
            return numbering.wireNote(shown) == wire;
        } catch (Refusal otherOctave) {
            return false;
        }
    }

    /**
     * What to send next, so that most of what is left is told apart by what is shown.
     *
     * @return 0–127; empty when nothing tells them apart
     */
    public static OptionalInt next(Seen what, List<Numbering> left) {
        OptionalInt best = OptionalInt.empty();
        long most = 1;
        for (int wire = MOST; wire >= 0 && most < left.size(); wire--) {
            int sent = wire;
            long different = left.stream()
                    .map(n -> plain(printed(what, n, sent)))
                    .distinct()
                    .count();
            if (different > most) {
                most = different;
                best = OptionalInt.of(wire);
            }
        }
        return best;
    }

    private static String printed(Seen what, Numbering numbering, int wire) {
        return switch (what) {
            case PROGRAM -> numbering.program(wire);
            case VALUE -> numbering.value(wire).replaceFirst("(\\d+)\\.\\d %|(\\d+) %", "$1$2");
            case NOTE -> numbering.note(wire);
        };
    }

    /** What a machine that counts so would show for something. */
    public static String shows(Seen what, Numbering numbering, int wire) {
        return printed(what, numbering, wire);
    }
}
