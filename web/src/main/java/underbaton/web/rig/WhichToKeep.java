package underbaton.web.rig;

import java.util.List;
import underbaton.core.rig.Device;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;

/**
 * A machine is to count in another way, and what was typed in its numbers can stay in one of two ways: the same bytes, printed
 * otherwise; or the same printed numbers, which are other bytes. Only who typed it knows which.
 */
final class WhichToKeep extends RuntimeException {

    /** The bytes: what was typed was right, and is only printed otherwise. */
    static final String BYTES = "bytes";
    /** The printed numbers: they were typed under a wrong setting. */
    static final String PRINTED = "printed";

    private static final int EXAMPLES = 4;

    private final transient Device device;
    private final transient Numbering wanted;
    private final String form;

    /**
     * One phrase, both ways.
     *
     * @param printed what it says if the bytes stay
     * @param bytes what goes out if the printed numbers stay; why they cannot, where they cannot
     */
    record Example(String name, String says, String nowBytes, String printed, String bytes) {}

    /** @param form the id of the form that is sent once more with the answer */
    private WhichToKeep(Device device, Numbering wanted, String form) {
        this.device = device;
        this.wanted = wanted;
        this.form = form;
    }

    /**
     * The machine with another way of counting.
     *
     * @param after as it is to be, but for what stays
     * @param keep {@link #BYTES}, {@link #PRINTED}, or nothing when nobody has said yet
     * @throws WhichToKeep when somebody must say
     */
    static Device settle(Device before, Device after, String keep, String form) {
        Numbering wanted = after.numbering();
        String levels = before.levels().write(before.numbering());
        boolean samePhrases = before.readingOtherwise(wanted).isEmpty();
        boolean sameLevels = levels.equals(before.levels().write(wanted));
        if (samePhrases && sameLevels) {
            return after;
        }
        if (keep.equals(PRINTED)) {
            Device recounted = before.recounted(wanted);
            return after.withList(recounted.list()).withPhrases(recounted.phrases());
        }
        if (!keep.equals(BYTES)) {
            throw new WhichToKeep(before, wanted, form);
        }
        boolean untouched = after.levels().write(wanted).equals(levels);
        return untouched ? after.withLevels(before.levels()) : after;
    }

    String form() {
        return form;
    }

    String name() {
        return device.name();
    }

    int phrases() {
        return device.readingOtherwise(wanted).size();
    }

    List<Example> examples() {
        return device.readingOtherwise(wanted).stream()
                .limit(EXAMPLES)
                .map(this::example)
                .toList();
    }

    private Example example(Phrase phrase) {
        PhraseWords now = PhraseWords.of(device, phrase);
        Device counting = device.withNumbering(wanted);
        return new Example(
                phrase.name(),
                now.words(),
                now.bytes(),
                PhraseWords.of(counting, phrase).words(),
                bytesIfPrintedStays(phrase));
    }

    private String bytesIfPrintedStays(Phrase phrase) {
        try {
            Device alone = device.withPhrases(List.of(phrase)).recounted(wanted);
            return PhraseWords.of(alone, alone.phrases().get(0)).bytes();
        } catch (Refusal cannot) {
            return "cannot be: it has no such number then";
        }
    }
}
