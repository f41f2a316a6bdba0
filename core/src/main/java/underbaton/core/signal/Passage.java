package underbaton.core.signal;

import java.util.OptionalInt;
import java.util.function.IntUnaryOperator;
import java.util.stream.IntStream;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Speech;

/** What a relay makes of a signal, and for whom. */
public sealed interface Passage {

    /** The machine that is told. */
    int deviceId();

    /** A phrase of its phrasebook. */
    record Says(int deviceId, int phraseId, Filling filling) implements Passage {}

    /**
     * Messages that no phrase says.
     *
     * @param speech its channels count from the machine's own, as a phrase's do; its blank is the value of a MIDI message or the
     *     last argument of an OSC message
     */
    record Written(int deviceId, Speech speech, Filling filling) implements Passage {

        public Written {
            if (speech.hasTwoStates()) {
                throw new Refusal("says", "A relay says one thing; leave out the bar and what stands behind it.");
            }
            boolean filled = !(filling instanceof Filling.Nothing);
            if (filled != speech.isOpen()) {
                throw new Refusal(
                        "says",
                        filled
                                ? "Write a question mark where the amount or the name goes, such as: control 7 to ?"
                                : "Say what goes into the blank: a scaled number, or a name of a list.");
            }
            if (filling instanceof Filling.Scaled scaled
                    && (scaled.scale().smoothMs() > 0 || scaled.scale().meeting() != Scale.Meeting.LATEST)) {
                throw new Refusal(
                        "meeting",
                        "Only a phrase of the phrasebook can be smoothed, or meet what the book moves; make one for it.");
            }
        }
    }

    /**
     * The very message, perhaps on another channel and with another number.
     *
     * @param channel 0–15; empty for the one on which it came
     * @param shift added to the note, controller or program, −127 to 127; what leaves 0–127 is not passed on
     */
    record Through(int deviceId, OptionalInt channel, int shift) implements Passage {

        public Through {
            if (channel.isPresent() && (channel.getAsInt() < 0 || channel.getAsInt() > 15)) {
                throw new Refusal(
                        "toChannel", "A MIDI channel is 1 to 16; leave it empty for the one on which it came.");
            }
            if (Math.abs(shift) > 127) {
                throw new Refusal("shift", "A number is shifted by −127 to 127.");
            }
        }
    }

    /** The same with the ids of its show's parts exchanged; 0 stays 0. */
    default Passage pointing(IntUnaryOperator ids) {
        if (this instanceof Says says) {
            return new Says(ids.applyAsInt(says.deviceId), ids.applyAsInt(says.phraseId), says.filling.pointing(ids));
        }
        if (this instanceof Written written) {
            return new Written(ids.applyAsInt(written.deviceId), written.speech, written.filling.pointing(ids));
        }
        Through through = (Through) this;
        return new Through(ids.applyAsInt(through.deviceId), through.channel, through.shift);
    }

    /** All ids of the show's parts that it points to. */
    default IntStream pointsTo() {
        IntStream own =
                this instanceof Says says ? IntStream.of(says.deviceId, says.phraseId) : IntStream.of(deviceId());
        return IntStream.concat(own, fills().pointsTo());
    }

    /** What fills its blank. */
    default Filling fills() {
        return this instanceof Says says
                ? says.filling
                : this instanceof Written written ? written.filling : new Filling.Nothing();
    }
}
