package underbaton.core.store;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import underbaton.core.cue.SceneLevels;
import underbaton.core.rig.Answer;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Remarks;
import underbaton.core.rig.Speech;
import underbaton.core.rig.SpeechWording;
import underbaton.core.rig.Standing;

/**
 * A phrase as the file formats write it: all in words, in the numbers that its device prints.
 *
 * @param says may be empty for an entry of the machine's list when it is read: it comes behind those before it then
 * @param argument empty for none
 * @param guarded {@code yes}, or empty
 * @param listed {@code yes} for an entry of the machine's own list, or empty
 * @param mark a colour's name, or empty
 * @param answer what the machine says when it has done it; empty for nothing
 * @param leaves where a scene leaves the levels of its machine, in phrases of it; empty for nobody knows
 */
public record PhraseText(
        String name,
        String says,
        String argument,
        String effect,
        String guarded,
        String listed,
        String mark,
        String note,
        String group,
        String leaves,
        String answer) {

    private static final String YES = "yes";

    /** @param phrase of that device, which says how its numbers are printed */
    public static PhraseText of(Device device, Phrase phrase) {
        Remarks remarks = phrase.remarks();
        return new PhraseText(
                phrase.name(),
                new SpeechWording(device.numbering()).write(phrase.says()),
                phrase.says().hasTwoStates()
                        ? ""
                        : phrase.argument().map(Argument::toString).orElse(""),
                phrase.effect().toString(),
                phrase.guarded() ? YES : "",
                phrase.listed() ? YES : "",
                remarks.mark().word(),
                remarks.note(),
                remarks.group(),
                SceneLevels.write(device, phrase.leaves()),
                phrase.answer()
                        .map(a -> a.write(new SpeechWording(device.numbering())))
                        .orElse(""));
    }

    /**
     * A machine whose phrases have been read, with where its scenes leave its levels: these speak of phrases that may come later.
     *
     * @throws Refusal naming the phrase
     */
    public static Device withLeaves(Device device, List<PhraseText> texts) {
        Map<String, String> leaves = texts.stream()
                .filter(t -> !t.leaves.isBlank())
                .collect(Collectors.toMap(t -> plain(t.name), PhraseText::leaves, (one, other) -> one));
        if (leaves.isEmpty()) {
            return device;
        }
        return device.withPhrases(device.phrases().stream()
                .map(p -> {
                    String typed = leaves.get(plain(p.name()));
                    return typed == null ? p : p.withLeaves(levels(device, p, typed));
                })
                .toList());
    }

    private static List<Standing> levels(Device device, Phrase phrase, String typed) {
        try {
            return SceneLevels.read(device, typed);
        } catch (Refusal refusal) {
            throw new Refusal("file", "Phrase “" + phrase.name() + "”, leaves: " + refusal.getMessage());
        }
    }

    private static String plain(String name) {
        return name.strip().toLowerCase(Locale.ROOT);
    }

    /** @throws Refusal naming the field that cannot be read */
    public Phrase in(Device device) {
        boolean entry = yes("listed", listed);
        if (entry && device.list().isEmpty()) {
            throw new Refusal("listed", device.name() + " has no list of its own; leave “listed” empty.");
        }
        // What it says is its place in the list; without it, it comes behind those before it.
        Speech speech = entry && says.isBlank()
                ? Speech.of(device.list().orElseThrow().at(0))
                : device.wording().read(says);
        return new Phrase(
                        0,
                        name,
                        speech,
                        argument.isBlank() || entry ? Optional.empty() : Optional.of(Argument.of(argument)),
                        Effect.of(effect.isBlank() ? "holds" : effect),
                        yes("guarded", guarded),
                        entry,
                        new Remarks(Remarks.Mark.of(mark), note, group))
                .withAnswer(Answer.read(answer, device.wording()));
    }

    private static boolean yes(String field, String text) {
        String word = text.strip().toLowerCase(Locale.ROOT);
        if (!word.isEmpty() && !word.equals(YES) && !word.equals("no")) {
            throw new Refusal(field, "“" + text + "” is neither yes nor no.");
        }
        return word.equals(YES);
    }
}
