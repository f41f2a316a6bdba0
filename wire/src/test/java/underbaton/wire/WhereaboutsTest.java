package underbaton.wire;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.UnknownHostException;
import org.junit.jupiter.api.Test;

/** Where a host is by now. */
class WhereaboutsTest {

    private InetAddress[] answer = {};

    private InetAddress[] names(String host) throws UnknownHostException {
        if (answer.length == 0) {
            throw new UnknownHostException(host);
        }
        return answer;
    }

    private static InetAddress at(int last) {
        try {
            return InetAddress.getByAddress(new byte[] {(byte) 192, 0, 2, (byte) last});
        } catch (UnknownHostException never) {
            throw new AssertionError(never);
        }
    }

    @Test
    void each_address_of_a_name_has_its_turn_and_one_that_moved_is_found() {
        Whereabouts where = new Whereabouts("console.local", 9000, this::names);
        assertThat(where.next()).isEmpty();
        answer = new InetAddress[] {at(1), at(2)};
        assertThat(where.next()).contains(new InetSocketAddress(at(1), 9000));
        assertThat(where.next()).contains(new InetSocketAddress(at(2), 9000));
        assertThat(where.hasSeveral()).isTrue();
        assertThat(where.isStillAt(new InetSocketAddress(at(2), 9000))).isTrue();
        answer = new InetAddress[] {at(3)};
        assertThat(where.isStillAt(new InetSocketAddress(at(2), 9000))).isFalse();
        assertThat(where.next()).contains(new InetSocketAddress(at(3), 9000));
    }

    @Test
    void where_it_was_stands_while_nobody_answers() {
        Whereabouts where = new Whereabouts("console.local", 9000, this::names);
        answer = new InetAddress[] {at(1)};
        where.next();
        answer = new InetAddress[] {};
        assertThat(where.isStillAt(new InetSocketAddress(at(1), 9000))).isTrue();
        assertThat(where.next()).contains(new InetSocketAddress(at(1), 9000));
    }

    @Test
    void numbers_are_not_looked_up() {
        assertThat(new Whereabouts("192.0.2.1", 1, this::names).isNumber()).isTrue();
        assertThat(new Whereabouts("fe80::1%eth0", 1, this::names).isNumber()).isTrue();
        assertThat(new Whereabouts("cafe.local", 1, this::names).isNumber()).isFalse();
    }
}
