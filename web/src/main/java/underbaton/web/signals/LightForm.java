package underbaton.web.signals;

import java.util.Optional;
import underbaton.core.cue.Show;
import underbaton.core.rig.Device;
import underbaton.core.rig.Refusal;
import underbaton.core.signal.Listener;
import underbaton.core.signal.PadLight;
import underbaton.web.kernel.Typed;

/**
 * The blanks of a listener's light: ids of a machine and of phrases of it.
 *
 * @param lightOf the pad or surface; empty or 0 for no light
 * @param lightOn the phrase for a state; empty or 0 for none
 */
public record LightForm(String lightOf, String lightOn, String lightOff, String lightAsks, String lightStandby) {

    static LightForm of(Optional<Listener> listener) {
        return listener.flatMap(Listener::light)
                .map(l -> new LightForm(
                        Integer.toString(l.deviceId()),
                        Integer.toString(l.on()),
                        Integer.toString(l.off()),
                        Integer.toString(l.asks()),
                        Integer.toString(l.standby())))
                .orElseGet(() -> of(0));
    }

    static LightForm of(int deviceId) {
        return new LightForm(Integer.toString(deviceId), "", "", "", "");
    }

    /** Its machine, whose phrases are offered. */
    Optional<Device> machine(Show show) {
        return show.device(number("lightOf", lightOf));
    }

    /** @throws Refusal where a machine is chosen and nothing of it, or what is gone */
    Optional<PadLight> light(Show show) {
        int deviceId = number("lightOf", lightOf);
        if (deviceId == 0) {
            return Optional.empty();
        }
        Device device = machine(show)
                .orElseThrow(() -> new Refusal("light", "The machine of the light is gone; choose another."));
        return Optional.of(new PadLight(
                deviceId,
                phrase(device, lightOn),
                phrase(device, lightOff),
                phrase(device, lightAsks),
                phrase(device, lightStandby)));
    }

    private static int phrase(Device device, String typed) {
        int id = number("light", typed);
        if (id != 0 && device.phrase(id).isEmpty()) {
            throw new Refusal("light", "A phrase of " + device.name() + " is gone; choose another for the light.");
        }
        return id;
    }

    private static int number(String field, String typed) {
        return typed == null || typed.isBlank() ? 0 : Typed.number(field, typed);
    }
}
