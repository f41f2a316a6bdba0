package underbaton.core.engine.instep;

import java.util.Map;
import org.pcollections.HashTreePMap;
import org.pcollections.PMap;

/**
 * How far each machine was given the time. Immutable.
 *
 * @param given by device id; machines that were told nothing of it, or could not hear it, are not among them
 */
public record InStepState(PMap<Integer, Given> given) {

    public static final InStepState NOTHING = new InStepState(HashTreePMap.empty());

    /** The same with all its moments so many ns later; so a state goes on after a crash. */
    public InStepState shifted(long nanos) {
        PMap<Integer, Given> later = given;
        for (Map.Entry<Integer, Given> each : given.entrySet()) {
            later = later.plus(each.getKey(), each.getValue().shifted(nanos));
        }
        return new InStepState(later);
    }
}
