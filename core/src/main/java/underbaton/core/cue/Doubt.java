package underbaton.core.cue;

import java.util.List;
import java.util.Optional;
import underbaton.core.rig.Amount;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Device;
import underbaton.core.rig.PatchSet;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Wiring;

/** What of a cue cannot be meant as it is written; it is kept, and told. */
public final class Doubt {

    private Doubt() {}

    /** @return in words, what is doubtful in what a machine gets at a cue; empty when all is well */
    public static Optional<String> of(Cue cue, Device device) {
        List<Call> calls = cue.callsFor(device.id());
        return words(calls, device)
                .or(() -> misfit(calls, device))
                .or(() -> leftOut(calls, device))
                .or(() -> bothWays(calls, device))
                .or(() -> beforeGo(cue, calls))
                .or(() -> patchSet(calls, device));
    }

    /** What was pasted from elsewhere, and is no phrase here. */
    private static Optional<String> words(List<Call> calls, Device device) {
        return calls.stream()
                .filter(Call::isWords)
                .findFirst()
                .map(c -> device.name() + " has no phrase “" + c.tell(device) + "”: nothing is sent until it has, or"
                        + " another is written here");
    }

    /** Whether a call can still be made as it was written. */
    public static boolean fits(Call call, Device device, Phrase phrase) {
        return misfit(call, device, phrase).isEmpty();
    }

    private static Optional<String> misfit(Call call, Device device, Phrase phrase) {
        return device.misfit(phrase, call.amount()).or(() -> immovable(phrase, call, device));
    }

    /** What was written for another unit, or for a wider range. */
    private static Optional<String> misfit(List<Call> calls, Device device) {
        return calls.stream()
                .flatMap(c -> device.phrase(c.phraseId()).flatMap(p -> misfit(c, device, p)).stream())
                .findFirst()
                .map(words -> words + ": nothing is sent until it is written anew");
    }

    private static Optional<String> immovable(Phrase phrase, Call call, Device device) {
        if (call.motion().isEmpty()) {
            return Optional.empty();
        }
        Optional<Argument> argument = phrase.argument().filter(Argument::moves);
        boolean fits = argument.isPresent()
                && (!(call.motion().get() instanceof Motion.Move move)
                        || move.points().stream()
                                .allMatch(p -> argument.get().takes(new Amount.Measure(p.amount()), device.levels())));
        return fits ? Optional.empty() : Optional.of("“" + phrase.name() + "” cannot move so any more");
    }

    /** A phrase that is no longer in the machine's own list, and whose number calls another by now. */
    private static Optional<String> leftOut(List<Call> calls, Device device) {
        return calls.stream()
                .flatMap(c -> device.phrase(c.phraseId()).stream())
                .flatMap(p -> device.nowMeant(p).stream())
                .findFirst()
                .map(p -> "no longer in the machine's list: its number calls “" + p.name() + "” by now");
    }

    /** Both halves of an on and off in the same moment. */
    private static Optional<String> bothWays(List<Call> calls, Device device) {
        for (int i = 0; i < calls.size(); i++) {
            for (Call other : calls.subList(i + 1, calls.size())) {
                if (isOtherHalf(calls.get(i), other, device)) {
                    return device.phrase(other.phraseId())
                            .map(p -> "“" + p.name() + "” is switched on and off in the same moment");
                }
            }
        }
        return Optional.empty();
    }

    private static boolean isOtherHalf(Call one, Call other, Device device) {
        boolean switches = device.phrase(one.phraseId())
                .filter(p -> p.says().hasTwoStates())
                .isPresent();
        return switches
                && one.phraseId() == other.phraseId()
                && one.offset().equals(other.offset())
                && !one.amount().equals(other.amount());
    }

    /** A set that carries nothing, or another thing than is seen on the page Patch. */
    private static Optional<String> patchSet(List<Call> calls, Device device) {
        for (Call call : calls) {
            Phrase phrase = device.phrase(call.phraseId()).orElse(null);
            PatchSet set = phrase == null ? null : phrase.patch().orElse(null);
            if (set != null && set.draft().isPresent()) {
                return Optional.of("“" + phrase.name() + "” has been edited and not kept: it is loaded as it was kept");
            }
            if (set != null && set.kept().equals(Wiring.NONE)) {
                return Optional.of("“" + phrase.name() + "” has no lines: nothing that is played goes anywhere");
            }
        }
        return Optional.empty();
    }

    private static Optional<String> beforeGo(Cue cue, List<Call> calls) {
        return calls.stream()
                .map(Call::offset)
                .filter(o -> o.thousandths() < 0 && cue.start().equals(Start.BY_HAND))
                .findFirst()
                .map(o -> o + " lies before GO, which nobody knows beforehand: it comes at GO");
    }
}
