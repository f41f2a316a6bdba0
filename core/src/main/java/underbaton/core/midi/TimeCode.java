package underbaton.core.midi;

/**
 * A time-code position as MIDI Time Code carries it (RP-004/008), the rate folded into the hours byte: {@code 0rrhhhhh}.
 *
 * @param hours 0–23
 * @param minutes 0–59
 * @param seconds 0–59
 * @param frames 0 to one less than the rate's count
 */
public record TimeCode(Rate rate, int hours, int minutes, int seconds, int frames) {

    /** Frames a second, in the order of the two rate bits. */
    public enum Rate {
        FILM_24(24),
        PAL_25(25),
        DROP_29_97(30),
        FULL_30(30);

        private final int frames;

        Rate(int frames) {
            this.frames = frames;
        }

        /** How many frame numbers a second has, drop-frame's missing ones counted in. */
        public int frames() {
            return frames;
        }
    }

    public TimeCode {
        Limits.within("hours", hours, 0, 23);
        Limits.within("minutes", minutes, 0, 59);
        Limits.within("seconds", seconds, 0, 59);
        Limits.within("frames", frames, 0, rate.frames() - 1);
    }

    Bytes encode() {
        return Bytes.of(rate.ordinal() << 5 | hours, minutes, seconds, frames);
    }

    /**
     * @param four hours with rate, minutes, seconds, frames
     * @throws IllegalArgumentException when they are no position
     */
    static TimeCode decode(Bytes four) {
        Rate rate = Rate.values()[four.at(0) >> 5 & 3];
        return new TimeCode(rate, four.at(0) & 0x1F, four.at(1), four.at(2), four.at(3));
    }
}
