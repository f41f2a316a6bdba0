package underbaton.web.signals;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import underbaton.core.cue.Show;
import underbaton.core.engine.Engine;
import underbaton.core.engine.Event;
import underbaton.core.engine.Order;
import underbaton.core.engine.PlaybackState;
import underbaton.core.engine.Step;
import underbaton.core.engine.out.Happening;
import underbaton.core.engine.out.ScheduledMessage;
import underbaton.core.loop.Clock;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.Message;
import underbaton.core.midi.MidiMessage;
import underbaton.core.midi.OscMessage;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Device;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Wording;
import underbaton.core.signal.Outcome;
import underbaton.core.signal.Signal;
import underbaton.core.signal.Source;
import underbaton.web.library.Shows;
import underbaton.web.record.CameIn;
import underbaton.web.stage.Stage;
import underbaton.wire.osc.OscCodec;

/** The trial bench: what would become of a message that is typed, or has come in, is worked out by the engine and not sent. */
@Controller
class TrialController {

    private static final int MOST_SHOWN = 40;
    private static final int MOST_AT_ONCE = 16;

    private final Shows shows;
    private final Stage stage;
    private final Clock clock;
    private final CameIn cameIn;
    private final OscCodec osc = new OscCodec();

    /** One message that would be sent. @param told in the printing of its machine */
    public record Sent(String device, String told, String bytes) {}

    /** What is tried. */
    private record Trial(Source source, List<Message> messages) {}

    TrialController(Shows shows, Stage stage, Clock clock, CameIn cameIn) {
        this.shows = shows;
        this.stage = stage;
        this.clock = clock;
        this.cameIn = cameIn;
    }

    /**
     * @param came the number of what came in; 0 for what is typed
     * @param from the machine that would say it; 0 for others
     * @param send whether it is given to the show on the desk as if it had come in
     */
    @PostMapping("/shows/{showId}/signals/trial")
    String tryOut(
            @PathVariable int showId,
            @RequestParam(defaultValue = "0") long came,
            @RequestParam(defaultValue = "0") int from,
            @RequestParam(defaultValue = "") String words,
            @RequestParam(defaultValue = "false") boolean send,
            Model model) {
        Show show = shows.get(showId);
        Trial trial = came > 0 ? come(came) : typed(show, from, words);
        PlaybackState state =
                stage.playback(showId).orElseGet(() -> PlaybackState.of(Planner.plan(show), clock.nanos()));
        List<Outcome.Taken> taken = new ArrayList<>();
        List<String> nothing = new ArrayList<>();
        List<ScheduledMessage> messages = new ArrayList<>();
        for (Message message : trial.messages) {
            Order heard = new Order.Heard(trial.source, signal(message));
            Step step = Engine.step(state, Event.of(clock.nanos(), heard));
            state = step.next();
            messages.addAll(step.messages());
            step.happenings().forEach(h -> {
                if (h instanceof Happening.Heard became) {
                    taken.addAll(became.outcome().taken());
                    untaken(became.outcome()).ifPresent(nothing::add);
                }
            });
            if (send) {
                stage.order(showId, "tried out: " + tell(trial.source.numbering(), message), heard);
            }
        }
        Wording wording = new Wording(trial.source.numbering());
        model.addAttribute("show", show);
        model.addAttribute("came", came);
        model.addAttribute("from", from);
        model.addAttribute("words", words);
        model.addAttribute("sent", send);
        model.addAttribute("source", trial.source.name());
        model.addAttribute(
                "said",
                String.join("; ", trial.messages.stream().map(wording::tell).toList()));
        model.addAttribute("taken", taken);
        model.addAttribute("nothing", nothing);
        model.addAttribute(
                "messages",
                messages.stream().limit(MOST_SHOWN).map(m -> sent(show, m)).toList());
        model.addAttribute("more", Math.max(0, messages.size() - MOST_SHOWN));
        return "signals/trial :: tried";
    }

    private Trial come(long number) {
        Outcome outcome = cameIn.numbered(number)
                .orElseThrow(() -> new Refusal("came", "That came in too long ago; type it instead."))
                .outcome();
        return new Trial(outcome.source(), List.of(outcome.signal().message()));
    }

    private static Trial typed(Show show, int from, String words) {
        Optional<Device> device = show.device(from);
        Source source = device.map(Source::of).orElse(new Source(Source.OTHERS, "unknown sender", Numbering.WIRE));
        List<Message> read = new Wording(source.numbering()).read(words);
        if (read.isEmpty() || read.size() > MOST_AT_ONCE) {
            throw new Refusal("words", "Write one message, or a few with semicolons between: control 67 to 127");
        }
        int channel = device.map(Device::channel).orElse(0);
        return new Trial(source, read.stream().map(m -> m.shiftedTo(channel)).toList());
    }

    private Signal signal(Message message) {
        return new Signal(message, bytes(message), clock.nanos());
    }

    private Bytes bytes(Message message) {
        return message instanceof MidiMessage midi ? midi.encode() : osc.encode((OscMessage) message);
    }

    private static Optional<String> untaken(Outcome outcome) {
        if (outcome.isTaken()) {
            return Optional.empty();
        }
        String why = outcome.why().isEmpty() ? "nobody listens for that" : outcome.why();
        return Optional.of(outcome.nearest().isEmpty() ? why : outcome.nearest() + ", " + why);
    }

    private Sent sent(Show show, ScheduledMessage message) {
        Optional<Device> device = show.device(message.deviceId());
        return new Sent(
                device.map(Device::name).orElse(""),
                tell(device.map(Device::numbering).orElse(Numbering.WIRE), message.message()),
                bytes(message.message()).hex());
    }

    private static String tell(Numbering numbering, Message message) {
        return new Wording(numbering).tell(message);
    }
}
