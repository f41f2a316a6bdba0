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

    /** Numbers left out at the beginning of a minute by drop-frame, each tenth minute apart (SMPTE ST 12-1). */
    private static final int DROPPED = 2;

    /** A quarter of a frame lasts so many thirds of a nanosecond; a whole number at each rate. */
    private static final long THIRDS = 3;

    /** Frames a second, in the order of the two rate bits. */
    public enum Rate {
        FILM_24("24", 24, 31_250_000),
        PAL_25("25", 25, 30_000_000),
        DROP_29_97("29.97", 30, 25_025_000),
        FULL_30("30", 30, 25_000_000);

        private final String words;
        private final int frames;
        private final long quarterThirds;

        Rate(String words, int frames, long quarterThirds) {
            this.words = words;
            this.frames = frames;
            this.quarterThirds = quarterThirds;
        }

        /** Frames a second as people write them: {@code 29.97}. */
        public String words() {
            return words;
        }

        /** How many frame numbers a second has, drop-frame's missing ones counted in. */
        public int frames() {
            return frames;
        }

        /** How many frames a day of the code has. */
        public long framesOfDay() {
            return 144 * framesOfTenMinutes();
        }

        private long framesOfTenMinutes() {
            return 600L * frames - (this == DROP_29_97 ? 9 * DROPPED : 0);
        }

        /** How many quarters of a frame have begun at a time, the first at 0. @param nanos 0 or above */
        public long quarters(long nanos) {
            return nanos * THIRDS / quarterThirds;
        }

        /** How long a quarter of a frame lasts, s. */
        public double quarterSeconds() {
            return quarterThirds / (THIRDS * 1e9);
        }

        /** The first nanosecond of a quarter of a frame. @param quarter 0 for the first, to those of a day */
        public long quarterNanos(long quarter) {
            return (quarter * quarterThirds + THIRDS - 1) / THIRDS;
        }
    }

    public TimeCode {
        Limits.within("hours", hours, 0, 23);
        Limits.within("minutes", minutes, 0, 59);
        Limits.within("seconds", seconds, 0, 59);
        Limits.within("frames", frames, 0, rate.frames() - 1);
    }

    /**
     * The name of a frame (SMPTE ST 12-1): with drop-frame the numbers 0 and 1 are left out at the beginning of each minute but every tenth.
     *
     * @param count of the frame since midnight; behind the end of the day it begins anew
     */
    public static TimeCode ofCount(Rate rate, long count) {
        long frame = Math.floorMod(count, rate.framesOfDay());
        long named = frame;
        if (rate == Rate.DROP_29_97) {
            long tens = frame / rate.framesOfTenMinutes();
            long within = frame % rate.framesOfTenMinutes();
            long minute = 60L * rate.frames;
            long dropped = within < minute ? 0 : 1 + (within - minute) / (minute - DROPPED);
            named += DROPPED * (9 * tens + dropped);
        }
        long seconds = named / rate.frames;
        return new TimeCode(rate, (int) (seconds / 3600), (int) (seconds / 60 % 60), (int) (seconds % 60), (int)
                (named % rate.frames));
    }

    /** The frame's count since midnight; of a number that drop-frame leaves out, that of the next one which there is. */
    public long count() {
        long minutes = hours * 60L + minutes();
        long named = (minutes * 60 + seconds) * rate.frames + frames;
        if (rate != Rate.DROP_29_97) {
            return named;
        }
        boolean leftOut = seconds == 0 && frames < DROPPED && minutes % 10 != 0;
        return named - DROPPED * (minutes - minutes / 10) + (leftOut ? DROPPED - frames : 0);
    }

    /** {@code 01:00:59:24}; with drop-frame {@code 01:00:59;28}. */
    @Override
    public String toString() {
        return "%02d:%02d:%02d%s%02d".formatted(hours, minutes, seconds, rate == Rate.DROP_29_97 ? ";" : ":", frames);
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
