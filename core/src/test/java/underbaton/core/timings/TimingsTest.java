package underbaton.core.timings;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.OptionalLong;
import org.junit.jupiter.api.Test;
import underbaton.core.timings.Timings.Planned;

/** How long the items of a run lasted, worked out by hand. */
class TimingsTest {

    private static final long SECOND = 1_000_000;
    private static final List<Planned> ORDER = List.of(
            new Planned(1, "Opening", 120, true),
            new Planned(2, "Talk", 0, true),
            new Planned(3, "Song", 200, true),
            new Planned(4, "Film", 60, false),
            new Planned(5, "Close", 30, true));

    private static Moment begins(int item, long second) {
        return new Moment(second * SECOND, Moment.Kind.ITEM, item, 0, -1, "an item");
    }

    @Test
    void nothingPlayedIsNothingOverAndEndsAfterAllThatIsPlanned() {
        Timings timings = Timings.of(ORDER, List.of(), OptionalLong.empty(), 1000 * SECOND);
        assertThat(timings.rows()).isEmpty();
        assertThat(timings.overMicros()).isZero();
        // 120 + 200 + 30; the film is out tonight.
        assertThat(timings.endsAt()).hasValue(1350 * SECOND);
    }

    @Test
    void anItemLastsUntilTheNextOneBegins() {
        List<Moment> run =
                List.of(begins(1, 0), Moment.of(5 * SECOND, Moment.Kind.ORDER, "GO"), begins(2, 130), begins(3, 400));
        Timings timings = Timings.of(ORDER, run, OptionalLong.empty(), 450 * SECOND);
        assertThat(timings.rows())
                .extracting(Timings.Row::lastedMicros)
                .containsExactly(130 * SECOND, 270 * SECOND, 50 * SECOND);
        // The opening is 10 s over; the talk has no plan; the song is not over its plan yet.
        assertThat(timings.overMicros()).isEqualTo(10 * SECOND);
        // 150 s of the song are left, and the close.
        assertThat(timings.endsAt()).hasValue(630 * SECOND);
    }

    @Test
    void anItemThatGoesOnBeyondItsPlanIsOverAlready() {
        Timings timings = Timings.of(ORDER, List.of(begins(3, 0)), OptionalLong.empty(), 220 * SECOND);
        assertThat(timings.overMicros()).isEqualTo(20 * SECOND);
        assertThat(timings.endsAt()).hasValue(250 * SECOND);
    }

    @Test
    void aRunThatIsOverIsUnderWhereItWasQuickAndEndsNoMore() {
        Timings timings =
                Timings.of(ORDER, List.of(begins(3, 0), begins(5, 190)), OptionalLong.of(230 * SECOND), 9999 * SECOND);
        assertThat(timings.rows())
                .extracting(r -> r.overMicros().orElseThrow())
                .containsExactly(-10 * SECOND, 10 * SECOND);
        assertThat(timings.overMicros()).isZero();
        assertThat(timings.endsAt()).isEmpty();
    }

    @Test
    void anItemThatIsBegunAgainHasGoneOn() {
        List<Moment> run = List.of(begins(1, 0), begins(1, 60), begins(3, 150), begins(1, 200));
        Timings timings = Timings.of(ORDER, run, OptionalLong.of(300 * SECOND), 0);
        assertThat(timings.rows())
                .extracting(Timings.Row::lastedMicros)
                .containsExactly(150 * SECOND, 50 * SECOND, 100 * SECOND);
    }

    @Test
    void whatWasPlayedOutOfItsOrderIsNotCountedAgain() {
        Timings timings = Timings.of(ORDER, List.of(begins(5, 0), begins(1, 40)), OptionalLong.empty(), 50 * SECOND);
        // 110 s of the opening, and the song; the close was played.
        assertThat(timings.endsAt()).hasValue(360 * SECOND);
    }

    @Test
    void anItemThatIsNoLongerInTheBookKeepsTheNameItHad() {
        Timings timings = Timings.of(ORDER, List.of(begins(9, 0)), OptionalLong.of(10 * SECOND), 0);
        assertThat(timings.rows().get(0).item().name()).isEqualTo("an item");
        assertThat(timings.rows().get(0).overMicros()).isEmpty();
    }
}
