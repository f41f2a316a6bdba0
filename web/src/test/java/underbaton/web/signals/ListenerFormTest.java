package underbaton.web.signals;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import org.junit.jupiter.api.Test;
import underbaton.core.cue.Show;
import underbaton.core.signal.Condition;
import underbaton.core.signal.Condition.Relation;
import underbaton.core.signal.Deed;
import underbaton.core.signal.Listener;
import underbaton.core.signal.Pattern;
import underbaton.core.signal.Reaction;

/** A listener that is looked at and kept is what it was. */
class ListenerFormTest {

    private static Listener listener(Pattern pattern) {
        return new Listener(
                7, "Layout", Set.of(), OptionalInt.empty(), pattern, new Reaction.Give(Deed.GO), 250, 0, true, true);
    }

    @Test
    void allConditionsOnAnOscMessageStay() {
        Show show = Show.empty(1, "Form");
        List<Condition> conditions = List.of(
                new Condition(1, Relation.AT_LEAST, "0.5"),
                new Condition(0, Relation.IS, "song, verse"),
                new Condition(3, Relation.IS_NOT, "off"));
        for (int many = 0; many <= conditions.size(); many++) {
            Listener there = listener(new Pattern.Osc("/layout/*", conditions.subList(0, many)));
            assertThat(ListenerForm.of(show, Optional.of(there), false).toListener(show))
                    .isEqualTo(there);
        }
    }
}
