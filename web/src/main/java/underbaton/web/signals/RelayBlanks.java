package underbaton.web.signals;

import java.util.Optional;
import underbaton.core.cue.Show;
import underbaton.core.midi.ChannelMessage.PitchBend;
import underbaton.core.midi.Message;
import underbaton.core.midi.OscMessage;
import underbaton.core.rig.Amount;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Device;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Utterance;
import underbaton.core.signal.Listener;
import underbaton.core.signal.Passage;
import underbaton.core.signal.Pattern;

/** The ends of both ranges of a relay, in the printing of the machine that speaks and of the one that is told. */
final class RelayBlanks {

    private final Pattern pattern;
    private final Numbering sender;
    private final Optional<Device> told;
    private final Optional<Argument> argument;
    private final Optional<Message> open;

    RelayBlanks(Show show, Listener listener, Passage passage) {
        pattern = listener.pattern();
        sender = SignalsController.numbering(show, listener);
        told = show.device(passage.deviceId());
        Optional<Phrase> phrase =
                passage instanceof Passage.Says says ? told.flatMap(d -> d.phrase(says.phraseId())) : Optional.empty();
        if (passage instanceof Passage.Says && phrase.isEmpty()) {
            throw new Refusal("says", "That phrase is gone; choose another.");
        }
        argument = phrase.flatMap(Phrase::argument);
        open = passage instanceof Passage.Written written
                ? written.speech().on().stream()
                        .filter(Utterance::open)
                        .findFirst()
                        .map(Utterance::message)
                : Optional.empty();
    }

    Optional<Argument> argument() {
        return argument;
    }

    private boolean isController() {
        return pattern instanceof Pattern.Controller;
    }

    double lowestNumber() {
        return pattern instanceof Pattern.Bend ? -PitchBend.CENTRE : pattern instanceof Pattern.Program ? 1 : 0;
    }

    double highestNumber(boolean fine) {
        if (pattern instanceof Pattern.Osc) {
            return 1;
        }
        return pattern instanceof Pattern.Bend ? PitchBend.CENTRE - 1 : isController() && fine ? 16_383 : 127;
    }

    double number(String field, String typed, boolean fine) {
        return isController() && !fine ? sender.wireValue(typed) : RelayForm.decimal(field, typed);
    }

    String number(double number, boolean fine) {
        return isController() && !fine ? sender.value((int) number) : Amount.plain(number);
    }

    double lowestAmount() {
        return argument.map(a -> a.unit() == Argument.Unit.DECIBELS
                        ? Math.max(a.least(), told.orElseThrow().levels().lowest())
                        : a.least())
                .orElse(open.orElse(null) instanceof PitchBend ? -PitchBend.CENTRE : 0.0);
    }

    double highestAmount() {
        if (argument.isPresent()) {
            Argument a = argument.get();
            return a.unit() == Argument.Unit.DECIBELS
                    ? Math.min(a.most(), told.orElseThrow().levels().highest())
                    : a.most();
        }
        Message message = open.orElse(null);
        return message instanceof PitchBend ? PitchBend.CENTRE - 1 : message instanceof OscMessage ? 1 : 127;
    }

    private boolean isMidiValue() {
        return open.isPresent() && !(open.get() instanceof OscMessage) && !(open.get() instanceof PitchBend);
    }

    double amount(String field, String typed) {
        if (argument.filter(a -> a.unit() != Argument.Unit.TEXT).isPresent()) {
            Device device = told.orElseThrow();
            return ((Amount.Measure) argument.get().read(typed, device.numbering(), device.levels())).value();
        }
        return isMidiValue() ? told.orElseThrow().numbering().wireValue(typed) : RelayForm.decimal(field, typed);
    }

    String amount(double amount) {
        if (argument.filter(a -> a.unit() != Argument.Unit.TEXT).isPresent()) {
            return argument.get()
                    .write(new Amount.Measure(amount), told.orElseThrow().numbering());
        }
        return isMidiValue() ? told.orElseThrow().numbering().value((int) amount) : Amount.plain(amount);
    }
}
