package underbaton.web.signals;

import java.util.List;
import java.util.stream.Collectors;
import underbaton.core.cue.HandKey;
import underbaton.core.cue.Hands;
import underbaton.core.cue.Item;
import underbaton.core.cue.Show;
import underbaton.core.rig.Device;
import underbaton.core.rig.Numbering;
import underbaton.core.signal.Listener;
import underbaton.core.signal.Reaction;
import underbaton.core.signal.Source;

/** What a listener listens for and does, in a few words. */
final class ListenerWords {

    private ListenerWords() {}

    /** @param armed whether it listens tonight */
    static SignalsController.Row row(Show show, Listener l, boolean armed) {
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
        String when = List.of(item, pause, l.atOnce() ? "at once" : "", armed ? "" : "disarmed").stream()
                .filter(w -> !w.isEmpty())
                .collect(Collectors.joining(", "));
        String also = l.isRelay() ? "" : others(show, l);
        return new SignalsController.Row(
                l,
                armed,
                from + channel,
                l.pattern().words(SignalsController.numbering(show, l)),
                does(show, l),
                when,
                also);
    }

    /** The names of other listeners that mean the same; a relay beside them does no harm. */
    static String others(Show show, Listener l) {
        return show.listeners().stream()
                .filter(o -> o.id() != l.id() && !o.isRelay() && meansTheSame(o, l))
                .map(Listener::name)
                .collect(Collectors.joining(", "));
    }

    /** Bound twice: the same pattern where sources and channels may both be meant. */
    private static boolean meansTheSame(Listener one, Listener other) {
        boolean sources = one.from().isEmpty()
                || other.from().isEmpty()
                || one.from().stream().anyMatch(other.from()::contains);
        boolean channels = one.channel().isEmpty()
                || other.channel().isEmpty()
                || one.channel().equals(other.channel());
        return sources && channels && one.pattern().equals(other.pattern());
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
