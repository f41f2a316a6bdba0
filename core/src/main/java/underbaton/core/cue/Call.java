package underbaton.core.cue;

import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import underbaton.core.rig.Amount;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;

/**
 * One instruction inside a cue.
 *
 * @param deviceId the device that gets it
 * @param phraseId one of that device's phrases
 * @param amount what fills the phrase's blank, if it has one
 */
public record Call(int deviceId, int phraseId, Optional<Amount> amount) {

    public Call(int deviceId, int phraseId) {
        this(deviceId, phraseId, Optional.empty());
    }

    public boolean names(int device, int phrase) {
        return deviceId == device && phraseId == phrase;
    }

    /**
     * Reads a call as it is typed: a phrase's name, and behind it the amount where it takes one, {@code Vox 1 -10 dB},
     * with or without an arrow between. An unfinished name will do where it can mean one phrase only.
     *
     * @throws Refusal when no phrase is meant, or the amount is missing or wrong
     */
    public static Call of(Device device, String part) {
        String[] parted = part.split("→", 2);
        String name = parted[0].strip();
        String typed = parted.length > 1 ? parted[1].strip() : "";
        Optional<Phrase> found = device.phraseNamed(name);
        if (found.isEmpty() && typed.isEmpty()) {
            found = longestBefore(device, name);
            typed = found.map(p -> name.substring(p.name().length()).strip()).orElse("");
        }
        Phrase phrase = found.orElseGet(() -> theOneMeant(device, name));
        if (phrase.argument().isEmpty() && !typed.isEmpty()) {
            throw new Refusal("cell", "“" + phrase.name() + "” takes no amount; write its name alone.");
        }
        String amount = typed;
        return new Call(
                device.id(),
                phrase.id(),
                phrase.argument().map(a -> a.read(amount, device.numbering(), device.levels())));
    }

    /** The phrase with an argument whose name begins the text; the longest where several do. */
    private static Optional<Phrase> longestBefore(Device device, String text) {
        String lower = text.toLowerCase(Locale.ROOT) + " ";
        return device.phrases().stream()
                .filter(p -> p.argument().isPresent())
                .filter(p -> lower.startsWith(p.name().toLowerCase(Locale.ROOT) + " "))
                .max(Comparator.comparingInt(p -> p.name().length()));
    }

    /** The only phrase that an unfinished name can mean. */
    private static Phrase theOneMeant(Device device, String name) {
        String wanted = name.toLowerCase(Locale.ROOT);
        List<Phrase> close = device.phrases().stream()
                .filter(p -> p.name().toLowerCase(Locale.ROOT).contains(wanted))
                .sorted(Comparator.comparing(
                        p -> p.name().toLowerCase(Locale.ROOT).indexOf(wanted)))
                .toList();
        if (close.size() == 1) {
            return close.get(0);
        }
        String way = close.isEmpty()
                ? "Write it into the machine's phrasebook on the page Rig, or pick another."
                : "Did you mean “" + close.get(0).name() + "” or “"
                        + close.get(1).name() + "”?";
        throw new Refusal("cell", device.name() + " has no phrase “" + name + "”. " + way);
    }
}
