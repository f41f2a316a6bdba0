package underbaton.core.store;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonProperty;
import com.fasterxml.jackson.annotation.JsonSetter;
import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonSubTypes.Type;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import com.fasterxml.jackson.annotation.JsonValue;
import com.fasterxml.jackson.annotation.Nulls;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.core.type.WritableTypeId;
import tools.jackson.databind.DeserializationContext;
import tools.jackson.databind.SerializationContext;
import tools.jackson.databind.ValueDeserializer;
import tools.jackson.databind.ValueSerializer;
import tools.jackson.databind.annotation.JsonDeserialize;
import tools.jackson.databind.annotation.JsonSerialize;
import tools.jackson.databind.jsontype.TypeSerializer;
import tools.jackson.databind.util.StdConverter;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Motion;
import underbaton.core.cue.Span;
import underbaton.core.cue.Start;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.FullFrame;
import underbaton.core.midi.MachineControl;
import underbaton.core.midi.Message;
import underbaton.core.midi.OscMessage;
import underbaton.core.midi.OscMessage.Bare;
import underbaton.core.midi.OscMessage.Colour;
import underbaton.core.midi.OscMessage.MidiOctets;
import underbaton.core.midi.OscMessage.Symbol;
import underbaton.core.midi.OscMessage.TimeTag;
import underbaton.core.midi.RealTime;
import underbaton.core.midi.ShowControl;
import underbaton.core.midi.SysEx;
import underbaton.core.midi.SystemCommon;
import underbaton.core.rig.Amount;
import underbaton.core.rig.Connection;
import underbaton.core.signal.Filling;
import underbaton.core.signal.Passage;
import underbaton.core.signal.Pattern;
import underbaton.core.signal.Reaction;
import underbaton.core.traffic.Entry;

/**
 * How {@link StoredForm} writes what a record alone does not say: which of a family it is (the key {@code kind}), and the
 * values that are no records. The types themselves know nothing of files.
 */
final class StoredTypes {

    /** By the types that they speak of. */
    static final Map<Class<?>, Class<?>> FORMS = Map.ofEntries(
            Map.entry(Connection.class, Ways.class),
            Map.entry(Amount.class, Amounts.class),
            Map.entry(Motion.class, Motions.class),
            Map.entry(Start.class, Starts.class),
            Map.entry(Pattern.class, Patterns.class),
            Map.entry(Reaction.class, Reactions.class),
            Map.entry(Passage.class, Passages.class),
            Map.entry(Filling.class, Fillings.class),
            Map.entry(Message.class, Messages.class),
            Map.entry(RealTime.class, RealTimes.class),
            Map.entry(OscMessage.class, OscMessages.class),
            Map.entry(SysEx.class, WithEmptyOnes.class),
            Map.entry(Entry.class, WithEmptyOnes.class),
            Map.entry(Bytes.class, Octets.class),
            Map.entry(Span.class, Spans.class),
            Map.entry(CueNumber.class, Numbers.class),
            Map.entry(Cue.class, Cues.class));

    private StoredTypes() {}

    @JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
    @JsonSubTypes({
        @Type(value = Connection.NetworkMidi.class, name = "networkMidi"),
        @Type(value = Connection.LocalMidi.class, name = "localMidi"),
        @Type(value = Connection.PatchBay.class, name = "patchBay"),
        @Type(value = Connection.Osc.class, name = "osc")
    })
    private interface Ways {}

    @JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
    @JsonSubTypes({
        @Type(value = Amount.Measure.class, name = "measure"),
        @Type(value = Amount.Text.class, name = "text")
    })
    private interface Amounts {}

    @JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
    @JsonSubTypes({@Type(value = Motion.Move.class, name = "move"), @Type(value = Motion.Wave.class, name = "wave")})
    private interface Motions {}

    @JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
    @JsonSubTypes({
        @Type(value = Pattern.Note.class, name = "note"),
        @Type(value = Pattern.Controller.class, name = "controller"),
        @Type(value = Pattern.Program.class, name = "program"),
        @Type(value = Pattern.Bend.class, name = "bend"),
        @Type(value = Pattern.Show.class, name = "showControl"),
        @Type(value = Pattern.Machine.class, name = "machineControl"),
        @Type(value = Pattern.Song.class, name = "song"),
        @Type(value = Pattern.Transport.class, name = "transport"),
        @Type(value = Pattern.Osc.class, name = "osc")
    })
    private interface Patterns {}

    @JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
    @JsonSubTypes({
        @Type(value = Reaction.Give.class, name = "give"),
        @Type(value = Reaction.ToCue.class, name = "toCue"),
        @Type(value = Reaction.Play.class, name = "play"),
        @Type(value = Reaction.Fire.class, name = "fire"),
        @Type(value = Reaction.Arm.class, name = "arm"),
        @Type(value = Reaction.Hand.class, name = "hand"),
        @Type(value = Reaction.PassOn.class, name = "passOn")
    })
    private interface Reactions {}

    @JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
    @JsonSubTypes({
        @Type(value = Passage.Says.class, name = "says"),
        @Type(value = Passage.Written.class, name = "written"),
        @Type(value = Passage.Through.class, name = "through")
    })
    private interface Passages {}

    @JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
    @JsonSubTypes({
        @Type(value = Filling.Nothing.class, name = "nothing"),
        @Type(value = Filling.Scaled.class, name = "scaled"),
        @Type(value = Filling.Named.class, name = "named")
    })
    private interface Fillings {}

    @JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
    @JsonSubTypes({
        @Type(value = Start.ByHand.class, name = "byHand"),
        @Type(value = Start.WithPrevious.class, name = "withPrevious"),
        @Type(value = Start.AfterPrevious.class, name = "afterPrevious"),
        @Type(value = Start.AtPosition.class, name = "atPosition"),
        @Type(value = Start.AtSection.class, name = "atSection"),
        @Type(value = Start.AtTime.class, name = "atTime")
    })
    private interface Starts {}

    @JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
    @JsonSubTypes({
        @Type(value = ChannelMessage.NoteOn.class, name = "noteOn"),
        @Type(value = ChannelMessage.NoteOff.class, name = "noteOff"),
        @Type(value = ChannelMessage.PolyPressure.class, name = "polyPressure"),
        @Type(value = ChannelMessage.ControlChange.class, name = "control"),
        @Type(value = ChannelMessage.ProgramChange.class, name = "program"),
        @Type(value = ChannelMessage.BankProgram.class, name = "bankProgram"),
        @Type(value = ChannelMessage.ChannelPressure.class, name = "channelPressure"),
        @Type(value = ChannelMessage.PitchBend.class, name = "pitchBend"),
        @Type(value = SystemCommon.QuarterFrame.class, name = "quarterFrame"),
        @Type(value = SystemCommon.SongPosition.class, name = "songPosition"),
        @Type(value = SystemCommon.SongSelect.class, name = "songSelect"),
        @Type(value = SystemCommon.TuneRequest.class, name = "tuneRequest"),
        @Type(value = RealTime.class, name = "realTime"),
        @Type(value = ShowControl.class, name = "showControl"),
        @Type(value = MachineControl.class, name = "machineControl"),
        @Type(value = FullFrame.class, name = "fullFrame"),
        @Type(value = SysEx.class, name = "sysEx"),
        @Type(value = OscMessage.class, name = "osc")
    })
    private interface Messages {}

    /** The version tells editors apart and is no part of the show. */
    private abstract static class Cues {
        @JsonProperty(access = JsonProperty.Access.WRITE_ONLY)
        @JsonSetter(nulls = Nulls.AS_EMPTY)
        int version;
    }

    /** Lengths were without bars at first. */
    private abstract static class Spans {
        @JsonInclude(JsonInclude.Include.NON_DEFAULT)
        @JsonSetter(nulls = Nulls.AS_EMPTY)
        boolean bars;
    }

    /** {@code "12.5"}: as text, so that no program reads it as a binary fraction. */
    private abstract static class Numbers {
        @JsonValue
        @Override
        public abstract String toString();

        @JsonCreator
        static CueNumber of(String text) {
            throw new AssertionError(text);
        }
    }

    /** No octets at all are still said. */
    @JsonInclude(JsonInclude.Include.ALWAYS)
    private interface WithEmptyOnes {}

    /** {@code "43 10 4C"}. */
    private abstract static class Octets {
        @JsonValue
        abstract String hex();

        @JsonCreator
        static Bytes ofHex(String text) {
            throw new AssertionError(text);
        }
    }

    @JsonSerialize(using = RealTimeWriter.class)
    @JsonDeserialize(using = RealTimeReader.class)
    private interface RealTimes {}

    private static final class RealTimeWriter extends ValueSerializer<RealTime> {
        @Override
        public void serialize(RealTime message, JsonGenerator json, SerializationContext context) {
            json.writeStringProperty("is", message.name().toLowerCase(Locale.ROOT));
        }

        @Override
        public void serializeWithType(
                RealTime message, JsonGenerator json, SerializationContext context, TypeSerializer type) {
            WritableTypeId id = type.writeTypePrefix(json, context, type.typeId(message, JsonToken.START_OBJECT));
            serialize(message, json, context);
            type.writeTypeSuffix(json, context, id);
        }
    }

    private static final class RealTimeReader extends ValueDeserializer<RealTime> {
        @Override
        public RealTime deserialize(JsonParser json, DeserializationContext context) {
            String is = context.readTree(json).path("is").asString("");
            return RealTime.valueOf(is.toUpperCase(Locale.ROOT));
        }
    }

    private abstract static class OscMessages {
        @JsonSerialize(contentConverter = OscValueWriter.class)
        @JsonDeserialize(contentConverter = OscValueReader.class)
        abstract List<Object> arguments();
    }

    /** An argument under the letter of its type: {@code {"i": 3}}; types without a value as {@code {"is": "T"}}. */
    private record OscValue(
            Optional<Integer> i,
            Optional<Float> f,
            Optional<String> s,
            Optional<Long> h,
            Optional<Double> d,
            Optional<Integer> c,
            Optional<Bytes> b,
            Optional<String> S,
            Optional<Long> t,
            Optional<Integer> r,
            Optional<Integer> m,
            Optional<String> is,
            Optional<Array> array) {}

    private record Array(
            @JsonSerialize(contentConverter = OscValueWriter.class)
                    @JsonDeserialize(contentConverter = OscValueReader.class)
                    List<Object> of) {}

    private static <T> Optional<T> as(Class<T> type, Object argument) {
        return Optional.of(argument).filter(type::isInstance).map(type::cast);
    }

    private static final class OscValueWriter extends StdConverter<Object, OscValue> {
        @Override
        public OscValue convert(Object argument) {
            return new OscValue(
                    as(Integer.class, argument),
                    as(Float.class, argument),
                    as(String.class, argument),
                    as(Long.class, argument),
                    as(Double.class, argument),
                    as(Character.class, argument).map(c -> (int) c),
                    as(Bytes.class, argument),
                    as(Symbol.class, argument).map(Symbol::text),
                    as(TimeTag.class, argument).map(TimeTag::ntp),
                    as(Colour.class, argument).map(Colour::rgba),
                    as(MidiOctets.class, argument).map(MidiOctets::octets),
                    as(Boolean.class, argument).map(on -> on ? "T" : "F").or(() -> as(Bare.class, argument)
                            .map(b -> b == Bare.NIL ? "N" : "I")),
                    as(List.class, argument).map(l -> new Array(List.copyOf((List<?>) l))));
        }
    }

    private static final class OscValueReader extends StdConverter<OscValue, Object> {
        @Override
        public Object convert(OscValue v) {
            return Stream.<Optional<?>>of(
                            v.i,
                            v.f,
                            v.s,
                            v.h,
                            v.d,
                            v.c.map(c -> (char) c.intValue()),
                            v.b,
                            v.S.map(Symbol::new),
                            v.t.map(TimeTag::new),
                            v.r.map(Colour::new),
                            v.m.map(MidiOctets::new),
                            v.is.map(OscValueReader::bare),
                            v.array.map(Array::of))
                    .flatMap(Optional::stream)
                    .findFirst()
                    .orElseThrow(() -> new IllegalArgumentException("an OSC argument stands under its type’s letter"));
        }

        private static Object bare(String tag) {
            return switch (tag) {
                case "T" -> true;
                case "F" -> false;
                case "N" -> Bare.NIL;
                case "I" -> Bare.IMPULSE;
                default -> throw new IllegalArgumentException("“" + tag + "” is no type of OSC without a value");
            };
        }
    }
}
