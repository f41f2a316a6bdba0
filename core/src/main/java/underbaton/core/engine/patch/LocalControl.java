package underbaton.core.engine.patch;

import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import underbaton.core.engine.device.LevelsNow;
import underbaton.core.engine.out.Cause;
import underbaton.core.engine.out.Outgoing;
import underbaton.core.engine.out.StepContext;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.Controllers;
import underbaton.core.plan.Level;
import underbaton.core.rig.Control;
import underbaton.core.rig.Device;
import underbaton.core.rig.Wiring;

/** Whether keyboards play their own sounds, or only through us (MIDI 1.0, controller 122). */
public final class LocalControl {

    private static final int ON = 127;

    private LocalControl() {}

    /** Keyboards of which any set speaks play their own sounds, or only through us. */
    static void set(StepContext step, Wiring wiring, LevelsNow levels, Outgoing out, Cause why) {
        Set<Integer> spokenOf = new TreeSet<>(wiring.localOff());
        step.plan().patchSets().forEach(s -> spokenOf.addAll(s.kept().localOff()));
        for (int id : spokenOf) {
            Device keyboard = step.plan().device(id).orElse(null);
            if (keyboard == null) {
                continue;
            }
            int value = wiring.localOff().contains(id) ? 0 : ON;
            ControlChange says = new ControlChange(keyboard.channel(), Controllers.LOCAL_CONTROL, value);
            Control control = of(keyboard);
            Level known = levels.get(control);
            if (known == null || known.value() != value) {
                out.emit(id, says, why);
                levels.put(control, new Level(value, says, Optional.empty(), keyboard.levels(), false));
            }
        }
    }

    /** Whether a keyboard plays its own sounds, as a control of it (MIDI 1.0, controller 122). */
    public static Control of(Device keyboard) {
        return Control.of(keyboard.id(), new ControlChange(keyboard.channel(), Controllers.LOCAL_CONTROL, 0));
    }
}
