package underbaton.wire.near;

import static org.assertj.core.api.Assertions.assertThat;
import static underbaton.wire.Waiting.LOOPS;
import static underbaton.wire.Waiting.until;

import org.junit.jupiter.api.Test;

class NeighbourhoodTest {

    @Test
    void whoMakesItselfKnownIsFoundAndTheWordsSayWhatToDoOtherwise() throws InterruptedException {
        try (Neighbourhood desk = new Neighbourhood("Test desk 7", LOOPS, () -> {});
                Neighbourhood baton = new Neighbourhood("Test baton", LOOPS, () -> {})) {
            desk.announceUs(41_230);
            desk.announceNear("Test lamp", 41_240);
            baton.announceUs(41_250);
            desk.found();
            assertThat(baton.found().words()).isEqualTo("Looking …");
            until("found", () -> baton.found().machines().stream()
                    .anyMatch(m -> m.name().equals("Test desk 7") && m.port() == 41_230));
            until("the near one too", () -> baton.found().machines().stream()
                    .anyMatch(m -> m.name().equals("Test lamp") && m.host().equals("127.0.0.1")));
            assertThat(baton.found().machines()).noneMatch(m -> m.name().equals("Test baton"));
            until("looked about", () -> baton.found().words().contains("network"));
        }
    }
}
