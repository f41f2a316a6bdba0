package underbaton.core.cue;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import underbaton.core.engine.DryRun;
import underbaton.core.exchange.CueTable;
import underbaton.core.plan.Plan;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Amount;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Remarks;
import underbaton.core.rig.SpeechWording;

/** A phrase gets another unit, or a narrower range, under the calls that use it: the show stands, they are doubtful and send nothing. */
class UnfitAmountsTest {

    private static final List<String> ARGUMENTS = List.of(
            "decibels", "per cent", "value", "pan", "seconds", "on or off", "per cent 40 to 60", "seconds 5 to 9");
    private static final List<String> AMOUNTS = List.of(
            "-15 dB", "−∞", "70 %", "100", "L30", "9 s", "on", "70 % in 2 s", "-15 dB in 3 s", "70 % ± 5 % every 1 s");

    static Stream<Arguments> changes() {
        List<Arguments> all = new ArrayList<>();
        for (String from : ARGUMENTS) {
            for (String to : ARGUMENTS) {
                AMOUNTS.forEach(amount -> all.add(Arguments.of(from, amount, to)));
            }
            AMOUNTS.forEach(amount -> all.add(Arguments.of(from, amount, "")));
        }
        return all.stream()
                .filter(a -> call((String) a.get()[0], (String) a.get()[1]).isPresent());
    }

    private static Device console(String argument) {
        Show show = Shows.device(Shows.small(), "Console", Department.SOUND, 4);
        return show.withPhrase(show.devices().get(2).id(), fader(0, argument))
                .devices()
                .get(2);
    }

    private static Phrase fader(int id, String argument) {
        return new Phrase(
                id,
                "Fader",
                new SpeechWording(Numbering.WIRE).read(argument.isEmpty() ? "control 3 to 9" : "control 3 to ?"),
                argument.isEmpty() ? Optional.empty() : Optional.of(Argument.of(argument)),
                Effect.LEVELS,
                false,
                false,
                Remarks.NONE);
    }

    private static Optional<Call> call(String argument, String amount) {
        try {
            return Optional.of(Call.of(console(argument), "Fader " + amount));
        } catch (RuntimeException doesNotFitBefore) {
            return Optional.empty();
        }
    }

    @ParameterizedTest
    @MethodSource("changes")
    void aCallThatNoLongerFitsIsDoubtfulAndSendsNothing(String from, String amount, String to) {
        Show show = Shows.device(Shows.small(), "Console", Department.SOUND, 4);
        int console = show.devices().get(2).id();
        show = show.withPhrase(console, fader(0, from));
        Call call = Call.of(show.devices().get(2), "Fader " + amount);
        show = show.withCue(
                show.items().get(0).id(), new Cue(0, CueNumber.of("1.5"), Start.BY_HAND, "", List.of(call), 0));
        int phrase = show.devices().get(2).phrases().get(0).id();
        Show changed = show.withPhrase(console, fader(phrase, to));
        Device now = changed.devices().get(2);
        Cue cue = changed.cueNumbered(CueNumber.of("1.5")).orElseThrow();
        assertThatCode(() -> {
                    Plan plan = Planner.plan(changed);
                    DryRun.of(plan).messages().count();
                    CueTable.cell(cue, now);
                })
                .doesNotThrowAnyException();
        boolean fits = fits(call, to);
        boolean sends = Planner.plan(changed).cues().stream()
                .filter(c -> c.cueId() == cue.id())
                .anyMatch(c -> !c.calls().isEmpty());
        assertThat(sends).isEqualTo(fits);
        assertThat(Doubt.of(cue, now).isEmpty()).isEqualTo(fits);
    }

    /** The number that was kept, by the ranges in which the units are said (docs, the cell's own words). */
    private static boolean fits(Call call, String to) {
        double number = ((Amount.Measure) call.amount().orElseThrow()).value();
        boolean whole = number == Math.rint(number);
        return switch (to) {
            case "decibels" -> call(to, Amount.plain(number) + " dB").isPresent();
            case "per cent" -> number >= 0 && number <= 100;
            case "value" -> number >= 0 && number <= 127 && whole;
            case "pan" -> number >= -100 && number <= 100;
            case "seconds" -> number >= 0 && number <= 10;
            case "on or off" -> (number == 0 || number == 1) && call.motion().isEmpty();
            case "per cent 40 to 60" -> number >= 40 && number <= 60;
            case "seconds 5 to 9" -> number >= 5 && number <= 9;
            default -> false;
        };
    }
}
