package underbaton.core.store;

import com.fasterxml.jackson.annotation.JsonAutoDetect.Visibility;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonSetter;
import com.fasterxml.jackson.annotation.Nulls;
import com.fasterxml.jackson.annotation.PropertyAccessor;
import java.util.Collection;
import java.util.List;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.StreamReadConstraints;
import tools.jackson.core.StreamReadFeature;
import tools.jackson.core.exc.InputCoercionException;
import tools.jackson.core.exc.StreamConstraintsException;
import tools.jackson.core.exc.StreamReadException;
import tools.jackson.core.json.JsonFactory;
import tools.jackson.core.util.DefaultPrettyPrinter;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.MapperFeature;
import tools.jackson.databind.cfg.EnumFeature;
import tools.jackson.databind.exc.MismatchedInputException;
import tools.jackson.databind.exc.UnrecognizedPropertyException;
import tools.jackson.databind.json.JsonMapper;
import underbaton.core.rig.Cut;
import underbaton.core.rig.Refusal;

/**
 * The form in which shows are kept: JSON (RFC 8259) that says what they are made of, never the words that people type.
 * Every value that the constructors of the core take is written and comes back equal; {@code
 * docs/formats/show.schema.json} describes it. The keys are the names of the records' components in their order, so
 * renaming one of these changes the format: the rows in the database need a migration then, and files a new version.
 *
 * <p>What is empty is left out; numbers are always there, those without end as {@code "-Infinity"} and {@code "Infinity"}.
 * Depth, length and number are limited while reading. Any thread may call it.
 */
public final class StoredForm {

    /** Deeper than anything that is written; nobody's file is followed further down. */
    private static final int DEEPEST = 40;

    private static final int LONGEST_TEXT = 200_000;
    /** What is quoted of a file may be as long as the file. */
    private static final int LONGEST_REASON = 200;

    private static final int MOST_TOKENS = 10_000_000;

    private static final Pattern DOUBLED = Pattern.compile("^Duplicate Object property \"([^\"]*)\"");
    private static final Pattern UNKNOWN = Pattern.compile("(?s)No enum constant [a-zA-Z.]*\\.(.*)");
    private static final JsonSetter.Value EMPTY = JsonSetter.Value.forValueNulls(Nulls.AS_EMPTY);
    private static final JsonMapper MAPPER = mapper();

    private StoredForm() {}

    private static JsonMapper mapper() {
        StreamReadConstraints limits = StreamReadConstraints.builder()
                .maxNestingDepth(DEEPEST)
                .maxStringLength(LONGEST_TEXT)
                .maxTokenCount(MOST_TOKENS)
                .build();
        JsonMapper.Builder builder = JsonMapper.builder(
                        // Of two values under one key nobody knows which is meant.
                        JsonFactory.builder()
                                .streamReadConstraints(limits)
                                .enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION)
                                .build())
                .enable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
                .enable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
                .enable(DeserializationFeature.FAIL_ON_TRAILING_TOKENS)
                .enable(EnumFeature.WRITE_ENUMS_TO_LOWERCASE)
                .enable(EnumFeature.FAIL_ON_NUMBERS_FOR_ENUMS)
                .enable(MapperFeature.ACCEPT_CASE_INSENSITIVE_ENUMS)
                .disable(MapperFeature.SORT_PROPERTIES_ALPHABETICALLY)
                .disable(MapperFeature.ALLOW_COERCION_OF_SCALARS)
                .disable(DeserializationFeature.ACCEPT_FLOAT_AS_INT)
                .changeDefaultVisibility(v -> v.withVisibility(PropertyAccessor.GETTER, Visibility.NONE)
                        .withVisibility(PropertyAccessor.IS_GETTER, Visibility.NONE)
                        .withVisibility(PropertyAccessor.FIELD, Visibility.ANY))
                .changeDefaultPropertyInclusion(
                        i -> JsonInclude.Value.construct(JsonInclude.Include.NON_EMPTY, JsonInclude.Include.ALWAYS))
                .enable(DeserializationFeature.FAIL_ON_NULL_CREATOR_PROPERTIES)
                .withConfigOverride(List.class, o -> o.setNullHandling(EMPTY))
                .withConfigOverride(Set.class, o -> o.setNullHandling(EMPTY))
                .withConfigOverride(String.class, o -> o.setNullHandling(EMPTY));
        StoredTypes.FORMS.forEach(builder::addMixIn);
        return builder.build();
    }

    /** One part of a show on one line: a device, a phrase, an item, a cue. */
    public static String write(Object part) {
        return MAPPER.writeValueAsString(part);
    }

    /** As {@link #write}, over many lines, a phrase and a cue on one each: for files that people may look into. */
    static String writeIndented(Object whole) {
        return MAPPER.writer().with(new Lines()).writeValueAsString(whole);
    }

    /** Begins new lines down to the lists of phrases and cues, not within their entries. */
    private static final class Lines extends DefaultPrettyPrinter {
        private static final int DEEPEST_LINE = 4;
        private static final Indenter INDENTER = new Indenter() {
            @Override
            public void writeIndentation(JsonGenerator json, int level) {
                json.writeRaw(level > DEEPEST_LINE ? " " : "\n" + "  ".repeat(level));
            }

            @Override
            public boolean isInline() {
                return false;
            }
        };

        Lines() {
            indentArraysWith(INDENTER);
            indentObjectsWith(INDENTER);
        }

        @Override
        public DefaultPrettyPrinter createInstance() {
            return new Lines();
        }

        @Override
        public void writeEndObject(JsonGenerator json, int entries) {
            if (_nesting > DEEPEST_LINE) {
                _nesting--;
                json.writeRaw(" }");
            } else {
                super.writeEndObject(json, entries);
            }
        }
    }

    /**
     * @param type of the part that was written
     * @throws Refusal when it is no such part: says where and why
     */
    public static <T> T read(String text, Class<T> type) {
        try {
            T read = MAPPER.readValue(text, type);
            if (read == null) {
                throw new Refusal("file", "there is nothing in it.");
            }
            return read;
        } catch (JacksonException unread) {
            throw new Refusal("file", where(unread) + why(unread));
        }
    }

    /** As {@link #read}, but keys that are not known are passed over. */
    static <T> T readLeniently(String text, Class<T> type) {
        try {
            return MAPPER.readerFor(type)
                    .without(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
                    .readValue(text);
        } catch (JacksonException unread) {
            throw refusal(unread);
        }
    }

    /** Where a file of ours cannot be read and why, in the words of people. */
    static Refusal refusal(JacksonException unread) {
        String where = where(unread);
        return new Refusal("file", "The file cannot be read" + (where.isEmpty() ? ": " : " at " + where) + why(unread));
    }

    /** The way to the place that cannot be read, {@code items 3, score, sections 1: }. */
    private static String where(JacksonException unread) {
        String path = unread.getPath().stream()
                .map(r -> r.getIndex() >= 0 ? " " + (r.getIndex() + 1) : ", " + r.getPropertyName())
                .collect(Collectors.joining())
                .replaceFirst("^, ", "");
        boolean noJson = unread instanceof StreamReadException;
        if (!path.isEmpty() && !noJson) {
            return path.strip() + ": ";
        }
        var at = unread.getLocation();
        return at == null || at.getLineNr() < 1 ? "" : "line " + at.getLineNr() + ", column " + at.getColumnNr() + ": ";
    }

    private static String expected(Class<?> type) {
        if (type == null) {
            return "something else";
        }
        if (type == boolean.class || type == Boolean.class) {
            return "true or false";
        }
        if (type == int.class || type == long.class || type == Integer.class || type == Long.class) {
            return "a whole number";
        }
        if (type == double.class || type == float.class || Number.class.isAssignableFrom(type)) {
            return "a number";
        }
        if (CharSequence.class.isAssignableFrom(type) || type.isEnum()) {
            return "a text in quotation marks";
        }
        return Collection.class.isAssignableFrom(type)
                ? "a list in brackets"
                : "something in braces with keys of its own";
    }

    private static String why(JacksonException unread) {
        for (Throwable cause = unread; cause != null; cause = cause.getCause()) {
            if (cause instanceof Refusal || cause instanceof IllegalArgumentException) {
                Matcher unknown = UNKNOWN.matcher(cause.getMessage());
                return unknown.matches()
                        ? "“" + Cut.shown(LONGEST_REASON, unknown.group(1)) + "” cannot stand there."
                        : Cut.shown(LONGEST_REASON, cause.getMessage());
            }
        }
        if (unread instanceof UnrecognizedPropertyException unknown) {
            return "nothing is known of “" + unknown.getPropertyName() + "”.";
        }
        if (unread instanceof MismatchedInputException other) {
            boolean missing = other.getOriginalMessage().contains("ull value for creator")
                    || other.getOriginalMessage().startsWith("Cannot map `null`");
            return missing ? "it is missing." : expected(other.getTargetType()) + " must stand there.";
        }
        Matcher doubled = DOUBLED.matcher(unread.getOriginalMessage());
        if (doubled.find()) {
            return "“" + doubled.group(1) + "” stands there twice; take one of them out.";
        }
        if (unread instanceof InputCoercionException) {
            return "that number is larger than any that can stand there.";
        }
        return unread instanceof StreamConstraintsException
                ? "it is larger or deeper than anything that is kept here."
                : "this is no JSON.";
    }
}
