package underbaton.core.cue;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.StringJoiner;
import underbaton.core.rig.Amount;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Control;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Standing;
import underbaton.core.rig.Utterance;

/**
 * Where a scene leaves the faders of its machine, as a person writes it: the levels as a cell of the book says them, parted by
 * semicolons, {@code Vox 1 −6 dB; Band −∞}.
 */
public final class SceneLevels {

    private SceneLevels() {}

    /** @throws Refusal naming the part that moves no level of the machine, or moves one twice */
    public static List<Standing> read(Device device, String typed) {
        Device numbered = numbered(device);
        List<Standing> read = new ArrayList<>();
        Set<Control> said = new HashSet<>();
        for (String part : parts(typed)) {
            Standing standing = one(numbered, part);
            if (!said.add(Control.of(0, standing.open()))) {
                throw new Refusal("leaves", "“" + part + "” sets a fader that stands here already; take one out.");
            }
            read.add(standing);
        }
        return read;
    }

    /** Lines and tabs part them too, as a table is pasted. */
    private static List<String> parts(String typed) {
        return Call.parts(typed.replaceAll("[\\r\\n\\t]+", ";"));
    }

    private static Standing one(Device device, String part) {
        Call call;
        try {
            call = Call.of(device, part);
        } catch (Refusal refusal) {
            throw new Refusal("leaves", refusal.getMessage());
        }
        Phrase phrase = device.phrase(call.phraseId()).orElseThrow();
        Optional<Utterance> open =
                phrase.says().on().stream().filter(Utterance::open).findFirst();
        boolean moved = call.motion().isPresent() || call.offset().thousandths() != 0;
        if (phrase.effect().kind() != Effect.Kind.LEVELS || open.isEmpty() || moved) {
            throw new Refusal(
                    "leaves", "“" + part + "” is no level; write a phrase that moves a level with its amount alone.");
        }
        double amount = ((Amount.Measure) call.amount().orElseThrow()).value();
        double exact = phrase.argument().orElseThrow().exact(amount, device.levels());
        return new Standing(open.get().message(), Math.max(0, Math.min(127, exact)));
    }

    /** As {@link #read} takes it; what no phrase moves any more is left out. */
    public static String write(Device device, List<Standing> leaves) {
        Device numbered = numbered(device);
        StringJoiner written = new StringJoiner("; ");
        for (Standing standing : leaves) {
            Control control = Control.of(device.id(), standing.open().shiftedTo(device.channel()));
            numbered.levelling(control).filter(p -> p.argument().isPresent()).ifPresent(phrase -> {
                Argument argument = phrase.argument().orElseThrow();
                double amount = argument.amountAt(standing.exact(), device.levels());
                Call call = new Call(device.id(), phrase.id(), Optional.of(new Amount.Measure(amount)));
                written.add(call.tell(numbered));
            });
        }
        return written.toString();
    }

    /** A machine that is being read has no numbers for its phrases yet. */
    private static Device numbered(Device device) {
        List<Phrase> phrases = new ArrayList<>();
        for (Phrase phrase : device.phrases()) {
            phrases.add(phrase.withId(phrases.size() + 1));
        }
        return device.withPhrases(phrases);
    }
}
