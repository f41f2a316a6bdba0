package underbaton.core.store;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import tools.jackson.core.JacksonException;
import tools.jackson.core.StreamReadFeature;
import tools.jackson.core.json.JsonFactory;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.MapperFeature;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;
import underbaton.core.midi.TimeCode;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.InStep;
import underbaton.core.rig.Levels;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.PositionList;
import underbaton.core.rig.Precautions;
import underbaton.core.rig.Precautions.UntoldFade;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.StepList;

/** A device with its phrasebook as JSON, after {@code docs/formats/device.schema.json}. */
public final class DeviceFile {

    private static final String FORMAT = "under-baton-device";
    private static final int VERSION = 1;
    private static final int MOST_PHRASES = 1000;
    /** In bytes. */
    public static final int LARGEST = 1_000_000;

    private static final JsonMapper MAPPER = JsonMapper.builder(JsonFactory.builder()
                    .enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION)
                    .build())
            .enable(SerializationFeature.INDENT_OUTPUT)
            .enable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
            .enable(DeserializationFeature.FAIL_ON_TRAILING_TOKENS)
            .disable(DeserializationFeature.ACCEPT_FLOAT_AS_INT)
            .disable(MapperFeature.ALLOW_COERCION_OF_SCALARS)
            .build();

    private static final String AS_TYPED = "as typed";
    private static final String PROGRAMS_FIRST = "programs first";

    private DeviceFile() {}

    /** The file's fields, in their order. */
    private record Content(
            String format,
            Integer version,
            String name,
            String department,
            Way connection,
            Integer channel,
            Integer leadMs,
            Integer settleMs,
            Counting numbering,
            String levels,
            Listing list,
            String stepLists,
            String safePhrase,
            String untoldFade,
            String inOneInstant,
            Keeping inStep,
            List<PhraseText> phrases) {}

    /** @param rate frames a second, {@code 29.97} @param vamps {@code counts on} or {@code goes back} */
    private record Keeping(Boolean clock, Boolean code, Boolean transport, String rate, String vamps) {

        static Keeping of(InStep how) {
            return new Keeping(
                    how.clock(),
                    how.code(),
                    how.transport(),
                    how.rate().words(),
                    lower(how.vamps()).replace('_', ' '));
        }

        InStep read() {
            return new InStep(
                    required("clock", clock),
                    required("code", code),
                    required("transport", transport),
                    Arrays.stream(TimeCode.Rate.values())
                            .filter(r -> r.words().equals(required("rate", rate)))
                            .findFirst()
                            .orElseThrow(() -> unknown("rate", rate)),
                    one(
                            InStep.Vamping.values(),
                            "vamps",
                            required("vamps", vamps).replace(' ', '_')));
        }
    }

    /** @param kind {@code network-midi}, {@code local-midi} (host is the port's name then) or {@code osc} */
    private record Way(String kind, String host, Integer port, String carrier, String question) {}

    /** @param noteZero {@code C-2}, {@code C-1} or {@code C0} */
    private record Counting(
            Integer firstProgram,
            Integer bankSize,
            String values,
            String noteZero,
            String blackKeys,
            Integer firstPlace) {

        Numbering numbering() {
            return new Numbering(
                    required("firstProgram", firstProgram),
                    required("bankSize", bankSize),
                    Arrays.stream(Numbering.Values.values())
                            .filter(v -> v.range().equals(required("values", values)))
                            .findFirst()
                            .orElseThrow(() -> unknown("values", values)),
                    octave(required("noteZero", noteZero)),
                    inFlats(required("blackKeys", blackKeys)),
                    required("firstPlace", firstPlace));
        }
    }

    /** @param by {@code note}, {@code program} or {@code controller} */
    private record Listing(String by, Integer first) {}

    /** As JSON after {@code docs/formats/device.schema.json}: equal machines are equal bytes. */
    public static String write(Device device) {
        Numbering n = device.numbering();
        return MAPPER.writeValueAsString(new Content(
                FORMAT,
                VERSION,
                device.name(),
                lower(device.department()),
                way(device.connection()),
                Numbering.channel(device.channel()),
                device.leadMs(),
                device.settleMs(),
                new Counting(
                        n.firstProgram(),
                        n.bankSize(),
                        n.values().range(),
                        "C" + n.firstOctave(),
                        n.flats() ? "flats" : "sharps",
                        n.firstPlace()),
                device.levels().write(Numbering.WIRE),
                device.list().map(l -> new Listing(lower(l.kind()), l.first())).orElse(null),
                StepList.tell(device.stepLists()),
                device.safePhrase().map(Phrase::name).orElse(""),
                lower(device.care().untoldFade()).replace('_', ' '),
                device.care().asTyped() ? AS_TYPED : PROGRAMS_FIRST,
                device.inStep().map(Keeping::of).orElse(null),
                device.phrases().stream().map(p -> PhraseText.of(device, p)).toList()));
    }

    private static Way way(Connection connection) {
        if (connection instanceof Connection.PatchBay) {
            throw new Refusal(
                    "file", "The patch bay is no machine; its sets go along in the file of the show, page Shows.");
        }
        if (connection instanceof Connection.Osc osc) {
            return new Way("osc", osc.host(), osc.port(), osc.carrier().code(), osc.question());
        }
        return connection instanceof Connection.Network network
                ? new Way("network-midi", network.host(), network.port(), "", "")
                : new Way("local-midi", connection.where(), 0, "", "");
    }

    private static String lower(Enum<?> constant) {
        return constant.name().toLowerCase(Locale.ROOT);
    }

    /**
     * @return the device with no id yet
     * @throws Refusal naming the field, and the phrase, that cannot be read
     */
    public static Device read(byte[] file) {
        Content content = parse(Utf8.text(file, LARGEST));
        if (content == null) {
            throw new Refusal("file", "The file says “null”: there is no machine in it.");
        }
        if (!FORMAT.equals(content.format)) {
            throw new Refusal("file", "This is no file of a machine; one begins with \"format\": \"" + FORMAT + "\".");
        }
        if (required("version", content.version) != VERSION) {
            throw new Refusal(
                    "file",
                    "The file is of version " + content.version + ", and version " + VERSION
                            + " is what can be read here.");
        }
        Numbering numbering = required("numbering", content.numbering).numbering();
        Device device = new Device(
                0,
                required("name", content.name),
                one(Department.values(), "department", content.department),
                connection(required("connection", content.connection)),
                Numbering.wireChannel(required("channel", content.channel)),
                numbering,
                required("leadMs", content.leadMs),
                content.settleMs == null ? 0 : content.settleMs,
                Levels.of(or(content.levels), Numbering.WIRE),
                Optional.ofNullable(content.list)
                        .map(l -> new PositionList(
                                one(PositionList.Kind.values(), "list", l.by), required("first", l.first))),
                StepList.read(or(content.stepLists)),
                List.of());
        Device filled = withPrecautions(withPhrases(device, required("phrases", content.phrases)), content);
        return content.inStep == null ? filled : filled.withInStep(content.inStep.read());
    }

    private static Device withPrecautions(Device device, Content content) {
        String safe = or(content.safePhrase);
        if (!safe.isEmpty() && device.phraseNamed(safe).isEmpty()) {
            throw new Refusal("file", "The safe phrase “" + safe + "” is not among the phrases.");
        }
        String fade = or(content.untoldFade);
        return device.withPrecautions(new Precautions(
                safe,
                fade.isEmpty() ? UntoldFade.AT_ONCE : one(UntoldFade.values(), "untoldFade", fade.replace(' ', '_')),
                isAsTyped(or(content.inOneInstant))));
    }

    private static boolean isAsTyped(String order) {
        if (order.isEmpty() || order.equals(PROGRAMS_FIRST)) {
            return false;
        }
        if (order.equals(AS_TYPED)) {
            return true;
        }
        throw unknown("inOneInstant", order);
    }

    private static Content parse(String text) {
        try {
            return MAPPER.readValue(text, Content.class);
        } catch (JacksonException notJson) {
            throw StoredForm.refusal(notJson);
        }
    }

    private static Device withPhrases(Device device, List<PhraseText> phrases) {
        if (phrases.size() > MOST_PHRASES) {
            throw new Refusal("file", "The file has more than " + MOST_PHRASES + " phrases.");
        }
        Device filled = device;
        List<PhraseText> texts = new ArrayList<>();
        for (int i = 0; i < phrases.size(); i++) {
            if (phrases.get(i) == null) {
                throw new Refusal("file", "Phrase " + (i + 1) + " is “null”: take it out, or write what it says.");
            }
            try {
                PhraseText text = filledOut(phrases.get(i));
                filled = filled.withPhrase(text.in(filled));
                texts.add(text);
            } catch (Refusal refusal) {
                throw new Refusal("file", "Phrase " + (i + 1) + ", " + refusal.field() + ": " + refusal.getMessage());
            }
        }
        return PhraseText.withLeaves(filled, texts);
    }

    /** What is left out of a file is empty. */
    private static PhraseText filledOut(PhraseText p) {
        return new PhraseText(
                or(p.name()),
                or(p.says()),
                or(p.argument()),
                or(p.effect()),
                or(p.guarded()),
                or(p.listed()),
                or(p.mark()),
                or(p.note()),
                or(p.group()),
                or(p.leaves()),
                or(p.answer()));
    }

    private static String or(String text) {
        return text == null ? "" : text;
    }

    private static Connection connection(Way way) {
        String host = required("host", way.host);
        return switch (or(way.kind)) {
            case "network-midi" -> new Connection.NetworkMidi(host, required("port", way.port));
            case "local-midi" -> new Connection.LocalMidi(host);
            case "osc" ->
                new Connection.Osc(
                        host,
                        required("port", way.port),
                        or(way.question),
                        Arrays.stream(Connection.Carrier.values())
                                .filter(c -> c.code().equals(way.carrier))
                                .findFirst()
                                .orElseThrow(() -> unknown("carrier", way.carrier)));
            default -> throw unknown("connection", way.kind);
        };
    }

    private static boolean inFlats(String blackKeys) {
        return switch (blackKeys) {
            case "flats" -> true;
            case "sharps" -> false;
            default -> throw unknown("blackKeys", blackKeys);
        };
    }

    private static int octave(String noteZero) {
        return switch (or(noteZero)) {
            case "C-2" -> -2;
            case "C-1" -> -1;
            case "C0" -> 0;
            default -> throw unknown("noteZero", noteZero);
        };
    }

    private static <E extends Enum<E>> E one(E[] all, String field, String text) {
        return Arrays.stream(all)
                .filter(c -> lower(c).equals(text))
                .findFirst()
                .orElseThrow(() -> unknown(field, text));
    }

    private static <T> T required(String field, T value) {
        if (value == null) {
            throw new Refusal("file", "The file says nothing of “" + field + "”.");
        }
        return value;
    }

    private static Refusal unknown(String field, String text) {
        return new Refusal("file", "“" + text + "” cannot stand for “" + field + "”; see the format’s description.");
    }
}
