package underbaton.web.rig;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import underbaton.core.cue.SceneLevels;
import underbaton.core.rig.Answer;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Remarks;
import underbaton.core.rig.Speech;
import underbaton.core.rig.Standing;
import underbaton.web.kernel.Faults;
import underbaton.web.kernel.Typed;

/**
 * A phrase as it is typed.
 *
 * @param says in the device's own numbers; empty for the next place of its list
 * @param unit what a call has to say besides, in words; empty for nothing
 * @param range from where to where, {@code 0 to 5}; empty for all that the unit has
 * @param leaves of a scene: where it leaves the levels of its machine, as cells say it; empty for nobody knows
 * @param answer what the machine says when it has done it, in its numbers; empty for nothing
 * @param guarded anything when it is ticked, null when it is not
 */
public record PhraseForm(
        String name,
        String says,
        String unit,
        String range,
        String effect,
        String guarded,
        String mark,
        String note,
        String group,
        String leaves,
        String answer) {
    /** A blank that was not sent is an empty one. */
    public PhraseForm {
        name = Typed.orEmpty(name);
        says = Typed.orEmpty(says);
        unit = Typed.orEmpty(unit);
        range = Typed.orEmpty(range);
        effect = Typed.orEmpty(effect);
        mark = Typed.orEmpty(mark);
        note = Typed.orEmpty(note);
        group = Typed.orEmpty(group);
        leaves = Typed.orEmpty(leaves);
        answer = Typed.orEmpty(answer);
    }

    static PhraseForm of(Device device, Phrase phrase) {
        Argument.Unit unit = phrase.argument().map(Argument::unit).orElse(null);
        String argument = phrase.argument().map(Argument::toString).orElse("");
        return new PhraseForm(
                phrase.name(),
                device.wording().write(phrase.says()),
                unit == null || phrase.says().hasTwoStates() ? "" : unit.words(),
                unit == null ? "" : argument.substring(unit.words().length()).strip(),
                phrase.effect().toString(),
                phrase.guarded() ? "true" : null,
                phrase.remarks().mark().name(),
                phrase.remarks().note(),
                phrase.remarks().group(),
                SceneLevels.write(device, phrase.leaves()),
                phrase.answer().map(a -> a.write(device.wording())).orElse(""));
    }

    static PhraseForm fresh() {
        return new PhraseForm("", "", "", "", "holds", null, "NONE", "", "", "", "");
    }

    /**
     * @param id of the phrase that the line belongs to, 0 for a new one
     * @throws underbaton.core.rig.Refusal naming the part that cannot be read
     */
    Phrase toPhrase(Device device, int id) {
        Optional<Phrase> entry = device.phrase(id).filter(Phrase::listed);
        boolean adds = device.phrase(id).isEmpty() && device.list().isPresent() && says.isBlank();
        boolean listed = entry.isPresent() || adds;
        // The number of a new entry comes from its place when the device takes it in.
        Faults faults = new Faults();
        String called = faults.or("?", () -> Phrase.requireName(name));
        Optional<Speech> speech = faults.or(
                Optional.empty(),
                () -> Optional.of(entry.map(Phrase::says)
                        .orElseGet(() -> adds
                                ? Speech.of(device.list().orElseThrow().at(0))
                                : device.wording().read(typed(device, says)))));
        String amount = or(unit) + (or(range).isBlank() ? "" : " " + range.strip());
        Optional<Argument> argument = faults.or(
                Optional.empty(),
                () -> or(unit).isBlank() || listed ? Optional.empty() : Optional.of(Argument.of(amount)));
        Effect does = faults.or(Effect.MOMENT, () -> Effect.of(effect));
        Remarks remarks = faults.or(Remarks.NONE, () -> new Remarks(Remarks.Mark.of(or(mark)), or(note), or(group)));
        List<Standing> levels = faults.or(List.of(), () -> SceneLevels.read(device, or(leaves)));
        Optional<Answer> says =
                faults.or(Optional.empty(), () -> Answer.read(typed(device, or(answer)), device.wording()));
        return faults.all(
                () -> speech.map(s -> new Phrase(id, called, s, argument, does, guarded != null, listed, remarks)
                                .withLeaves(levels)
                                .withAnswer(says))
                        .orElse(null));
    }

    /** How a phrase reads that was written in other words, such as {@code H2} for B2; empty where they are the same. */
    String keptAs(Device device, Phrase phrase) {
        String kept = device.wording().write(phrase.says());
        boolean same = phrase.listed() || plain(kept).equals(plain(or(says)));
        return same ? "" : "“" + phrase.name() + "” is kept as: " + kept;
    }

    private static String plain(String words) {
        return words.replaceFirst("^osc ", "")
                .replaceAll("\\s+", "")
                .replace('−', '-')
                .replace('♯', '#')
                .replace('♭', 'b')
                .toLowerCase(Locale.ROOT);
    }

    private static String or(String typed) {
        return typed == null ? "" : typed;
    }

    /** At an OSC machine the word before the address may be left out. */
    private static String typed(Device device, String says) {
        boolean osc = !device.connection().carriesMidi();
        return osc && says.strip().startsWith("/") ? "osc " + says.strip() : says;
    }
}
