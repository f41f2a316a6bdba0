package underbaton.core.exchange;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import underbaton.core.cue.Call;
import underbaton.core.cue.Motion;
import underbaton.core.cue.Span;
import underbaton.core.exchange.Song.TimedMessage;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.Message;
import underbaton.core.midi.MidiMessage;
import underbaton.core.rig.Amount;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Control;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Speech.Timed;
import underbaton.core.rig.Utterance;

/**
 * Finds which phrases of a device say what a part sends. A phrase of several messages is found where all of them stand
 * at their times; of several phrases the one with the most messages is taken. A note that no phrase says with its
 * velocity is taken for the phrase that says it with another. The ends of notes belong to the notes.
 */
final class PhraseMatch {

    private static final long AS_ONE_NANOS = 2_000_000;
    /** Amounts of one phrase so close together are one move. */
    private static final long MOVING_NANOS = 150_000_000;

    private static final int LEAST_STEPS = 4;

    private final Device device;
    private final List<TimedMessage> said;
    private final boolean[] used;
    private final List<Found> found = new ArrayList<>();

    /**
     * A call.
     *
     * @param nanos when it leaves, since the song began
     * @param lastNanos when its last message does
     * @param loosely whether a velocity differs
     */
    record Found(long nanos, long lastNanos, Call call, boolean loosely) {}

    /** A phrase with an amount that would begin with a message, and all that it would send. */
    private record Candidate(Phrase phrase, Optional<Amount> amount, List<Timed> messages, boolean exact) {}

    PhraseMatch(Device device, List<TimedMessage> said) {
        this.device = device;
        this.said = said;
        this.used = new boolean[said.size()];
        for (int i = 0; i < said.size(); i++) {
            if (!used[i] && !isEnd(said.get(i).message())) {
                match(i);
            }
        }
        takeEndsOfTaken();
        mergeMoves();
    }

    List<Found> found() {
        return found;
    }

    List<TimedMessage> unmatched() {
        List<TimedMessage> left = new ArrayList<>();
        for (int i = 0; i < said.size(); i++) {
            if (!used[i]) {
                left.add(said.get(i));
            }
        }
        return left;
    }

    private void match(int index) {
        TimedMessage first = said.get(index);
        List<Candidate> candidates = new ArrayList<>();
        device.phrases().forEach(p -> candidates(p, first.message(), candidates));
        candidates.sort(Comparator.comparing((Candidate c) -> !c.exact)
                .thenComparing(c -> -c.messages.size())
                .thenComparing(c -> c.amount.isPresent()));
        for (Candidate candidate : candidates) {
            List<Integer> places = places(index, candidate);
            if (!places.isEmpty()) {
                places.forEach(p -> used[p] = true);
                long last = said.get(places.get(places.size() - 1)).nanos();
                found.add(new Found(
                        first.nanos(),
                        last,
                        new Call(device.id(), candidate.phrase.id(), candidate.amount),
                        !candidate.exact));
                return;
            }
        }
    }

    private void candidates(Phrase phrase, MidiMessage first, List<Candidate> candidates) {
        if (phrase.says().hasTwoStates()) {
            candidate(phrase, Optional.of(new Amount.Measure(1)), first, candidates);
            candidate(phrase, Optional.of(new Amount.Measure(0)), first, candidates);
        } else if (phrase.argument().isEmpty()) {
            candidate(phrase, Optional.empty(), first, candidates);
        } else if (phrase.says().on().get(0).open()) {
            amount(phrase, first).ifPresent(a -> candidate(phrase, Optional.of(a), first, candidates));
        }
    }

    private void candidate(Phrase phrase, Optional<Amount> amount, MidiMessage first, List<Candidate> candidates) {
        List<Timed> messages = device.messagesFor(phrase, amount);
        Message says = messages.get(0).message();
        if (says.equals(first)) {
            candidates.add(new Candidate(phrase, amount, messages, true));
        } else if (isSameNote(says, first)) {
            candidates.add(new Candidate(phrase, amount, messages, false));
        }
    }

    /** The amount that makes a phrase say a message: of those that do, the one with the fewest decimals. */
    private Optional<Amount> amount(Phrase phrase, MidiMessage wanted) {
        Argument argument = phrase.argument().orElseThrow();
        Utterance open = phrase.says().on().get(0);
        Message message = open.message().shiftedTo(device.channel());
        if (!Control.of(device.id(), message).equals(Control.of(device.id(), wanted))) {
            return Optional.empty();
        }
        for (int value = 0; value < 128; value++) {
            if (Argument.withValue(message, value).equals(wanted)) {
                double amount = argument.amountAt(value, device.levels());
                for (double scale = 1; scale <= 1000; scale *= 10) {
                    double rounded = Double.isInfinite(amount) ? amount : Math.round(amount * scale) / scale;
                    Amount.Measure measure = new Amount.Measure(rounded);
                    boolean within = rounded >= argument.least() && rounded <= argument.most();
                    if (within
                            && argument.fill(message, measure, device.levels()).equals(wanted)) {
                        return Optional.of(measure);
                    }
                }
            }
        }
        return Optional.empty();
    }

    /** Where the messages of a candidate stand; empty when one is missing. The end of a note may be missing, or elsewhere. */
    private List<Integer> places(int index, Candidate candidate) {
        List<Integer> places = new ArrayList<>();
        long start = said.get(index).nanos();
        for (Timed timed : candidate.messages) {
            long due = start + timed.atMs() * 1_000_000L;
            int place = places.isEmpty() ? index : place(index, due, timed.message(), places);
            if (place >= 0) {
                places.add(place);
            } else if (!isEnd(timed.message())) {
                return List.of();
            }
        }
        return places;
    }

    private int place(int from, long due, Message message, List<Integer> taken) {
        for (int i = from; i < said.size() && said.get(i).nanos() <= due + AS_ONE_NANOS; i++) {
            boolean there =
                    !used[i] && !taken.contains(i) && Math.abs(said.get(i).nanos() - due) <= AS_ONE_NANOS;
            if (there && said.get(i).message().equals(message)) {
                return i;
            }
        }
        return -1;
    }

    private static boolean isEnd(Message message) {
        return ChannelMessage.endsNote(message);
    }

    private static boolean isSameNote(Message one, Message other) {
        return one instanceof NoteOn a
                && other instanceof NoteOn b
                && a.note() == b.note()
                && a.channel() == b.channel()
                && a.velocity() > 0
                && b.velocity() > 0;
    }

    /** The end of a note that was taken is nothing that anybody misses. */
    private void takeEndsOfTaken() {
        Map<List<Integer>, Integer> sounding = new HashMap<>();
        for (int i = 0; i < said.size(); i++) {
            MidiMessage message = said.get(i).message();
            if (message instanceof NoteOn on && on.velocity() > 0) {
                sounding.put(List.of(on.channel(), on.note()), i);
            } else if (isEnd(message)) {
                List<Integer> key = message instanceof NoteOff off
                        ? List.of(off.channel(), off.note())
                        : List.of(((NoteOn) message).channel(), ((NoteOn) message).note());
                Integer note = sounding.get(key);
                used[i] |= note != null && used[note];
            }
        }
    }

    /** Many amounts of one phrase, close together, become one even move. */
    private void mergeMoves() {
        List<Found> merged = new ArrayList<>();
        while (!found.isEmpty()) {
            List<Found> run = new ArrayList<>();
            run.add(found.remove(0));
            for (int i = 0; i < found.size(); ) {
                Found last = run.get(run.size() - 1);
                Found next = found.get(i);
                if (next.nanos - last.nanos > MOVING_NANOS) {
                    break;
                }
                if (next.call.phraseId() == last.call.phraseId() && isLevel(next)) {
                    run.add(found.remove(i));
                } else {
                    i++;
                }
            }
            if (run.size() >= LEAST_STEPS) {
                merged.add(move(run));
            } else {
                merged.addAll(run);
            }
        }
        merged.sort(Comparator.comparingLong(Found::nanos));
        found.addAll(merged);
    }

    private boolean isLevel(Found found) {
        return device.phrase(found.call.phraseId())
                .filter(p -> p.argument()
                        .filter(a -> a.unit() != Argument.Unit.SWITCH)
                        .isPresent())
                .isPresent();
    }

    private static Found move(List<Found> run) {
        Found first = run.get(0);
        Found last = run.get(run.size() - 1);
        long millis = Math.max(1, Math.round((last.nanos - first.nanos) / 1e6));
        Call call = new Call(
                last.call.deviceId(),
                last.call.phraseId(),
                last.call.amount(),
                Optional.of(new Motion.Move(Span.ofMillis((int) millis), Motion.Shape.STRAIGHT, List.of(), 0)),
                Span.ZERO);
        return new Found(first.nanos, last.lastNanos, call, false);
    }
}
