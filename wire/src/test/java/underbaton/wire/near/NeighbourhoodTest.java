package underbaton.wire.near;

import static org.assertj.core.api.Assertions.assertThat;
import static underbaton.wire.Waiting.DAEMONS;
import static underbaton.wire.Waiting.until;

import org.junit.jupiter.api.Test;

class NeighbourhoodTest {

    @Test
    void whoMakesItselfKnownIsFoundAndTheWordsSayWhatToDoOtherwise() throws InterruptedException {
        try (Neighbourhood desk = new Neighbourhood(DAEMONS, () -> {});
                Neighbourhood baton = new Neighbourhood(DAEMONS, () -> {})) {
            desk.announce("Test desk 7", 41_230);
            desk.found();
            assertThat(baton.found().words()).isEqualTo("Looking …");
            until("found", () -> baton.found().machines().stream()
                    .anyMatch(m -> m.name().equals("Test desk 7") && m.port() == 41_230));
            assertThat(baton.found().words()).isNotEmpty();
        }
    }
}
