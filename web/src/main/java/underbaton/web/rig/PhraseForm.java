package underbaton.web.rig;

import java.util.List;
import java.util.Locale;
import underbaton.core.midi.Message;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Wording;

/**
 * A line of the phrasebook as it is typed.
 *
 * @param says in the device's own numbers; empty for the next place of its list
 * @param guarded anything when it is ticked, null when it is not
 */
public record PhraseForm(String name, String says, String effect, String guarded) {

    /**
     * @param id of the phrase that the line belongs to, 0 for a new one
     * @throws underbaton.core.rig.Refusal naming the part that cannot be read
     */
    Phrase toPhrase(Device device, int id) {
        boolean listed =
                device.phrase(id).map(Phrase::listed).orElse(device.list().isPresent() && says.isBlank());
        // The number of a listed phrase comes from its place when the device takes it in.
        List<Message> messages = listed
                ? List.of(device.list().orElseThrow().at(0))
                : new Wording(device.numbering()).read(typed(device));
        Effect does = Effect.valueOf(effect.toUpperCase(Locale.ROOT));
        return new Phrase(id, name, messages, does, guarded != null, listed);
    }

    /** At an OSC machine the word before the address may be left out. */
    private String typed(Device device) {
        boolean osc = device.connection() instanceof Connection.Osc;
        return osc && says.strip().startsWith("/") ? "osc " + says.strip() : says;
    }
}
