package underbaton.core.engine.catchup;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import underbaton.core.engine.move.Move;
import underbaton.core.engine.patch.LocalControl;
import underbaton.core.plan.Level;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Amount;
import underbaton.core.rig.Control;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Speech.Timed;

/**
 * What it takes to bring the controls of one machine to where the book has them, on their way as it has them.
 *
 * @param has how the machine is when all that is held on it is right
 */
record LevelDifference(Device device, DeviceSnapshot wants, DeviceSnapshot has) {

    /** @return nothing where the control is right */
    Optional<Correction> of(Control control, Level want) {
        Level now = has.levels().get(control);
        Move wantsMove = ofUse(wants.moves().get(control));
        Move hasMove = ofUse(has.moves().get(control));
        boolean heldSo = want.partOfSlot() && (now == null || now.partOfSlot());
        boolean right = wantsMove != null
                ? hasMove != null && goesAlong(hasMove, wantsMove)
                : hasMove == null && (heldSo || now != null && now.isAlso(want));
        if (right) {
            return Optional.empty();
        }
        Correction.Key key = new Correction.Key(device.id(), Correction.Kind.LEVEL, control.address());
        Optional<Phrase> phrase = device.levelling(control);
        boolean local = control.equals(LocalControl.of(device));
        String name = phrase.map(Phrase::name).orElse(local ? "local control" : control.address());
        boolean guarded = phrase.filter(Phrase::guarded).isPresent();
        String said = now == null ? "" : words(name, now);
        if (wantsMove != null) {
            Level rest = wantsMove.restsAt();
            String words =
                    words(name, want) + (wantsMove.isEndless() ? ", in a wave" : ", on its way to " + words("", rest));
            return Optional.of(new Correction(key, said, words, List.of(), Optional.of(wantsMove), guarded));
        }
        List<PlannedCall> calls = List.of(setting(control, name, want));
        return Optional.of(new Correction(key, said, words(name, want), calls, Optional.empty(), guarded));
    }

    /** A move of which nothing more will be heard is none. */
    private static Move ofUse(Move move) {
        boolean over = move != null
                && !move.isEndless()
                && move.next().isEmpty()
                && move.motion().then().isEmpty();
        return over ? null : move;
    }

    /** The same move, begun at the same moment or nearly. */
    private static boolean goesAlong(Move one, Move other) {
        return one.motion().equals(other.motion()) && Math.abs(one.began() - other.began()) < 1_000_000;
    }

    private String words(String name, Level level) {
        String amount = level.argument()
                .map(a -> a.write(new Amount.Measure(a.amountAt(level.exact(), level.levels())), device.numbering()))
                .orElse(Integer.toString(level.value()));
        return (name + " " + amount).strip();
    }

    private PlannedCall setting(Control control, String name, Level level) {
        return new PlannedCall(
                device.id(),
                0,
                words(name, level),
                Effect.LEVELS,
                List.of(new Timed(0, level.message())),
                Optional.empty(),
                Map.of(control, level),
                0,
                0,
                0);
    }
}
