package underbaton.core.cue;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Random;
import java.util.Set;
import underbaton.core.midi.MachineControl;
import underbaton.core.midi.ShowControl;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Speech;
import underbaton.core.signal.Condition;
import underbaton.core.signal.Deed;
import underbaton.core.signal.Filling;
import underbaton.core.signal.Listener;
import underbaton.core.signal.PadLight;
import underbaton.core.signal.Passage;
import underbaton.core.signal.Pattern;
import underbaton.core.signal.Reaction;
import underbaton.core.signal.Scale;
import underbaton.core.signal.Source;

/** Listeners and relays of any kind for a random show. */
final class RandomListeners {

    private final RandomShows make;
    private final Random random;

    RandomListeners(RandomShows make, Random random) {
        this.make = make;
        this.random = random;
    }

    /** One more, unless it would be a relay that hears itself. */
    Show addedTo(Show show) {
        try {
            return show.withListener(listener(show));
        } catch (Refusal goesRound) {
            return show;
        }
    }

    private Listener listener(Show show) {
        Device device = make.any(show.devices());
        Item item = make.any(show.items());
        List<Cue> cues = show.cues().toList();
        List<Reaction> reactions = new ArrayList<>(List.of(
                new Reaction.Give(make.one(Deed.values())),
                new Reaction.ToCue(0, random.nextInt(9) - 4, random.nextBoolean()),
                new Reaction.Play(random.nextBoolean() ? 0 : item.id(), random.nextInt(3), make.text("", "B"))));
        if (!cues.isEmpty()) {
            reactions.add(new Reaction.ToCue(make.any(cues).id(), 0, random.nextBoolean()));
            List<Reaction.ToCue.Row> table = List.of(
                    new Reaction.ToCue.Row("T" + make.text(30), make.any(cues).id()));
            reactions.add(new Reaction.ToCue(0, 0, table, random.nextBoolean()));
        }
        Hands.keys(show).findFirst().ifPresent(k -> reactions.add(new Reaction.Hand(k.id())));
        if (!device.phrases().isEmpty()) {
            reactions.add(
                    new Reaction.Fire(device.id(), make.any(device.phrases()).id()));
        }
        if (!show.listeners().isEmpty()) {
            reactions.add(new Reaction.Arm(Set.of(make.any(show.listeners()).id()), random.nextBoolean()));
        }
        reactions.add(new Reaction.PassOn(passage(show, device)));
        return new Listener(
                0,
                "L" + make.text(50),
                random.nextBoolean() ? Set.of() : Set.of(device.id(), Source.OTHERS),
                random.nextBoolean() ? OptionalInt.empty() : OptionalInt.of(random.nextInt(16)),
                pattern(),
                make.any(reactions),
                random.nextInt(60_001),
                random.nextBoolean() ? 0 : item.id(),
                random.nextBoolean(),
                random.nextBoolean(),
                device.phrases().isEmpty() || random.nextBoolean() ? Optional.empty() : Optional.of(light(device)));
    }

    private PadLight light(Device device) {
        int on = make.any(device.phrases()).id();
        return new PadLight(
                device.id(),
                on,
                random.nextBoolean() ? on : 0,
                0,
                make.any(device.phrases()).id());
    }

    private Pattern pattern() {
        int low = random.nextInt(64) + 1;
        int high = low + random.nextInt(64);
        return make.any(List.<Pattern>of(
                new Pattern.Note(low, high, low, high, random.nextBoolean()),
                new Pattern.Controller(random.nextInt(128), make.one(Pattern.Way.values()), low, high),
                new Pattern.Program(random.nextInt(16_385) - 1, low, high),
                new Pattern.Bend(-low, high),
                new Pattern.Show(make.one(ShowControl.Command.values()), random.nextBoolean() ? "" : "36", "12.5"),
                new Pattern.Machine(make.one(MachineControl.Command.values())),
                new Pattern.Song(low, high),
                new Pattern.Transport(make.one(Pattern.Move.values())),
                new Pattern.Osc("/a/{b,c}*", List.of()),
                new Pattern.Osc(
                        "/x",
                        List.of(new Condition(
                                random.nextInt(32), make.one(Condition.Relation.values()), make.text(100))))));
    }

    private Passage passage(Show show, Device device) {
        int low = random.nextInt(50);
        Optional<Phrase> phrase =
                device.phrases().isEmpty() ? Optional.empty() : Optional.of(make.any(device.phrases()));
        if (phrase.isPresent() && random.nextBoolean()) {
            return new Passage.Says(
                    device.id(), phrase.get().id(), filling(show, make.one(Scale.Meeting.values()), low));
        }
        if (random.nextBoolean()) {
            return new Passage.Through(
                    device.id(),
                    random.nextBoolean() ? OptionalInt.empty() : OptionalInt.of(random.nextInt(16)),
                    random.nextInt(255) - 127);
        }
        Speech speech = RandomShows.accepted(() -> {
            Speech any = make.speech(device.connection().carriesMidi());
            return new Speech(any.on(), List.of());
        });
        return new Passage.Written(
                device.id(), speech, speech.isOpen() ? filling(show, Scale.Meeting.LATEST, 0) : new Filling.Nothing());
    }

    /** @param smoothMs 0 where nothing can be smoothed */
    private Filling filling(Show show, Scale.Meeting meeting, int smoothMs) {
        if (random.nextInt(3) == 0) {
            return random.nextBoolean()
                    ? new Filling.Named(make.any(show.devices()).id(), List.of(), random.nextInt(200) - 100)
                    : new Filling.Named(0, List.of("N" + make.text(150), "", "M"), 1);
        }
        Scale.Second second = new Scale.Second(
                make.any(show.devices()).id(), random.nextInt(16), random.nextInt(128), random.nextBoolean());
        return new Filling.Scaled(new Scale(
                random.nextInt(32),
                random.nextBoolean(),
                random.nextDouble() * 1000 - 500,
                501,
                random.nextBoolean() ? Double.NEGATIVE_INFINITY : random.nextGaussian() * 100,
                random.nextGaussian() * 1000,
                0.1 + random.nextDouble() * 9,
                random.nextBoolean() ? 0 : random.nextDouble(),
                smoothMs,
                random.nextBoolean() ? Optional.empty() : Optional.of(second),
                meeting));
    }
}
