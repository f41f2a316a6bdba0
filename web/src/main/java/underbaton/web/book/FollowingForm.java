package underbaton.web.book;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import underbaton.core.cue.Item;
import underbaton.core.cue.PatchBay;
import underbaton.core.cue.Show;
import underbaton.core.follow.Following;
import underbaton.core.follow.Following.Kind;
import underbaton.core.midi.TimeCode.Rate;
import underbaton.core.rig.Amount;
import underbaton.core.rig.Device;
import underbaton.core.rig.Refusal;
import underbaton.web.kernel.Typed;

/**
 * By whose time an item goes, as it is typed.
 *
 * @param machine the id of the machine; 0 for the item's own time, {@link #HAND} for a hand that taps
 * @param time the word of what that machine says; of {@link #times}
 * @param alone how long the item goes on by itself, s, as it is typed
 * @param most by how much a tapped tempo may change in a bar, per cent, as it is typed
 */
record FollowingForm(int machine, String time, String alone, String most) {

    /** Whoever taps the beat. */
    static final int HAND = -1;

    private static final String CLOCK = "clock";

    /** @param word how a form says it @param words how people do */
    record Time(String word, String words) {}

    static FollowingForm of(Item item) {
        Following is = item.follows().orElse(Following.of(0, Kind.CODE, Rate.PAL_25));
        return new FollowingForm(
                is.kind() == Kind.TAPS ? HAND : is.deviceId(),
                is.kind() == Kind.CLOCK ? CLOCK : is.rate().words(),
                Amount.plain(is.aloneMillis() / 1000.0),
                Integer.toString(is.mostPercent()));
    }

    /** What a machine may say. */
    static List<Time> times() {
        return Stream.concat(
                        Stream.of(new Time(CLOCK, Kind.CLOCK.words())),
                        Arrays.stream(Rate.values())
                                .map(r -> new Time(r.words(), Kind.CODE.words() + " at " + r.words())))
                .toList();
    }

    /** The machines that may be followed. */
    static List<Device> machines(Show show) {
        return show.devices().stream()
                .filter(d -> d.connection().carriesMidi() && !PatchBay.is(d))
                .toList();
    }

    /** @throws Refusal when it is no time, or of no machine of the rig */
    Optional<Following> read(Show show) {
        if (machine == 0) {
            return Optional.empty();
        }
        if (machine == HAND) {
            int percent = Typed.number("most", most.strip().replaceFirst(" *%$", ""));
            return Optional.of(new Following(0, Kind.TAPS, Rate.PAL_25, Following.USUAL_ALONE_MILLIS, percent));
        }
        if (show.device(machine).isEmpty()) {
            throw new Refusal("follows", "That machine is no longer in the rig; choose another one.");
        }
        Optional<Rate> rate =
                Arrays.stream(Rate.values()).filter(r -> r.words().equals(time)).findFirst();
        return Optional.of(new Following(
                machine,
                rate.isPresent() ? Kind.CODE : Kind.CLOCK,
                rate.orElse(Rate.PAL_25),
                aloneMillis(),
                Following.USUAL_PERCENT));
    }

    private int aloneMillis() {
        try {
            double seconds = Double.parseDouble(alone.strip().replace(',', '.'));
            return (int) Math.round(Math.max(-1, Math.min(seconds, Following.LONGEST_ALONE_MILLIS)) * 1000);
        } catch (NumberFormatException noNumber) {
            throw new Refusal("alone", "“" + alone.strip() + "” is no number of seconds; type 0 to 60.");
        }
    }
}
