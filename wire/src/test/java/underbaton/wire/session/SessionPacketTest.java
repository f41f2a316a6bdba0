package underbaton.wire.session;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.ByteBuffer;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import underbaton.core.midi.Bytes;

/** The session protocol's packets, their layout from memory of its published description. */
class SessionPacketTest {

    @Test
    void anInvitationIsLaidOutAsDescribed() {
        SessionPacket in = new SessionPacket.Invitation(0x01020304, 0x0A0B0C0D, "Hi");
        assertThat(Bytes.copyOf(in.encode().array()).hex())
                .isEqualTo("FF FF 49 4E 00 00 00 02 01 02 03 04 0A 0B 0C 0D 48 69 00");
        assertThat(SessionPacket.decode(in.encode())).contains(in);
    }

    @Test
    void clockSyncCarriesThreeTimes() {
        SessionPacket sync = new SessionPacket.Sync(7, 2, 100, 200, 1L << 40);
        assertThat(sync.encode().remaining()).isEqualTo(36);
        assertThat(SessionPacket.decode(sync.encode())).contains(sync);
    }

    @Test
    void theOthersComeBackToo() {
        for (SessionPacket packet : new SessionPacket[] {
            new SessionPacket.Acceptance(1, 2, "Grüße"),
            new SessionPacket.Rejection(1, 2),
            new SessionPacket.Goodbye(1, 2),
            new SessionPacket.Feedback(2, 65_535)
        }) {
            assertThat(SessionPacket.decode(packet.encode())).contains(packet);
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"FF FF 49 4E 00 00 00 03 00 00 00 01 00 00 00 02", "FF FF 58 58", "FF FF 43 4B 00", "00"})
    void anythingElseIsNoPacket(String hex) {
        assertThat(SessionPacket.decode(ByteBuffer.wrap(Bytes.ofHex(hex).toArray())))
                .isEmpty();
    }

    @Test
    void noiseIsNeverThrown() {
        Random random = new Random(9);
        for (int i = 0; i < 20_000; i++) {
            byte[] noise = new byte[4 + random.nextInt(60)];
            random.nextBytes(noise);
            noise[0] = noise[1] = (byte) 0xFF;
            SessionPacket.decode(ByteBuffer.wrap(noise));
            RtpHeader.get(ByteBuffer.wrap(noise));
        }
    }
}
