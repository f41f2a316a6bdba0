package underbaton.core.rig;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

class NumberingTest {

    private static final Numbering FROM_ONE = new Numbering(1, 1, -1);

    /** Common practice: to recall scene 10 with a sender that counts programs from 0, send 9; for 11 send 10. */
    @Test
    void sceneTenIsProgramNine() {
        assertThat(FROM_ONE.wireProgram("10")).isEqualTo(9);
        assertThat(Numbering.WIRE.program(FROM_ONE.wireProgram("11"))).isEqualTo("10");
    }

    /** Common practice: a desk that prints 1–128 must be set to 8 to reach a listener that prints 7 in 0–127. */
    @Test
    void eightOnOneDeskIsSevenOnAnother() {
        assertThat(Numbering.WIRE.program(FROM_ONE.wireProgram("8"))).isEqualTo("7");
    }

    /** Common practice; middle C being note 60 is from memory of the MIDI 1.0 Detailed Specification. */
    @ParameterizedTest
    @CsvSource({
        "-2,4,E−2",
        "-2,6,F♯−2",
        "-2,11,B−2",
        "-2,60,C3",
        "-1,60,C4",
        "0,60,C5",
        "0,127,G10",
        "-2,28,E0",
        "-2,127,G8"
    })
    void notesAreCalledByTheMachinesOwnOctaves(int firstOctave, int wire, String name) {
        Numbering numbering = new Numbering(0, 0, firstOctave);
        assertThat(numbering.note(wire)).isEqualTo(name);
        assertThat(numbering.wireNote(name)).isEqualTo(wire);
    }

    /** Common practice: a D♯−2 under the C−2 name is shown as D♯0 by a machine that calls note 0 C0. */
    @Test
    void theSameNoteHasAnotherNameOnAnotherMachine() {
        int wire = new Numbering(0, 0, -2).wireNote("D#-2");
        assertThat(new Numbering(0, 0, 0).note(wire)).isEqualTo("D♯0");
    }

    static Stream<Numbering> everyConvention() {
        return IntStream.of(0, 1).boxed().flatMap(first -> IntStream.of(0, 5, 8, 32, 100, 128)
                .boxed()
                .flatMap(bank -> Stream.of(Numbering.Values.values())
                        .flatMap(values -> IntStream.rangeClosed(-2, 0).boxed().flatMap(octave -> Stream.of(true, false)
                                .map(flats -> new Numbering(first, bank, values, octave, flats, first))))));
    }

    @ParameterizedTest
    @MethodSource("everyConvention")
    void allNumbersComeBackInEveryConvention(Numbering numbering) {
        for (int wire = 0; wire < 128; wire++) {
            assertThat(numbering.wireProgram(numbering.program(wire))).isEqualTo(wire);
            assertThat(numbering.wireValue(numbering.value(wire))).isEqualTo(wire);
            assertThat(numbering.wireNote(numbering.note(wire))).isEqualTo(wire);
            assertThat(numbering.placeFrom(numbering.place(wire))).isEqualTo(wire);
        }
    }

    /** Common practice: some apps print values 1–128 where the wire has 0–127. */
    @Test
    void valuesArePrintedInThreeWays() {
        assertThat(FROM_ONE.value(127)).isEqualTo("128");
        Numbering perCent = FROM_ONE.withValues(Numbering.Values.PER_CENT);
        assertThat(perCent.value(0)).isEqualTo("0 %");
        assertThat(perCent.value(127)).isEqualTo("100 %");
        assertThat(perCent.value(64)).isEqualTo("50 %");
        assertThat(perCent.value(63)).isEqualTo("49.6 %");
        assertThat(perCent.wireValue("50")).isEqualTo(64);
        assertThatThrownBy(() -> perCent.wireValue("101 %")).hasMessageContaining("0 to 100 %");
    }

    @Test
    void banksHaveLettersAndAnySize() {
        Numbering eights = FROM_ONE.withBankSize(8);
        assertThat(eights.program(14)).isEqualTo("B07");
        assertThat(eights.wireProgram("b7")).isEqualTo(14);
        assertThat(FROM_ONE.withBankSize(100).program(106)).isEqualTo("B007");
        assertThatThrownBy(() -> eights.wireProgram("B09")).hasMessageContaining("A01 to P08, 8 to a letter");
        assertThatThrownBy(() -> eights.wireProgram("12")).isInstanceOf(Refusal.class);
    }

    /** Common practice: the twelfth entry of a list that starts at the lowest note is B−2 (number 11). */
    @Test
    void theTwelfthEntryOfAListIsTheTwelfthNote() {
        Numbering numbering = new Numbering(0, 0, -2);
        assertThat(numbering.placeFrom(12)).isEqualTo(11);
        assertThat(numbering.note(numbering.placeFrom(12))).isEqualTo("B−2");
        assertThat(numbering.withFirstPlace(0).place(11)).isEqualTo(11);
    }

    @ParameterizedTest
    @CsvSource({
        "e♭3,63", "Eb3,63", "d#3,63", "60,60", " c-2 ,0", "cb-1,11", "Fis3,66", "es3,63", "As3,68", "H2,59", "Des-2,1"
    })
    void notesAreReadAsPeopleTypeThem(String typed, int wire) {
        assertThat(Numbering.WIRE.wireNote(typed)).isEqualTo(wire);
    }

    @Test
    void whatTheMachineCannotPrintIsRefusedInItsOwnNumbers() {
        assertThatThrownBy(() -> FROM_ONE.wireProgram("0"))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("1 to 128");
        assertThatThrownBy(() -> FROM_ONE.wireValue("129")).hasMessageContaining("129");
        assertThatThrownBy(() -> Numbering.WIRE.wireNote("K2")).hasMessageContaining("K2");
        assertThatThrownBy(() -> Numbering.WIRE.wireNote("Fis")).hasMessageContaining("names no octave");
        assertThatThrownBy(() -> Numbering.WIRE.wireNote("A8")).hasMessageContaining("C−2 to G8");
    }
}
