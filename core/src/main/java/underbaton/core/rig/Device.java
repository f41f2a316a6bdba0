package underbaton.core.rig;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.Message;
import underbaton.core.midi.MidiMessage;
import underbaton.core.rig.Speech.Timed;

/**
 * One machine we talk to.
 *
 * @param id unique in the show
 * @param channel 0–15, the machine's first MIDI channel
 * @param leadMs how early it must be told to be in time, 0–10,000 ms
 * @param settleMs how long it is busy with a program before it hears the next message, 0–10,000 ms
 * @param levels how its faders' values stand for decibels
 * @param list how the machine's own list is numbered, if it has one
 * @param stepLists the lists of its own that it steps through
 * @param precautions empty where they are {@link Precautions#NONE}
 * @param inStep empty where it keeps no time with us
 * @param phrases its phrasebook; those of the list stand in the machine's own order and get their numbers from it
 */
public record Device(
        int id,
        String name,
        Department department,
        Connection connection,
        int channel,
        Numbering numbering,
        int leadMs,
        int settleMs,
        Levels levels,
        Optional<PositionList> list,
        List<StepList> stepLists,
        Optional<Precautions> precautions,
        Optional<InStep> inStep,
        List<Phrase> phrases) {

    public Device {
        stepLists = List.copyOf(stepLists);
        StepList.requireApart(stepLists);
        name = requireName(name);
        if (channel < 0 || channel > 15) {
            throw new Refusal("channel", "A MIDI channel is 1 to 16; choose one of these.");
        }
        requireLead(leadMs);
        requireSettle(settleMs);
        precautions = precautions.filter(p -> !p.equals(Precautions.NONE));
        inStep = inStep.filter(InStep::any);
        phrases = numbered(list, phrases);
    }

    /** The name of a machine, 1 to 60 characters. */
    public static String requireName(String name) {
        return Refusal.requireName("name", name, 60);
    }

    /** How early it is told, 0 to 10,000 ms. */
    public static int requireLead(int ms) {
        if (ms < 0 || ms > 10_000) {
            throw new Refusal("lead", "A lead is 0 to 10,000 ms, not " + ms + ".");
        }
        return ms;
    }

    /** How long it is busy after a program, 0 to 10,000 ms. */
    public static int requireSettle(int ms) {
        if (ms < 0 || ms > 10_000) {
            throw new Refusal("settle", "A machine settles in 0 to 10,000 ms, not " + ms + ".");
        }
        return ms;
    }

    /** A machine without precautions that keeps no time with us. */
    public Device(
            int id,
            String name,
            Department department,
            Connection connection,
            int channel,
            Numbering numbering,
            int leadMs,
            int settleMs,
            Levels levels,
            Optional<PositionList> list,
            List<StepList> stepLists,
            List<Phrase> phrases) {
        this(
                id,
                name,
                department,
                connection,
                channel,
                numbering,
                leadMs,
                settleMs,
                levels,
                list,
                stepLists,
                Optional.empty(),
                Optional.empty(),
                phrases);
    }

    /** A machine without lists to step through. */
    public Device(
            int id,
            String name,
            Department department,
            Connection connection,
            int channel,
            Numbering numbering,
            int leadMs,
            int settleMs,
            Levels levels,
            Optional<PositionList> list,
            List<Phrase> phrases) {
        this(id, name, department, connection, channel, numbering, leadMs, settleMs, levels, list, List.of(), phrases);
    }

    /** A machine without a list, with the published law of levels. */
    public Device(
            int id,
            String name,
            Department department,
            Connection connection,
            int channel,
            Numbering numbering,
            int leadMs,
            List<Phrase> phrases) {
        this(
                id,
                name,
                department,
                connection,
                channel,
                numbering,
                leadMs,
                0,
                Levels.PUBLISHED,
                Optional.empty(),
                phrases);
    }

    /** The number of a listed phrase is its place: the one it has, where that lies behind those before it, else the next. */
    private static List<Phrase> numbered(Optional<PositionList> list, List<Phrase> phrases) {
        List<Phrase> numbered = new ArrayList<>(phrases.size());
        int next = 0;
        for (Phrase phrase : phrases) {
            if (!phrase.listed()) {
                numbered.add(phrase);
            } else if (list.isEmpty()) {
                numbered.add(phrase.inList(false));
            } else {
                int place = Math.max(next, place(list.get(), phrase).orElse(next));
                numbered.add(phrase.listedAs(list.get().at(place)));
                next = place + 1;
            }
        }
        return List.copyOf(numbered);
    }

    private static OptionalInt place(PositionList list, Phrase phrase) {
        List<Message> says = phrase.says().messages();
        return says.size() == 1 ? list.placeOf(says.get(0)) : OptionalInt.empty();
    }

    /** The place of a listed phrase in the machine's list, 0 for the first; −1 for one outside of it. */
    public int placeOf(Phrase phrase) {
        return phrase.listed() ? list.map(l -> place(l, phrase).orElse(-1)).orElse(-1) : -1;
    }

    /** The machine's list place by place, to the last one that is taken; some are empty. */
    public List<Optional<Phrase>> places() {
        List<Optional<Phrase>> places = new ArrayList<>();
        for (Phrase phrase : listed()) {
            while (places.size() < placeOf(phrase)) {
                places.add(Optional.empty());
            }
            places.add(Optional.of(phrase));
        }
        return places;
    }

    /** What the machine does by now when a phrase that is no longer in its list is called: the entry that has its number. */
    public Optional<Phrase> nowMeant(Phrase phrase) {
        return phrase.listed()
                ? Optional.empty()
                : list.flatMap(l -> listed().stream()
                        .filter(p -> place(l, phrase).isPresent()
                                && p.says().messages().equals(phrase.says().messages()))
                        .findFirst());
    }

    /** The patch bay with the lines of its sets changed; any other machine as it is. */
    public Device withLines(UnaryOperator<Wiring> change) {
        return phrases.stream().noneMatch(p -> p.patch().isPresent())
                ? this
                : withPhrases(phrases.stream()
                        .map(p ->
                                p.patch().map(s -> p.withPatch(s.with(change))).orElse(p))
                        .toList());
    }

    /** The patch bay with the lines of its sets between machines that are there; any other machine as it is. */
    public Device withLinesAmong(Predicate<Integer> isThere) {
        return withLines(w -> w.among(isThere));
    }

    /** The phrases of the machine's own list, in its order. */
    public List<Phrase> listed() {
        return phrases.stream().filter(Phrase::listed).toList();
    }

    /** The same machine with its list numbered in another way, or with none: then its phrases keep what they say. */
    public Device withList(Optional<PositionList> newList) {
        Draft draft = new Draft();
        draft.list = newList;
        if (list.isPresent() && newList.isPresent()) {
            draft.phrases = phrases.stream()
                    .map(p -> p.listed() ? p.listedAs(newList.get().at(placeOf(p))) : p)
                    .toList();
        }
        return draft.device();
    }

    /**
     * The machine with its list place by place; phrases of the list that are not named stay in the phrasebook, outside it.
     *
     * @param places phrases of ours, changed perhaps, and new ones with id 0; empty where the machine has nothing
     */
    public Device withPlaces(List<Optional<Phrase>> places) {
        PositionList numbers = list.orElseThrow();
        List<Phrase> changed = new ArrayList<>();
        for (int i = 0; i < places.size(); i++) {
            if (places.get(i).isPresent()) {
                changed.add(places.get(i).get().listedAs(numbers.at(i)));
            }
        }
        for (Phrase phrase : phrases) {
            if (changed.stream().noneMatch(p -> p.id() == phrase.id())) {
                changed.add(phrase.inList(false));
            }
        }
        return withPhrases(changed);
    }

    /** The same with other phrases. */
    public Device withPhrases(List<Phrase> newPhrases) {
        Draft draft = new Draft();
        draft.phrases = newPhrases;
        return draft.device();
    }

    /** The same with another numbering. */
    public Device withNumbering(Numbering other) {
        Draft draft = new Draft();
        draft.numbering = other;
        return draft.device();
    }

    /**
     * The machine counting in another way, with all that was typed in its numbers kept as it was typed: other bytes go out then. Right
     * where it was typed under a wrong setting.
     *
     * @throws Refusal naming the phrase that the machine cannot print so
     */
    public Device recounted(Numbering other) {
        SpeechWording was = new SpeechWording(numbering);
        SpeechWording is = new SpeechWording(other);
        Device changed = withNumbering(other).withLevels(Levels.of(levels.write(numbering), other));
        Device listed = changed.withList(list.map(l -> l.reprinted(numbering, other)));
        return listed.withPhrases(listed.phrases().stream()
                .map(p -> {
                    try {
                        return p.listed() ? p : p.withSpeech(is.read(was.write(p.says())));
                    } catch (Refusal cannot) {
                        throw new Refusal(
                                cannot.field(),
                                "“" + p.name() + "” says “" + was.write(p.says()) + "”, which cannot stay so: "
                                        + cannot.getMessage());
                    }
                })
                .toList());
    }

    /** Those of its phrases that read otherwise where it counts in another way, the bytes being the same. */
    public List<Phrase> readingOtherwise(Numbering other) {
        SpeechWording was = new SpeechWording(numbering);
        SpeechWording is = new SpeechWording(other);
        return phrases.stream()
                .filter(p -> !was.write(p.says()).equals(is.write(p.says())))
                .toList();
    }

    /** The same with other levels. */
    public Device withLevels(Levels other) {
        Draft draft = new Draft();
        draft.levels = other;
        return draft.device();
    }

    /** The same with another connection. */
    public Device withConnection(Connection other) {
        Draft draft = new Draft();
        draft.connection = other;
        return draft.device();
    }

    /** @param other 0–15 */
    public Device withChannel(int other) {
        Draft draft = new Draft();
        draft.channel = other;
        return draft.device();
    }

    /** With another lead, and another time to settle, ms. */
    public Device withTiming(int newLeadMs, int newSettleMs) {
        Draft draft = new Draft();
        draft.leadMs = newLeadMs;
        draft.settleMs = newSettleMs;
        return draft.device();
    }

    /** The same with other step lists. */
    public Device withStepLists(List<StepList> other) {
        Draft draft = new Draft();
        draft.stepLists = other;
        return draft.device();
    }

    /** The same with other precautions. */
    public Device withPrecautions(Precautions other) {
        Draft draft = new Draft();
        draft.precautions = Optional.of(other);
        return draft.device();
    }

    /** The same, kept in step otherwise. */
    public Device withInStep(InStep other) {
        Draft draft = new Draft();
        draft.inStep = Optional.of(other);
        return draft.device();
    }

    /** The list that an effect of a phrase moves, if the machine is said to have one. */
    public Optional<StepList> stepList(String of) {
        return stepLists.stream().filter(l -> l.of().equalsIgnoreCase(of)).findFirst();
    }

    /** How long the machine takes for a step of one of its lists before it takes the next one, ms; 0 for what steps through none. */
    public int gapMs(Effect effect) {
        boolean steps = effect.kind() == Effect.Kind.STEPS || effect.kind() == Effect.Kind.SETS;
        return steps ? stepList(effect.of()).map(StepList::gapMs).orElse(0) : 0;
    }

    /** The same under another id; 0 for one that is to be given its id. */
    public Device withId(int newId) {
        Draft draft = new Draft();
        draft.id = newId;
        return draft.device();
    }

    /** The phrase with this id, if it is in the phrasebook. */
    public Optional<Phrase> phrase(int phraseId) {
        return phrases.stream().filter(p -> p.id() == phraseId).findFirst();
    }

    /** Names are compared without regard to case. */
    public Optional<Phrase> phraseNamed(String name) {
        return phrases.stream()
                .filter(p -> p.name().equalsIgnoreCase(name.strip()))
                .findFirst();
    }

    /** The phrase that moves a control of it, if there is one. @param control on the machine's own channel */
    public Optional<Phrase> levelling(Control control) {
        return phrases.stream()
                .filter(p -> p.effect().kind() == Effect.Kind.LEVELS)
                .filter(p -> p.says().on().stream()
                        .filter(Utterance::open)
                        .findFirst()
                        .filter(u ->
                                Control.of(id, u.message().shiftedTo(channel)).equals(control))
                        .isPresent())
                .findFirst();
    }

    /** How what it is told is written by people: in its own numbers, on the channels that it has. */
    public SpeechWording wording() {
        return new SpeechWording(numbering, channel);
    }

    /** What is done with it when nobody knows, or all must stop. */
    public Precautions care() {
        return precautions.orElse(Precautions.NONE);
    }

    /** The phrase that makes the machine safe after all was stopped, if one is chosen and still there. */
    public Optional<Phrase> safePhrase() {
        return care().safePhrase().isEmpty() ? Optional.empty() : phraseNamed(care().safePhrase());
    }

    /** The phrase that brings the machine to rest: the first that stops. */
    public Optional<Phrase> restingPhrase() {
        return phrases.stream()
                .filter(p -> p.effect().kind() == Effect.Kind.STOPS)
                .findFirst();
    }

    /**
     * What this machine gets on its own channels when the phrase is called, in the order of the times.
     *
     * @param amount for the phrase's argument; where it is missing, the smallest
     */
    public List<Timed> messagesFor(Phrase phrase, Optional<Amount> amount) {
        Amount given = amount.orElse(
                new Amount.Measure(phrase.argument().map(Argument::least).orElse(0.0)));
        boolean off = phrase.says().hasTwoStates() && given instanceof Amount.Measure m && m.value() == 0;
        return phrase.says().timed(off, open -> phrase.argument().orElseThrow().fill(open, given, levels)).stream()
                .map(t -> new Timed(t.atMs(), t.message().shiftedTo(channel)))
                .toList();
    }

    /** Why a phrase cannot be called with an amount that may have been written for another; empty when it can. */
    public Optional<String> misfit(Phrase phrase, Optional<Amount> amount) {
        if (amount.isEmpty()) {
            return Optional.empty();
        }
        String given = Amount.asItWas(amount.get());
        if (phrase.argument().isEmpty()) {
            return Optional.of("“" + phrase.name() + "” takes no amount any more, and " + given + " stands here");
        }
        Argument argument = phrase.argument().get();
        return argument.takes(amount.get(), levels)
                ? Optional.empty()
                : Optional.of("“" + phrase.name() + "” now takes " + argument.range(numbering, levels) + ", and "
                        + given + " stands here");
    }

    /** A phrase with its amount, as a cell of the book says it: {@code Vox 1 → −10 dB}. */
    public String tell(Phrase phrase, Optional<Amount> amount) {
        return phrase.name()
                + phrase.argument()
                        .flatMap(a -> amount.map(given ->
                                " → " + (a.takes(given, levels) ? a.write(given, numbering) : Amount.asItWas(given))))
                        .orElse("");
    }

    /**
     * The device with one phrase added at the end, or in the place of the one with its id.
     *
     * @throws Refusal when another phrase has that name, or the connection cannot carry what the phrase says
     */
    public Device withPhrase(Phrase phrase) {
        phraseNamed(phrase.name())
                .filter(other -> phrase.id() == 0 || other.id() != phrase.id())
                .ifPresent(other -> {
                    throw new Refusal(
                            "name", name + " has a phrase “" + other.name() + "” already; choose another name.");
                });
        boolean midi = !(connection instanceof Connection.Osc);
        for (Message message : phrase.says().messages()) {
            if (message instanceof MidiMessage != midi) {
                throw new Refusal(
                        "says",
                        midi
                                ? name + " is reached by MIDI; write a note, a control or a program."
                                : name + " is reached by OSC; write: osc /address and what goes with it.");
            }
        }
        List<Phrase> changed = new ArrayList<>(phrases);
        int place = indexOf(phrase.id());
        Phrase kept = connection instanceof Connection.PatchBay
                ? asPatchSet(
                        phrase,
                        place < 0 ? Optional.empty() : phrases.get(place).patch())
                : phrase;
        if (place < 0) {
            changed.add(kept);
        } else {
            changed.set(place, kept);
        }
        boolean wasSafe =
                place >= 0 && safePhrase().filter(p -> p.id() == phrase.id()).isPresent();
        Device with = withPhrases(changed);
        return wasSafe ? with.withPrecautions(care().withSafePhrase(phrase.name())) : with;
    }

    /** However its phrase is written, a set keeps its lines, and one program loads it. */
    private static Phrase asPatchSet(Phrase phrase, Optional<PatchSet> before) {
        List<Message> says = phrase.says().messages();
        if (says.size() != 1 || !(says.get(0) instanceof ProgramChange)) {
            throw new Refusal("says", "One program loads a patch set; write: program and its number.");
        }
        return phrase.patch().isPresent() ? phrase : phrase.withPatch(before.orElse(PatchSet.EMPTY));
    }

    /** A new phrase that says the same under another name; it stands outside the machine's list. */
    public Phrase copyOf(Phrase phrase) {
        int count = 2;
        while (phraseNamed(phrase.name() + " " + count).isPresent()) {
            count++;
        }
        return phrase.withName(phrase.name() + " " + count).withId(0).inList(false);
    }

    /** Without this phrase; as it was when it is not there. */
    public Device withoutPhrase(int phraseId) {
        return withPhrases(phrases.stream().filter(p -> p.id() != phraseId).toList());
    }

    private int indexOf(int phraseId) {
        for (int i = 0; i < phrases.size(); i++) {
            if (phraseId != 0 && phrases.get(i).id() == phraseId) {
                return i;
            }
        }
        return -1;
    }

    /** The machine being changed in one thing or another. */
    private final class Draft {

        private int id = Device.this.id;
        private Connection connection = Device.this.connection;
        private int channel = Device.this.channel;
        private Numbering numbering = Device.this.numbering;
        private int leadMs = Device.this.leadMs;
        private int settleMs = Device.this.settleMs;
        private Levels levels = Device.this.levels;
        private Optional<PositionList> list = Device.this.list;
        private List<StepList> stepLists = Device.this.stepLists;
        private Optional<Precautions> precautions = Device.this.precautions;
        private Optional<InStep> inStep = Device.this.inStep;
        private List<Phrase> phrases = Device.this.phrases;

        Device device() {
            return new Device(
                    id,
                    name,
                    department,
                    connection,
                    channel,
                    numbering,
                    leadMs,
                    settleMs,
                    levels,
                    list,
                    stepLists,
                    precautions,
                    inStep,
                    phrases);
        }
    }
}
