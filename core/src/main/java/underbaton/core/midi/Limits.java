package underbaton.core.midi;

/** Refuses numbers that a wire cannot carry. */
final class Limits {

    private Limits() {}

    static int within(String what, int number, int least, int most) {
        if (number < least || number > most) {
            throw new IllegalArgumentException(what + " must be " + least + " to " + most + ", not " + number);
        }
        return number;
    }

    static int channel(int channel) {
        return within("channel", channel, 0, 15);
    }

    static int seven(String what, int number) {
        return within(what, number, 0, 127);
    }

    static int fourteen(String what, int number) {
        return within(what, number, 0, 0x3FFF);
    }
}
