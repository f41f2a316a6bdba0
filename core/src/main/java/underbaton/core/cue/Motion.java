package underbaton.core.cue;

import java.util.List;

/** How a control is moved to, or about, the amount that its call names. */
public sealed interface Motion {

    /**
     * From where the control stands to the amount.
     *
     * @param lasts above 0
     * @param points for {@link Shape#POINTS} the amounts on the way, in rising order of their places
     * @param thenPhraseId a phrase of the same device that is called at the end; 0 for none
     */
    record Move(Span lasts, Shape shape, List<Point> points, int thenPhraseId) implements Motion {
        public Move {
            points = List.copyOf(points);
        }
    }

    /**
     * To and fro about the amount.
     *
     * @param depth how far to each side, in the unit of the amount
     * @param period of one whole wave
     * @param least nothing below it is sent; −∞ for no bound
     * @param most nothing above it is sent; +∞ for no bound
     * @param lasts after which the control rests at the amount; zero for until the next call of it
     */
    record Wave(Form form, double depth, Span period, double least, double most, Span lasts) implements Motion {}

    /**
     * A point that a move passes.
     *
     * @param place 0–1 of the duration
     * @param amount in the unit of the phrase
     */
    record Point(double place, double amount) {}

    /** The way from one amount to another. */
    enum Shape {
        /** Even in the unit of the amount: a level in decibels moves so many decibels a second. */
        STRAIGHT(""),
        /** Even in the values that are sent. */
        BY_VALUE("by value"),
        /** Slow, fast, slow: half a cosine in the unit of the amount. */
        S_CURVE("S-curve"),
        /** Even in power: two of them crossing keep the loudness. */
        EQUAL_POWER("equal power"),
        POINTS("through");

        private final String words;

        Shape(String words) {
            this.words = words;
        }

        /** As it is typed. */
        public String words() {
            return words;
        }
    }

    /** The form of a wave; each begins at the amount itself, going up, but the square, which begins above. */
    enum Form {
        SINE("sine"),
        TRIANGLE("triangle"),
        SQUARE("square"),
        SAW("saw");

        private final String words;

        Form(String words) {
            this.words = words;
        }

        /** As it is typed. */
        public String words() {
            return words;
        }

        /**
         * @param turns how many periods have passed, 0 or above
         * @return −1 to 1
         */
        public double at(double turns) {
            double part = turns - Math.floor(turns);
            return switch (this) {
                case SINE -> Math.sin(2 * Math.PI * part);
                case TRIANGLE -> part < 0.25 ? 4 * part : part < 0.75 ? 2 - 4 * part : 4 * part - 4;
                case SQUARE -> part < 0.5 ? 1 : -1;
                case SAW -> part < 0.5 ? 2 * part : 2 * part - 2;
            };
        }
    }
}
