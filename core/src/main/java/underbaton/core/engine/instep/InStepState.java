package underbaton.core.engine.instep;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.pcollections.HashTreePMap;
import org.pcollections.PMap;
import underbaton.core.midi.TimeCode.Rate;
import underbaton.core.rig.Device;

/**
 * How far each machine was given the time. Immutable.
 *
 * @param given by device id; machines that were told nothing of it, or could not hear it, are not among them
 */
public record InStepState(PMap<Integer, Given> given) {

    public static final InStepState NOTHING = new InStepState(HashTreePMap.empty());

    /**
     * The time code of the item that plays: at a position of the music, ns, the frame {@code first + rate.quarters(position + ahead) / 4} of
     * the day.
     *
     * @param first the count of the item's first frame in the day
     * @param aheadNanos how much further it is than the music
     */
    public record Code(Rate rate, long first, long aheadNanos) {}

    /** What a machine was told; empty where it gets no code, or nothing plays. */
    public Optional<Code> codeOf(int deviceId) {
        Given has = given.get(deviceId);
        boolean told = has != null
                && has.itemId() != 0
                && (has.how().code() || has.how().transport());
        return told
                ? Optional.of(new Code(
                        has.how().rate(), has.frames().first(), has.frames().aheadNanos()))
                : Optional.empty();
    }

    /** After a crash nobody knows what these machines were told last: each is stopped as soon as it hears. */
    public static InStepState unknown(List<Device> machines) {
        PMap<Integer, Given> unknown = HashTreePMap.empty();
        for (Device machine : machines) {
            unknown = unknown.plus(machine.id(), Given.unknown(machine.inStep().orElseThrow()));
        }
        return new InStepState(unknown);
    }

    /** The same with all its moments so many ns later; so a state goes on after a crash. */
    public InStepState shifted(long nanos) {
        PMap<Integer, Given> later = given;
        for (Map.Entry<Integer, Given> each : given.entrySet()) {
            later = later.plus(each.getKey(), each.getValue().shifted(nanos));
        }
        return new InStepState(later);
    }
}
