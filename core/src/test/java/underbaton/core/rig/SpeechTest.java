package underbaton.core.rig;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.OscMessage;
import underbaton.core.rig.Speech.Timed;

/** What phrases say, with gaps, lengths, blanks and two states; and what a call's amount makes of it. */
class SpeechTest {

    private static final Numbering NUMBERING = new Numbering(1, 0, -2);
    private static final SpeechWording WORDING = new SpeechWording(NUMBERING);

    private static Device console(Phrase phrase) {
        boolean osc = phrase.says().messages().get(0) instanceof OscMessage;
        Connection connection =
                osc ? new Connection.Osc("localhost", 9000, "") : new Connection.NetworkMidi("localhost", 5004);
        return new Device(1, "Console", Department.SOUND, connection, 4, NUMBERING, 0, List.of())
                .withLevels(Levels.of("-∞=0, -40=20, -10=80, 0=100, 10=127", Numbering.WIRE))
                .withPhrase(phrase);
    }

    private static Phrase phrase(String says, String argument) {
        Optional<Argument> takes = argument == null ? Optional.empty() : Optional.of(Argument.of(argument));
        return new Phrase(2, "It", WORDING.read(says), takes, Effect.LEVELS, false, false, Remarks.NONE);
    }

    private static List<Timed> call(String says, String argument, String amount) {
        Phrase phrase = phrase(says, argument);
        Device device = console(phrase);
        Optional<Amount> given = phrase.argument().map(a -> a.read(amount, NUMBERING, device.levels()));
        return device.messagesFor(phrase, given);
    }

    private static String bytes(List<Timed> timed) {
        return timed.stream()
                .map(t -> t.atMs() + ": " + ((MidiMessage) t.message()).encode().hex())
                .collect(Collectors.joining(", "));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "note E0 for 200 ms",
                "program 10; after 50 ms control 7 to 100 on channel +1",
                "control 0 to ?",
                "note E0 at ?",
                "osc /fader/1 ?",
                "bend ?; pressure ?",
                "control 0 to 127 on channel +1 | control 0 to 0 on channel +1"
            })
    void whatIsReadIsWrittenTheSame(String says) {
        assertThat(WORDING.write(WORDING.read(says))).isEqualTo(says);
    }

    /** A console on channel 5 is told on 6; one on channel 16 goes on at 1. */
    @ParameterizedTest
    @CsvSource({
        "4,control 0 to 127 on channel 6,+1",
        "15,note E0 on channel 2 for 200 ms,+2",
        "4,program 10 on channel 4,+15"
    })
    void anotherChannelIsWrittenAsPeopleSayIt(int first, String says, String above) {
        SpeechWording wording = new SpeechWording(NUMBERING, first);
        String relative = says.replaceAll("channel \\d+", "channel " + above);
        assertThat(wording.write(wording.read(says))).isEqualTo(says);
        assertThat(wording.read(relative)).isEqualTo(wording.read(says));
        assertThat(WORDING.write(wording.read(says))).isEqualTo(relative);
    }

    @Test
    void gapsAndEndsOfNotesHaveTheirTimes() {
        assertThat(bytes(call("note E0 for 200 ms; after 50 ms program 10; after 10 ms note F0", null, "")))
                .isEqualTo("0: 94 1C 7F, 50: C4 09, 60: 94 1D 7F, 200: 84 1C 00");
    }

    @Test
    void onAndOffAreTwoStatesOfOnePhrase() {
        String mute = "control 3 to 127 | control 3 to 0";
        assertThat(bytes(call(mute, null, "on"))).isEqualTo("0: B4 03 7F");
        assertThat(bytes(call(mute, null, "off"))).isEqualTo("0: B4 03 00");
    }

    /** Table of the console above; pan 0 left and 127 right, and mute at 127 and 0, are common practice. */
    @ParameterizedTest
    @CsvSource({
        "decibels, -10 dB, 50",
        "decibels, −10, 50",
        "decibels, -oo dB, 00",
        "decibels, 5 dB, 72",
        "value, 100, 64",
        "value 10 to 100, 10, 0A",
        "per cent, 100 %, 7F",
        "pan, L100, 00",
        "pan, C, 40",
        "pan, 100 R, 7F",
        "seconds 0 to 5, 2.5 s, 40",
        "on or off, on, 7F"
    })
    void theAmountFillsTheBlank(String argument, String amount, String hex) {
        assertThat(bytes(call("control 0 to ?", argument, amount))).isEqualTo("0: B4 00 " + hex);
    }

    @ParameterizedTest
    @CsvSource({"value, 100", "per cent, 80 %", "decibels, −10 dB", "pan, L30", "pan, C", "seconds, 2.5 s"})
    void amountsAreWrittenAsTheyAreRead(String argument, String amount) {
        Argument takes = Argument.of(argument);
        assertThat(takes.write(takes.read(amount, NUMBERING, Levels.PUBLISHED), NUMBERING))
                .isEqualTo(amount);
        assertThat(Argument.of(takes.toString())).isEqualTo(takes);
    }

    @Test
    void oscGetsTypedAmounts() {
        assertThat(call("osc /title ?", "text", "The toll").get(0).message())
                .isEqualTo(new OscMessage("/title", List.of("The toll")));
        assertThat(call("osc /fader 3 ?", "per cent", "50 %").get(0).message())
                .isEqualTo(new OscMessage("/fader", List.of(3, 0.5f)));
        assertThat(call("osc /cam ?", "value", "3").get(0).message()).isEqualTo(new OscMessage("/cam", List.of(3)));
    }

    @ParameterizedTest
    @CsvSource({
        "decibels, 20 dB, This scale reaches from −∞ dB to 10 dB",
        "decibels, loud, write for example: -10 dB",
        "decibels, -50, no points",
        "value 10 to 100, 9, This runs from 10 to 100",
        "pan, L101, outside it",
        "value, 128, 0 to 127"
    })
    void anAmountThatIsNoneIsRefused(String argument, String amount, String words) {
        assertThatThrownBy(() -> call("control 0 to ?", argument, amount))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining(words);
    }

    @Test
    void aBlankAndAnArgumentBelongTogether() {
        assertThat(phrase("control 0 to ?", null).argument()).contains(Argument.in(Argument.Unit.VALUE));
        assertThatThrownBy(() -> phrase("control 0 to 5", "decibels")).hasMessageContaining("question mark");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "note E0 for 999999 ms",
                "control 7 to 1 for 20 ms",
                "note E0 | ",
                "note 1 | note 2 | note 3",
                "after 99999 ms note E0",
                "sysex 7D ?",
                "note ?",
                " "
            })
    void whatCannotBeSaidIsRefused(String says) {
        assertThatThrownBy(() -> WORDING.read(says)).isInstanceOf(Refusal.class);
    }

    @ParameterizedTest
    @CsvSource({
        "holds",
        "holds reel",
        "moment",
        "starts film for 4:37",
        "starts",
        "stops film",
        "steps",
        "steps by −1",
        "steps page by +2",
        "sets page to 3",
        "levels Vox 1"
    })
    void effectsAreWrittenAsTheyAreRead(String words) {
        assertThat(Effect.of(words)).hasToString(words);
    }

    @Test
    void anEffectThatIsNoneIsRefused() {
        assertThatThrownBy(() -> Effect.of("explodes")).hasMessageContaining("begin with holds");
        assertThatThrownBy(() -> Effect.of("sets page")).hasMessageContaining("to which place");
        assertThatThrownBy(() -> Effect.of("steps by 0")).isInstanceOf(Refusal.class);
        assertThat(Effect.of("steps -1").amount()).isEqualTo(-1);
        assertThat(Effect.of("starts for 95 s").amount()).isEqualTo(95);
    }
}
