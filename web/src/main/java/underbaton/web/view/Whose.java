package underbaton.web.view;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedCue;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;

/**
 * What a view is of: a department, one machine of it, or one thing that this machine can be told, such as a camera of a switcher.
 *
 * @param phrase only where a machine is meant
 */
record Whose(Department department, Optional<Device> device, Optional<Phrase> phrase) {

    List<Device> devices(Plan plan) {
        return plan.devices().stream()
                .filter(d -> device.map(one -> one.id() == d.id()).orElse(d.department() == department))
                .toList();
    }

    /** How it is called. */
    String title() {
        return phrase.map(Phrase::name).or(() -> device.map(Device::name)).orElse(department.title());
    }

    private boolean isMeant(PlannedCall call) {
        return phrase.map(p -> p.id() == call.phraseId()).orElse(true);
    }

    /** What a cue says to these machines; with their names where there are several of them. */
    String words(PlannedCue cue, Plan plan) {
        List<Device> devices = devices(plan);
        return devices.stream()
                .map(d -> {
                    String said = cue.calls().stream()
                            .filter(c -> c.deviceId() == d.id() && isMeant(c))
                            .map(PlannedCall::phrase)
                            .collect(Collectors.joining(" + "));
                    return said.isEmpty() || devices.size() == 1 ? said : d.name() + ": " + said;
                })
                .filter(s -> !s.isEmpty())
                .collect(Collectors.joining(", "));
    }
}
