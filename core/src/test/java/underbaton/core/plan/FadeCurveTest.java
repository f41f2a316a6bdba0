package underbaton.core.plan;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import underbaton.core.cue.Motion;
import underbaton.core.cue.Span;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.Message;
import underbaton.core.midi.OscMessage;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Control;
import underbaton.core.rig.Levels;
import underbaton.core.rig.Numbering;

/** Which messages a fade or a wave sends, and when. */
class FadeCurveTest {

    private static final long MS = 1_000_000;
    private static final Levels LEVELS = Levels.of("−∞=0, −60=10, −20=50, −10=80, 0=100, 10=127", Numbering.WIRE);
    private static final Message FADER = new ControlChange(0, 7, 0);
    private static final Message FLOAT = new OscMessage("/fader", List.of(0f));

    private static PlannedMotion motion(Motion how, String unit, Message open, double target, long lasts, long period) {
        return new PlannedMotion(
                new Control(1, "fader"), how, Argument.of(unit), LEVELS, open, target, lasts, period, Optional.empty());
    }

    private static PlannedMotion move(Motion.Shape shape, String unit, Message open, double target, long lastsMs) {
        return motion(
                new Motion.Move(Span.ofMillis((int) lastsMs), shape, List.of(), 0),
                unit,
                open,
                target,
                lastsMs * MS,
                0);
    }

    private static List<FadeCurve.Step> all(FadeCurve curve, int said, long gap, int most) {
        List<FadeCurve.Step> steps = new ArrayList<>();
        Optional<FadeCurve.Step> next = curve.next(0, said, gap);
        while (next.isPresent() && steps.size() < most) {
            steps.add(next.get());
            next = curve.next(next.get().atNanos(), next.get().place(), gap);
        }
        return steps;
    }

    /** Looked at gap after gap, moment by moment. */
    private static List<String> naively(FadeCurve curve, int said, long gap, long lasts, int most) {
        List<String> steps = new ArrayList<>();
        int place = said;
        long at = said < 0 ? 0 : gap;
        while (at < lasts && steps.size() < most) {
            int now = curve.placeOf(curve.exactAt(at));
            if (now != place) {
                steps.add(at + ": " + now);
                place = now;
            }
            at += gap;
        }
        int end = curve.placeOf(curve.exactAt(lasts));
        if (steps.size() < most && end != place) {
            steps.add(lasts + ": " + end);
        }
        return steps;
    }

    @Test
    void what_is_solved_for_is_what_is_found_by_looking() {
        Random random = new Random(7);
        for (int i = 0; i < 3000; i++) {
            long lastsMs = 1 + random.nextInt(4000);
            long gap = (1 + random.nextInt(4)) * MS;
            boolean wave = random.nextInt(3) == 0;
            double target = -random.nextInt(60);
            long period = (10 + random.nextInt(3000)) * MS + random.nextInt(1000);
            Motion how;
            if (wave) {
                Motion.Form form = Motion.Form.values()[random.nextInt(4)];
                how = new Motion.Wave(form, random.nextInt(12), Span.ofMillis(1), -50, -3, Span.ofMillis(1));
            } else {
                List<Motion.Point> points =
                        List.of(new Motion.Point(0.2, -random.nextInt(40)), new Motion.Point(0.7, -random.nextInt(40)));
                how = new Motion.Move(
                        Span.ofMillis((int) lastsMs), Motion.Shape.values()[random.nextInt(5)], points, 0);
            }
            PlannedMotion planned = motion(how, "decibels", FADER, target, lastsMs * MS, wave ? period : 0);
            FadeCurve curve = planned.from(OptionalDouble.of(random.nextInt(128)));
            int said = random.nextBoolean() ? -1 : curve.placeOf(curve.exactAt(0));
            List<String> solved = all(curve, said, gap, 400).stream()
                    .map(s -> s.atNanos() + ": " + s.place())
                    .toList();
            assertThat(solved).as("%d: %s", i, planned).isEqualTo(naively(curve, said, gap, lastsMs * MS, 400));
        }
    }

    @Test
    @Timeout(5)
    void an_hour_that_changes_nothing_costs_nothing() {
        FadeCurve flat = move(Motion.Shape.STRAIGHT, "decibels", FADER, -15, 3_600_000)
                .from(OptionalDouble.of(LEVELS.exact(-15)));
        FadeCurve wave = motion(
                        new Motion.Wave(Motion.Form.SINE, 0.001, Span.ofMillis(1000), -50, 0, Span.ofMillis(0)),
                        "decibels",
                        FADER,
                        -15,
                        0,
                        3_600_000 * MS)
                .from(OptionalDouble.of(LEVELS.exact(-15)));
        for (int i = 0; i < 1000; i++) {
            assertThat(flat.next(0, 65, 1)).isEmpty();
            assertThat(wave.next(0, 65, 1)).isEmpty();
        }
    }

    /** 100 % is 1.0, 0 dB is 0, 0 % is 0.0: never nearly so. */
    @Test
    void a_fade_of_floats_ends_exactly_on_its_amount() {
        Random random = new Random(3);
        for (int i = 0; i < 500; i++) {
            boolean decibels = random.nextBoolean();
            double target = decibels ? -random.nextInt(60) / 3.0 : random.nextInt(301) / 3.0;
            FadeCurve curve = move(
                            Motion.Shape.values()[random.nextInt(4)],
                            decibels ? "decibels" : "per cent",
                            FLOAT,
                            target,
                            1 + random.nextInt(3000))
                    .from(OptionalDouble.of(random.nextDouble() * 127));
            List<FadeCurve.Step> steps =
                    all(curve, random.nextBoolean() ? -1 : curve.placeOf(curve.exactAt(0)), MS, 9999);
            if (!steps.isEmpty()) {
                OscMessage last = (OscMessage) steps.get(steps.size() - 1).message();
                assertThat(last.arguments().get(0)).isEqualTo((float) (decibels ? target : target / 100));
            }
            for (int s = 1; s < steps.size() - 1; s++) {
                assertThat(steps.get(s).atNanos() - steps.get(s - 1).atNanos())
                        .as("at most a hundred a second")
                        .isGreaterThanOrEqualTo(10 * MS);
            }
        }
    }

    @Test
    @Timeout(5)
    void a_move_that_lasts_no_time_has_an_end() {
        for (Message open : List.of(FADER, FLOAT)) {
            FadeCurve curve =
                    move(Motion.Shape.STRAIGHT, "per cent", open, 100, 0).from(OptionalDouble.of(0));
            List<FadeCurve.Step> steps = all(curve, -1, MS, 10);
            assertThat(steps).hasSizeBetween(1, 2);
            assertThat(curve.exactOf(steps.get(steps.size() - 1).place())).isEqualTo(127);
        }
    }
}
