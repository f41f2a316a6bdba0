package underbaton.core.cue;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.OptionalInt;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.core.signal.Deed;
import underbaton.core.signal.Listener;
import underbaton.core.signal.Pattern;
import underbaton.core.signal.Reaction;

class ShowTest {

    private final Show show = Shows.small();

    @Test
    void numbersAreUniqueInTheShow() {
        Cue second = new Cue(0, CueNumber.of("2"), Start.BY_HAND, "again", List.of(), 0);
        assertThatThrownBy(() -> show.withCue(Shows.item(show, "Two").id(), second))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("cue 2 already");
    }

    @Test
    void cuesStandInTheOrderOfTheirNumbers() {
        Show changed = show.withCue(
                Shows.item(show, "One").id(), new Cue(0, CueNumber.of("1.5"), Start.BY_HAND, "between", List.of(), 0));
        assertThat(changed.cues().map(c -> c.number().toString())).containsExactly("1", "1.5", "2", "10", "11");
    }

    @Test
    void aMachineThatOnlySpeaksIsToldNothingByCues() {
        Show with = Shows.device(show, "Pedals", Department.KEYS, 0);
        int pedals = with.devices().get(2).id();
        assertThat(with.told()).as("nobody knows yet what it is for").hasSize(3);
        Show heard = with.withListener(new Listener(
                0,
                "pedal",
                Set.of(pedals),
                OptionalInt.empty(),
                Pattern.Controller.pressed(67),
                new Reaction.Give(Deed.GO),
                0,
                0,
                false,
                true));
        assertThat(heard.told()).extracting(Device::name).containsExactly("Lights", "Player");
        assertThat(Shows.phrase(heard, "Lamp", "note 1", Effect.HOLDS).told())
                .as("its lamp can be lit")
                .hasSize(3);
        assertThat(heard.withoutListener(heard.listeners().get(0).id()).told()).hasSize(3);
    }

    @Test
    void takingOutAPhraseTakesItsCallsOutAndUndoBringsThemBack() {
        int device = show.devices().get(0).id();
        int phrase = show.devices().get(0).phraseNamed("amber").orElseThrow().id();
        Show without = show.withoutPhrase(device, phrase);
        assertThat(without.cuesUsing(device, phrase)).isEmpty();
        assertThat(show.cuesUsing(device, phrase)).hasSize(2);
        Show back = without.withContentOf(show);
        assertThat(back.items()).isEqualTo(show.items());
        assertThat(back.revision()).isGreaterThan(without.revision());
    }

    @Test
    void everyEditOfACueGivesItANewVersionEvenAfterUndo() {
        Cue cue = show.cueNumbered(CueNumber.of("1")).orElseThrow();
        int item = Shows.item(show, "One").id();
        Show first = show.withCue(item, cue.withWhat("mine"));
        Show second = first.withContentOf(show).withCue(item, cue.withWhat("theirs"));
        assertThat(first.cue(cue.id()).orElseThrow().version())
                .isNotEqualTo(second.cue(cue.id()).orElseThrow().version());
    }

    @Test
    void twoPhrasesOfOneDeviceCannotHaveOneName() {
        int device = show.devices().get(0).id();
        Phrase same = new Phrase(
                0, "AMBER", show.devices().get(0).phrases().get(0).says().messages(), Effect.HOLDS, false);
        assertThatThrownBy(() -> show.withPhrase(device, same)).hasMessageContaining("already");
    }

    /** 0 stands for the first place of the item. */
    @ParameterizedTest
    @CsvSource({"One,1,1.5", "One,2,6", "Two,0,6", "Two,10,10.5", "Two,11,12"})
    void aNewCueGetsANumberThatFitsWhereItStands(String item, String after, String expected) {
        int afterId = after.equals("0")
                ? 0
                : show.cueNumbered(CueNumber.of(after)).orElseThrow().id();
        assertThat(show.numberAfter(Shows.item(show, item).id(), afterId)).hasToString(expected);
    }

    @Test
    void aNewCueInAnItemOutOfNumberOrderGetsAFreeNumber() {
        Show turned = show.withItemAt(Shows.item(show, "Two").id(), 0);
        int eleven = show.cueNumbered(CueNumber.of("11")).orElseThrow().id();
        assertThat(turned.numberAfter(Shows.item(show, "Two").id(), eleven)).hasToString("12");
    }

    @Test
    void movingACueExchangesNumbersAndCrossesItemsAtTheEdge() {
        int one = show.cueNumbered(CueNumber.of("1")).orElseThrow().id();
        Show down = show.withCueMoved(one, 1);
        assertThat(down.cue(one).orElseThrow().number()).hasToString("2");
        Show over = down.withCueMoved(one, 1);
        assertThat(over.itemOf(one).orElseThrow().name()).isEqualTo("Two");
        assertThat(over.items().get(1).cues().get(0).id()).isEqualTo(one);
    }

    @Test
    void manyCuesAreExchangedAtOnceAndMayTradeTheirNumbers() {
        Cue one = show.cueNumbered(CueNumber.of("1")).orElseThrow();
        Cue two = show.cueNumbered(CueNumber.of("2")).orElseThrow();
        Show changed = show.withCuesExchanged(List.of(one.withNumber(two.number()), two.withNumber(one.number())));
        assertThat(changed.cue(one.id()).orElseThrow().number()).isEqualTo(two.number());
        assertThat(changed.cues().map(Cue::id)).startsWith(two.id(), one.id());
        assertThat(changed.revision()).isEqualTo(show.revision() + 1);
        assertThat(show.withCuesExchanged(List.of(one, two))).isSameAs(show);
        assertThatThrownBy(() -> show.withCuesExchanged(List.of(one.withNumber(CueNumber.of("11")))))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("cue 11 already");
    }

    @Test
    void whatSaysTheSameAtAnotherRevisionIsTheSame() {
        Show show = Shows.small();
        Cue cue = show.cues().findFirst().orElseThrow();
        int item = show.items().get(0).id();
        Device lights = show.devices().get(0);
        assertThat(show.withCue(item, cue)).isNotEqualTo(show);
        assertThat(show.withCue(item, cue).saysTheSameAs(show)).isTrue();
        assertThat(show.withDevice(lights).saysTheSameAs(show)).isTrue();
        assertThat(show.withCue(item, cue.withWhat("Curtain")).saysTheSameAs(show))
                .isFalse();
        assertThat(show.withDevice(lights.withTiming(9, 0)).saysTheSameAs(show)).isFalse();
        assertThat(show.withItemAt(item, 1).saysTheSameAs(show)).isFalse();
        assertThat(show.renamed("Otherwise").saysTheSameAs(show)).isFalse();
    }
}
