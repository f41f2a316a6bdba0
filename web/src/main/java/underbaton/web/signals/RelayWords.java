package underbaton.web.signals;

import java.util.Optional;
import underbaton.core.cue.Show;
import underbaton.core.rig.Amount;
import underbaton.core.rig.Device;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.signal.Filling;
import underbaton.core.signal.Listener;
import underbaton.core.signal.Passage;
import underbaton.core.signal.Scale;

/** What a relay tells whom, in a few words. */
final class RelayWords {

    private RelayWords() {}

    /** {@code Console: Bed, 0 % to 100 %}, as a row of the page says it. */
    static String of(Show show, Listener relay) {
        Passage passage = relay.passage().orElseThrow();
        Optional<Device> told = show.device(passage.deviceId());
        if (told.isEmpty()) {
            return "a machine that is gone";
        }
        String to = told.get().name() + ": ";
        if (passage instanceof Passage.Through through) {
            String channel = through.channel().isPresent()
                    ? ", on channel " + Numbering.channel(through.channel().getAsInt())
                    : "";
            String moved = through.shift() == 0
                    ? ""
                    : through.shift() > 0 ? ", number + " + through.shift() : ", number − " + -through.shift();
            return to + "the same" + channel + moved;
        }
        Optional<Phrase> phrase =
                passage instanceof Passage.Says s ? told.get().phrase(s.phraseId()) : Optional.empty();
        if (passage instanceof Passage.Says && phrase.isEmpty()) {
            return to + "a phrase that is gone";
        }
        String says = passage instanceof Passage.Written w
                ? told.get().wording().write(w.speech())
                : phrase.orElseThrow().name();
        return to + says + filled(show, relay, passage);
    }

    private static String filled(Show show, Listener relay, Passage passage) {
        if (passage.fills() instanceof Filling.Named named) {
            return ", the name from " + named.first() + " on of "
                    + (named.listOf() == 0
                            ? named.names().size() + " written here"
                            : show.device(named.listOf())
                                    .map(d -> d.name() + "’s list")
                                    .orElse("a list that is gone"));
        }
        if (relay.scale().isEmpty()) {
            return "";
        }
        Scale s = relay.scale().get();
        RelayBlanks blanks = new RelayBlanks(show, relay, passage);
        StringBuilder words = new StringBuilder(", " + blanks.amount(s.low()) + " to " + blanks.amount(s.high()));
        words.append(s.bend() == 1 ? "" : ", bent by " + Amount.plain(s.bend()));
        words.append(s.grid() == 0 ? "" : ", in steps of " + Amount.plain(s.grid()));
        words.append(s.smoothMs() == 0 ? "" : ", over " + s.smoothMs() + " ms");
        s.second().ifPresent(x -> words.append(x.gates() ? ", while control " : ", times control ")
                .append(x.controller())
                .append(x.gates() ? " is down" : ""));
        words.append(
                s.meeting() == Scale.Meeting.LATEST ? "" : ", " + s.meeting().words());
        return words.toString();
    }
}
