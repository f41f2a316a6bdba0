package underbaton.core.rig;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

/** The flag takes two places, U+1F6A9. */
class CutTest {

    private static final String FLAG = "\uD83D\uDEA9";

    @Test
    void noCharacterIsCutInHalf() {
        String text = "a".repeat(98) + FLAG;
        assertThat(Cut.to(100, text)).isEqualTo(text);
        assertThat(Cut.to(99, text)).isEqualTo("a".repeat(98));
        assertThat(Cut.to(0, FLAG)).isEmpty();
        assertThat(Cut.to(1, FLAG)).isEmpty();
    }

    @Test
    void whatIsCutIsShownAndWhatComesBehindHasRoom() {
        assertThat(Cut.shown(5, "Lantern")).isEqualTo("Lant…");
        assertThat(Cut.shown(7, "Lantern")).isEqualTo("Lantern");
        assertThat(Cut.shown(5, "The lamp")).as("no blank before the sign").isEqualTo("The…");
        String name = "a".repeat(97) + FLAG + "b";
        assertThat(Cut.before(100, name, " 2")).hasSize(99).endsWith("a 2");
        assertThat(Cut.before(100, "Far away", " 2")).isEqualTo("Far away 2");
    }
}
