package underbaton.web.signals;

import java.util.List;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import underbaton.core.cue.HandKey;
import underbaton.core.cue.Hands;
import underbaton.core.cue.Item;
import underbaton.core.cue.Show;
import underbaton.core.midi.Message;
import underbaton.core.rig.Device;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.signal.Learning;
import underbaton.core.signal.Listener;
import underbaton.core.signal.Overlap;
import underbaton.core.signal.Reaction;
import underbaton.core.signal.Source;

/** What a listener listens for and does, in a few words. */
final class ListenerWords {

    private ListenerWords() {}

    /**
     * @param armed whether it listens tonight
     * @param stopped whether it does not since what it says came round to it
     */
    static SignalsController.Row row(Show show, Listener l, boolean armed, boolean stopped) {
        String from = l.from().isEmpty()
                ? "any machine"
                : l.from().stream()
                        .map(id -> id == Source.OTHERS
                                ? "others"
                                : show.device(id).map(Device::name).orElse("a machine that is gone"))
                        .collect(Collectors.joining(", "));
        String channel = l.channel().isEmpty()
                ? ""
                : ", channel " + Numbering.channel(l.channel().getAsInt());
        String item = l.itemId() == 0
                ? ""
                : "while " + show.item(l.itemId()).map(Item::name).orElse("an item that is gone") + " plays";
        String pause = l.pauseMs() == 0 ? "" : "pause " + l.pauseMs() + " ms";
        String when = List.of(
                        item,
                        pause,
                        l.atOnce() ? "at once" : "",
                        armed
                                ? ""
                                : stopped
                                        ? "stopped: it would hear itself; it listens again when its way is quiet"
                                        : "disarmed")
                .stream()
                .filter(w -> !w.isEmpty())
                .collect(Collectors.joining(", "));
        String also = told(show, l, o -> true);
        return new SignalsController.Row(
                l,
                armed,
                from + channel,
                l.pattern().words(SignalsController.numbering(show, l)),
                does(show, l),
                when,
                also,
                l.isRelay() ? "" : patched(show, l));
    }

    /** The other listeners that may mean the same signal, each with what it does: {@code “pedal, left” (GO)}. */
    static String others(Show show, Listener l) {
        return told(show, l, o -> !o.isRelay());
    }

    private static String told(Show show, Listener l, Predicate<Listener> which) {
        return show.listeners().stream()
                .filter(o -> o.id() != l.id() && which.test(o) && Overlap.of(o, l))
                .map(o -> "“" + o.name() + "” (" + does(show, o) + ")")
                .collect(Collectors.joining(", "));
    }

    /** A pedal that gives GO and holds the notes of a keyboard too. */
    private static String patched(Show show, Listener l) {
        List<Message> examples = Learning.examples(l.pattern(), l.channel().orElse(0));
        List<String> sets = show.devices().stream()
                .flatMap(d -> d.phrases().stream())
                .filter(p -> p.patch()
                        .filter(set -> set.kept().lines().stream()
                                .filter(line -> l.from().isEmpty() || l.from().contains(line.from()))
                                .anyMatch(line -> examples.stream().anyMatch(m -> line.carried(line.from(), m)
                                        .isPresent())))
                        .isPresent())
                .map(Phrase::name)
                .toList();
        int more = sets.size() - 1;
        return sets.isEmpty()
                ? ""
                : "passes through the patch too: " + sets.get(0)
                        + (more == 0 ? "" : more == 1 ? " and one more set" : " and " + more + " more sets");
    }

    private static String does(Show show, Listener listener) {
        Reaction reaction = listener.reaction();
        if (reaction instanceof Reaction.Give give) {
            return give.deed().words();
        }
        if (reaction instanceof Reaction.ToCue to) {
            String cue = to.cueId() == 0
                    ? "the cue whose number comes with it" + offset(to.offset())
                            + (to.table().isEmpty()
                                    ? ""
                                    : ", by a table of " + to.table().size())
                    : show.cue(to.cueId()).map(c -> "cue " + c.number()).orElse("a cue that is gone");
            return (to.fires() ? "GO " : "standby ") + cue;
        }
        if (reaction instanceof Reaction.Play play) {
            return play.itemId() == 0
                    ? "plays the item whose number comes with it" + offset(play.offset())
                    : "plays " + show.item(play.itemId()).map(Item::name).orElse("an item that is gone")
                            + (play.section().isEmpty() ? "" : " from " + play.section());
        }
        if (listener.isRelay()) {
            return RelayWords.of(show, listener);
        }
        if (reaction instanceof Reaction.Fire fire) {
            return show.device(fire.deviceId())
                    .flatMap(d -> d.phrase(fire.phraseId()).map(p -> d.name() + ": " + p.name()))
                    .orElse("a phrase that is gone");
        }
        if (reaction instanceof Reaction.Hand hand) {
            return "hand cue "
                    + Hands.key(show, hand.keyId()).map(HandKey::name).orElse("that is gone");
        }
        Reaction.Arm arm = (Reaction.Arm) reaction;
        String others = show.listeners().stream()
                .filter(l -> arm.listenerIds().contains(l.id()))
                .map(Listener::name)
                .collect(Collectors.joining(", "));
        return (arm.listens() ? "arms " : "disarms ") + (others.isEmpty() ? "a listener that is gone" : others);
    }

    private static String offset(int offset) {
        return offset == 0 ? "" : offset > 0 ? " + " + offset : " − " + -offset;
    }
}
