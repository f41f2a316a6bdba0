package underbaton.core.engine.answer;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import org.pcollections.PMap;
import underbaton.core.engine.device.Devices;
import underbaton.core.engine.device.Slot;
import underbaton.core.engine.move.Moves;
import underbaton.core.engine.out.Happening;
import underbaton.core.engine.out.Outgoing;
import underbaton.core.engine.out.StepContext;
import underbaton.core.midi.Message;
import underbaton.core.plan.AnswerBook;
import underbaton.core.plan.AnswerBook.Said;
import underbaton.core.plan.PlannedAnswer;
import underbaton.core.plan.PlannedCall;
import underbaton.core.rig.Along;
import underbaton.core.rig.Control;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Phrase;

/**
 * What machines say of themselves, while a step is taken. A phrase that has an answer is awaited from the moment at which it leaves; of
 * levels, the last value that left to a control by whatever way. What a machine says unasked was done by a hand there, and is known
 * from then on as if it had been told so.
 *
 * <p>Not thread-safe, used once.
 */
public final class Answers {

    /** A fader that stands so near is where it was told: its motor, or the step of its scale. On the wire's scale. */
    private static final double NEAR = 1.01;

    private static final String SLOT = "slot ";
    private static final String CONTROL = "control ";
    private static final String PHRASE = "phrase ";

    private final StepContext step;
    private final Devices devices;
    private final Moves moves;
    private final Outgoing out;
    private PMap<Reply.Of, Reply> replies;

    /** Made anew for each step, of the parts that it asks. */
    public Answers(StepContext step, Devices devices, Moves moves, Outgoing out, PMap<Reply.Of, Reply> before) {
        this.step = step;
        this.devices = devices;
        this.moves = moves;
        this.out = out;
        this.replies = before;
    }

    /** The part's own record as it stands now: what the next step begins with. */
    public PMap<Reply.Of, Reply> state() {
        return replies;
    }

    // ---- what they are told

    /** A call is made. @param due when, by the clock of the events */
    public void called(PlannedCall call, long due) {
        if (step.isDryRun()) {
            return;
        }
        if (!replies.isEmpty()) {
            overtake(call);
        }
        if (call.answer().isPresent() && devices.hears(call.deviceId())) {
            PlannedAnswer answer = call.answer().get();
            Reply reply = new Reply(
                    call.phraseId(),
                    call.phrase(),
                    call.answer(),
                    Double.NaN,
                    due + answer.withinNanos(),
                    Reply.Kind.AWAITED,
                    Optional.empty(),
                    "");
            replies = replies.plus(of(call.deviceId(), call.effect(), call.phraseId()), reply);
        }
    }

    /** Of what it changes nobody asks any more how it was before. */
    private void overtake(PlannedCall call) {
        Effect effect = call.effect();
        int id = call.deviceId();
        replies = effect.takesASlot() ? replies.minus(of(id, effect, call.phraseId())) : replies;
        boolean all = effect.kind() == Effect.Kind.STOPS && effect.of().isEmpty();
        boolean levels = effect.takesAlong(Along.LEVELS);
        for (Reply.Of each : all || levels ? List.copyOf(replies.keySet()) : List.<Reply.Of>of()) {
            boolean ends =
                    all && each.name().startsWith(SLOT) || levels && each.name().startsWith(CONTROL);
            replies = each.deviceId() == id && ends ? replies.minus(each) : replies;
        }
    }

    private static Reply.Of of(int deviceId, Effect effect, int phraseId) {
        return new Reply.Of(deviceId, effect.takesASlot() ? SLOT + Slot.key(effect) : PHRASE + phraseId);
    }

    private static Reply.Of of(Control control) {
        return new Reply.Of(control.deviceId(), CONTROL + control.address());
    }

    /** A message leaves, by whatever way: of a control that answers, its value is awaited. */
    public void left(int deviceId, Message message, long at) {
        AnswerBook book = step.isDryRun() ? AnswerBook.EMPTY : step.plan().answers(deviceId);
        if (book.isEmpty() || !devices.hears(deviceId)) {
            return;
        }
        Control control = Control.of(deviceId, message);
        Phrase phrase = book.levelling(control);
        OptionalDouble exact = phrase == null ? OptionalDouble.empty() : book.exact(phrase, message);
        if (exact.isPresent()) {
            long within = phrase.answer().orElseThrow().withinMs() * 1_000_000L;
            Reply reply = new Reply(
                    phrase.id(),
                    book.words(phrase, exact.getAsDouble()),
                    Optional.empty(),
                    exact.getAsDouble(),
                    at + within,
                    Reply.Kind.AWAITED,
                    Optional.empty(),
                    "");
            replies = replies.plus(of(control), reply);
        }
    }

    // ---- what they say

    /** A machine says something. */
    public void heard(int deviceId, Message message) {
        List<Said> all = step.plan().answers(deviceId).said(message);
        if (all.isEmpty()) {
            return;
        }
        for (Said said : all) {
            Reply reply = replies.get(of(deviceId, said));
            if (reply != null && confirms(said, reply)) {
                if (reply.kind() == Reply.Kind.OTHER) {
                    stands(deviceId, said);
                }
                replies = replies.plus(of(deviceId, said), reply.as(Reply.Kind.CONFIRMED, ""));
                return;
            }
        }
        if (all.size() == 1) {
            differs(deviceId, all.get(0));
        }
    }

    private static Reply.Of of(int deviceId, Said said) {
        return said.call()
                .map(c -> of(deviceId, c.effect(), c.phraseId()))
                .orElseGet(
                        () -> of(Control.of(deviceId, said.level().orElseThrow().open())));
    }

    private static boolean confirms(Said said, Reply reply) {
        return said.call().isPresent()
                ? said.call().get().answer().equals(reply.answer())
                        && said.phrase().id() == reply.phraseId()
                : Math.abs(said.level().orElseThrow().exact() - reply.exact()) <= NEAR;
    }

    private void differs(int deviceId, Said said) {
        Reply.Of of = of(deviceId, said);
        Reply reply = replies.get(of);
        if (reply != null && reply.kind() == Reply.Kind.AWAITED) {
            // It may speak of what it was told before, and say better in time.
            replies = replies.plus(of, reply.saying(said));
            return;
        }
        stands(deviceId, said);
        boolean late = reply != null && reply.kind() == Reply.Kind.MISSING;
        replies = late ? replies.plus(of, other(deviceId, reply, said)) : replies.minus(of);
    }

    /** As it says it is: as if it had been told so. */
    private void stands(int deviceId, Said said) {
        said.call().ifPresent(c -> devices.chosen(c, step.now(), step.plan().stepLists(c.deviceId())));
        said.level().ifPresent(l -> {
            Control control = Control.of(deviceId, l.open());
            if (!moves.isMoving(control) && out.heldUp().of(control).isEmpty()) {
                devices.levels().put(control, l);
            }
        });
    }

    private Reply other(int deviceId, Reply reply, Said said) {
        String says = said.call().map(PlannedCall::phrase).orElseGet(() -> step.plan()
                .answers(deviceId)
                .words(said.phrase(), said.level().orElseThrow().exact()));
        return reply.as(Reply.Kind.OTHER, "says “" + says + "”, was told “" + reply.told() + "”");
    }

    // ---- whose time is over

    /** When the first answer should have come; far away when none is awaited. */
    public long nextNanos() {
        long next = StepContext.NEVER;
        for (Reply reply : replies.values()) {
            next = reply.kind() == Reply.Kind.AWAITED ? Math.min(next, reply.untilNanos()) : next;
        }
        return next;
    }

    /** What has not been confirmed in its time is told. */
    public void due(long due) {
        for (Map.Entry<Reply.Of, Reply> each : replies.entrySet()) {
            Reply reply = each.getValue();
            if (reply.kind() == Reply.Kind.AWAITED && reply.untilNanos() <= due) {
                int deviceId = each.getKey().deviceId();
                reply.says().ifPresent(s -> stands(deviceId, s));
                Reply wrong = reply.says()
                        .map(s -> other(deviceId, reply, s))
                        .orElseGet(() -> reply.as(Reply.Kind.MISSING, "has not answered to “" + reply.told() + "”"));
                replies = replies.plus(each.getKey(), wrong);
                step.happens(new Happening.Unanswered(deviceId, wrong.words()));
            }
        }
    }

    // ---- who is away

    /** A machine that cannot be reached says nothing. */
    public void lose(int deviceId) {
        for (Reply.Of each : replies.keySet()) {
            replies = each.deviceId() == deviceId ? replies.minus(each) : replies;
        }
    }

    /** After an edit nothing is awaited of phrases that are gone, of machines that are out, or that have no answer any more. */
    public void adopt() {
        for (Map.Entry<Reply.Of, Reply> each : replies.entrySet()) {
            int deviceId = each.getKey().deviceId();
            boolean answers = devices.hears(deviceId)
                    && step.plan()
                            .device(deviceId)
                            .flatMap(d -> d.phrase(each.getValue().phraseId()))
                            .flatMap(Phrase::answer)
                            .isPresent();
            replies = answers ? replies : replies.minus(each.getKey());
        }
    }
}
