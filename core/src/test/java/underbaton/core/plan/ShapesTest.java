package underbaton.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.OptionalDouble;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import underbaton.core.engine.PartsOnPaper;

/** Where a fade from 0 to 100 % in a second is on its way. The S is half a period of a cosine; its values are those of any table of sines. */
class ShapesTest {

    private final PartsOnPaper parts = new PartsOnPaper();

    @ParameterizedTest
    @CsvSource({
        "'', 250, 25", "'', 500, 50", "'', 750, 75",
        "', S-curve', 250, 14.645", "', S-curve', 500, 50", "', S-curve', 750, 85.355",
        "', S-curve', 0, 0", "', S-curve', 1000, 100",
    })
    void a_fade_goes_its_way(String shape, long ms, double percent) {
        FadeCurve curve = parts.call("Console", "Bed 100 % in 1 s" + shape)
                .motion()
                .orElseThrow()
                .from(OptionalDouble.of(0));
        assertThat(curve.exactAt(ms * 1_000_000)).isCloseTo(percent * 1.27, within(0.01));
    }
}
