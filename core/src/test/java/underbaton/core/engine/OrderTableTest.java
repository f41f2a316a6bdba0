package underbaton.core.engine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import org.junit.jupiter.api.Test;
import underbaton.core.signal.Deed;

class OrderTableTest {

    @Test
    void each_order_has_a_row() {
        assertThat(Orders.known()).containsExactlyInAnyOrder(Order.class.getPermittedSubclasses());
    }

    @Test
    void each_deed_of_a_listener_is_another_order() {
        assertThat(Arrays.stream(Deed.values()).map(Order::of))
                .doesNotHaveDuplicates()
                .hasSize(Deed.values().length);
    }
}
