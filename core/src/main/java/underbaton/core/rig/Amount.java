package underbaton.core.rig;

import java.math.BigDecimal;
import java.math.RoundingMode;

/** What a call puts into its phrase's blank. */
public sealed interface Amount {

    /** @param value in the unit of the phrase's argument; −∞ for silence */
    record Measure(double value) implements Amount {}

    /** @param text sent as it stands */
    record Text(String text) implements Amount {
        public Text {
            text = Refusal.requireShort("text", text, 200);
        }
    }

    /** What was once written, whatever its unit was. */
    static String asItWas(Amount amount) {
        return amount instanceof Text text ? "“" + text.text() + "”" : plain(((Measure) amount).value());
    }

    /** A number as people write it: {@code −10}, {@code −∞}, {@code 2.5}. */
    static String plain(double number) {
        if (Double.isInfinite(number)) {
            return number < 0 ? "−∞" : "∞";
        }
        String digits = BigDecimal.valueOf(number)
                .setScale(3, RoundingMode.HALF_UP)
                .stripTrailingZeros()
                .toPlainString();
        return digits.replace('-', '−');
    }
}
