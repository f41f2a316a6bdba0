package underbaton.core.ltc;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import underbaton.core.midi.TimeCode;
import underbaton.core.midi.TimeCode.Rate;

/** Our Linear Time Code as libltc reads it, a library of others (Debian's libltc); it is built where a compiler is there. */
class LtcSoundTest {

    private static final int USER_BITS = 0x20261202;
    private static final int SECONDS = 12;

    @TempDir
    static Path folder;

    private static boolean built;

    @BeforeAll
    static void build() throws IOException, InterruptedException {
        try {
            built = new ProcessBuilder("gcc", "-O2", "-o", reader(), "src/test/c/readltc.c", "-lltc")
                            .redirectErrorStream(true)
                            .redirectOutput(folder.resolve("gcc.log").toFile())
                            .start()
                            .waitFor()
                    == 0;
        } catch (IOException noCompiler) {
            built = false;
        }
        if (!built) {
            assertThat(System.getProperty("baton.ltc"))
                    .as("./baton test installs libltc and a compiler")
                    .isNull();
            System.out.println("ltc: libltc or a compiler is not here, so nobody else reads what we write");
        }
    }

    private static String reader() {
        return folder.resolve("readltc").toString();
    }

    /** @param at the sample at which it begins */
    private record Read(String code, long at, boolean reverse, int userBits) {
        static Read of(String line) {
            String[] parts = line.split(" ");
            return new Read(
                    parts[0], Long.parseLong(parts[1]), !parts[2].equals("0"), Integer.parseUnsignedInt(parts[3], 16));
        }
    }

    /** @param noise of white noise beside it, of full scale */
    private static List<Read> read(LtcSound sound, int seconds, int samplesAFrame, double noise) throws Exception {
        assumeTrue(built, "libltc is not here");
        Path output = folder.resolve("read.txt");
        Process process = new ProcessBuilder(reader(), Integer.toString(samplesAFrame))
                .redirectOutput(output.toFile())
                .start();
        Random random = new Random(1);
        try (OutputStream to = new BufferedOutputStream(process.getOutputStream(), 1 << 16)) {
            for (int i = 0; i < seconds * LtcSound.SAMPLE_RATE; i++) {
                double with = noise > 0 ? noise * Short.MAX_VALUE * random.nextGaussian() : 0;
                int sample = (int) Math.max(-32768, Math.min(32767, sound.next() + with));
                to.write(sample);
                to.write(sample >> 8);
            }
        }
        assertThat(process.waitFor()).isZero();
        return Files.readAllLines(output).stream().map(Read::of).toList();
    }

    private static void isRight(List<Read> read, Rate rate, long first, double samplesAFrame, int seconds) {
        int whole = (int) (seconds * LtcSound.SAMPLE_RATE / samplesAFrame);
        assertThat(read).hasSizeBetween(whole - 3, whole);
        long missing = whole - read.size();
        for (int i = 0; i < read.size(); i++) {
            Read frame = read.get(i);
            // What leads in is not always heard; from there on none is missing.
            long number = Math.round(frame.at() / samplesAFrame);
            assertThat(frame.code())
                    .isEqualTo(TimeCode.ofCount(rate, first + number).toString());
            assertThat(number).isBetween((long) i, i + missing);
            assertThat(frame.at() - number * samplesAFrame).isCloseTo(0, within(4.0));
            assertThat(frame.reverse()).isFalse();
            assertThat(frame.userBits()).isEqualTo(USER_BITS);
        }
    }

    static Stream<Arguments> lines() {
        return Stream.of(Rate.values())
                .flatMap(rate -> Stream.of(
                        Arguments.of(rate, 0.0, 1.0, 0.0),
                        Arguments.of(rate, -18.0, 0.5, 0.0),
                        Arguments.of(rate, -18.0, 2.0, 0.0),
                        Arguments.of(rate, -30.0, 1.0, 0.0),
                        // Noise 20 dB below the code.
                        Arguments.of(rate, -6.0, 1.0, 0.05)));
    }

    /** Over the turn of a minute in which drop-frame leaves numbers out. */
    @ParameterizedTest
    @MethodSource("lines")
    void anotherLibraryReadsEachFrame(Rate rate, double decibels, double speed, double noise) throws Exception {
        long first = new TimeCode(rate, 9, 58, 50, 0).count();
        double samples = LtcSound.SAMPLE_RATE * 4 * rate.quarterSeconds() / speed;
        LtcSound sound = new LtcSound(rate, first, USER_BITS, decibels, speed);
        isRight(read(sound, SECONDS, (int) Math.round(samples), noise), rate, first, samples, SECONDS);
    }

    /** The sync word and the digits as SMPTE ST 12-1 has them, written down from memory. */
    @Test
    void aFrameHasItsDigitsLowBitFirst() {
        StringBuilder words = new StringBuilder();
        var bits = new LtcFrame(new TimeCode(Rate.PAL_25, 12, 34, 56, 17), 0).bits();
        for (int i = 0; i < LtcFrame.BITS; i++) {
            words.append(bits.get(i) ? 1 : 0).append(i % 4 == 3 ? " " : "");
        }
        // Units and tens of frames, seconds, minutes, hours, a group of user bits behind each; bit 59 makes the ones
        // even.
        assertThat(words.toString().strip())
                .isEqualTo("1110 0000 1000 0000 0110 0000 1010 0000 0010 0000 1100 0000 0100 0000 1000 0000"
                        + " 0011 1111 1111 1101");
        assertThat(bits.cardinality() % 2).isZero();
    }

    @Test
    void eachFrameBeginsWithTheSamePolarity() {
        for (Rate rate : Rate.values()) {
            for (long count = 0; count < 5000; count += 7) {
                assertThat(new LtcFrame(TimeCode.ofCount(rate, count), USER_BITS)
                                        .bits()
                                        .cardinality()
                                % 2)
                        .isZero();
            }
        }
    }
}
