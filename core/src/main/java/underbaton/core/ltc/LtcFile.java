package underbaton.core.ltc;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import javax.sound.sampled.AudioFileFormat;
import javax.sound.sampled.AudioInputStream;
import javax.sound.sampled.AudioSystem;

/** Time code as a WAV file, for a playback machine to send. */
public final class LtcFile {

    private LtcFile() {}

    /**
     * Writes as it is made, so that a file of hours takes no room here.
     *
     * @param seconds how long it lasts, above 0
     * @throws IOException when the stream takes no more
     */
    public static void write(LtcSound sound, int seconds, OutputStream to) throws IOException {
        long samples = (long) seconds * LtcSound.SAMPLE_RATE;
        try (AudioInputStream made = new AudioInputStream(new Samples(sound), LtcSound.FORMAT, samples)) {
            AudioSystem.write(made, AudioFileFormat.Type.WAVE, to);
        }
    }

    /** The bytes of the samples, without an end. */
    private static final class Samples extends InputStream {

        private final LtcSound sound;
        private int high = -1;

        Samples(LtcSound sound) {
            this.sound = sound;
        }

        @Override
        public int read() {
            if (high >= 0) {
                int last = high;
                high = -1;
                return last;
            }
            short sample = sound.next();
            high = sample >> 8 & 0xFF;
            return sample & 0xFF;
        }

        @Override
        public int read(byte[] into, int offset, int length) {
            for (int i = 0; i < length; i++) {
                into[offset + i] = (byte) read();
            }
            return length;
        }
    }
}
