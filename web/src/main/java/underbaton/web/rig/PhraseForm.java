package underbaton.web.rig;

import java.util.Optional;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Remarks;
import underbaton.core.rig.Speech;
import underbaton.core.rig.SpeechWording;

/**
 * A phrase as it is typed.
 *
 * @param says in the device's own numbers; empty for the next place of its list
 * @param unit what a call has to say besides, in words; empty for nothing
 * @param range from where to where, {@code 0 to 5}; empty for all that the unit has
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
        String group) {

    static PhraseForm of(Device device, Phrase phrase) {
        Argument.Unit unit = phrase.argument().map(Argument::unit).orElse(null);
        String argument = phrase.argument().map(Argument::toString).orElse("");
        return new PhraseForm(
                phrase.name(),
                new SpeechWording(device.numbering()).write(phrase.says()),
                unit == null || phrase.says().hasTwoStates() ? "" : unit.words(),
                unit == null ? "" : argument.substring(unit.words().length()).strip(),
                phrase.effect().toString(),
                phrase.guarded() ? "true" : null,
                phrase.remarks().mark().name(),
                phrase.remarks().note(),
                phrase.remarks().group());
    }

    static PhraseForm fresh() {
        return new PhraseForm("", "", "", "", "holds", null, "NONE", "", "");
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
        Speech speech = entry.map(Phrase::says)
                .orElseGet(() -> adds
                        ? Speech.of(device.list().orElseThrow().at(0))
                        : new SpeechWording(device.numbering()).read(typed(device)));
        String argument = or(unit) + (or(range).isBlank() ? "" : " " + range.strip());
        return new Phrase(
                id,
                name,
                speech,
                or(unit).isBlank() || listed ? Optional.empty() : Optional.of(Argument.of(argument)),
                Effect.of(effect),
                guarded != null,
                listed,
                new Remarks(Remarks.Mark.of(or(mark)), or(note), or(group)));
    }

    private static String or(String typed) {
        return typed == null ? "" : typed;
    }

    /** At an OSC machine the word before the address may be left out. */
    private String typed(Device device) {
        boolean osc = !device.connection().carriesMidi();
        return osc && says.strip().startsWith("/") ? "osc " + says.strip() : says;
    }
}
