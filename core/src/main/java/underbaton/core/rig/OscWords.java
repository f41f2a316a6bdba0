package underbaton.core.rig;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HexFormat;
import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import underbaton.core.midi.Bytes;
import underbaton.core.midi.OscMessage.Bare;
import underbaton.core.midi.OscMessage.Colour;
import underbaton.core.midi.OscMessage.MidiOctets;
import underbaton.core.midi.OscMessage.Symbol;
import underbaton.core.midi.OscMessage.TimeTag;

/**
 * Arguments of Open Sound Control in words: whole numbers and decimals plain, texts in quotation marks, all other types
 * with their tag and a colon before them, {@code h:5}, {@code b:0A0B}, true and false as {@code T} and {@code F}, and arrays in
 * brackets. The types may also be said before the arguments, as manuals print them: {@code ,si Amber 3}.
 */
final class OscWords {

    private static final int MOST_NESTED = 8;
    /** OSC 1.0, type tag string: as manuals print it before the arguments. */
    private static final Pattern TAGS = Pattern.compile(",[ifshdcbStrmTFNI]*");

    private OscWords() {}

    static String write(Object argument) {
        if (argument instanceof String text) {
            return Quoted.write(text);
        } else if (argument instanceof Integer) {
            return argument.toString();
        } else if (argument instanceof Float f) {
            return Float.isFinite(f) ? f.toString() : "f:" + f;
        } else if (argument instanceof List<?> array) {
            return array.stream().map(OscWords::write).collect(Collectors.joining(" ", "[ ", " ]"));
        } else if (argument instanceof Boolean on) {
            return on ? "T" : "F";
        } else if (argument instanceof Bare bare) {
            return bare == Bare.NIL ? "N:" : "I:";
        } else if (argument instanceof Long number) {
            return "h:" + number;
        } else if (argument instanceof Double number) {
            return "d:" + number;
        } else if (argument instanceof Character c) {
            return "c:" + (int) c;
        } else if (argument instanceof Bytes blob) {
            return "b:" + HexFormat.of().withUpperCase().formatHex(blob.toArray());
        } else if (argument instanceof Symbol symbol) {
            return "S:" + Quoted.write(symbol.text());
        } else if (argument instanceof TimeTag tag) {
            return "t:" + HexFormat.of().withUpperCase().toHexDigits(tag.ntp());
        } else if (argument instanceof Colour colour) {
            return "r:" + HexFormat.of().withUpperCase().toHexDigits(colour.rgba());
        }
        return "m:" + HexFormat.of().withUpperCase().toHexDigits(((MidiOctets) argument).octets());
    }

    /** @throws IllegalArgumentException saying what cannot be read */
    static List<Object> read(String typed) {
        int first = endOfWord(typed, 0);
        if (TAGS.matcher(typed.substring(0, first)).matches()) {
            return tagged(typed.substring(1, first), typed.substring(first));
        }
        Deque<List<Object>> open = new ArrayDeque<>();
        open.push(new ArrayList<>());
        int i = 0;
        while (i < typed.length()) {
            if (Character.isWhitespace(typed.charAt(i))) {
                i++;
                continue;
            }
            int end = endOfWord(typed, i);
            String word = typed.substring(i, end);
            i = end;
            if (word.equals("[")) {
                if (open.size() > MOST_NESTED) {
                    throw new IllegalArgumentException("its brackets are nested too deep");
                }
                open.push(new ArrayList<>());
            } else if (word.equals("]")) {
                if (open.size() == 1) {
                    throw new IllegalArgumentException("a bracket is closed that was not opened");
                }
                List<Object> array = List.copyOf(open.pop());
                open.peek().add(array);
            } else {
                open.peek().add(one(word));
            }
        }
        if (open.size() > 1) {
            throw new IllegalArgumentException("a bracket is not closed");
        }
        return open.pop();
    }

    /** Arguments whose types are said before them, in one word that begins with a comma. */
    private static List<Object> tagged(String tags, String typed) {
        List<Object> arguments = new ArrayList<>();
        int i = 0;
        for (char tag : tags.toCharArray()) {
            String word = "";
            if ("TFNI".indexOf(tag) < 0) {
                while (i < typed.length() && Character.isWhitespace(typed.charAt(i))) {
                    i++;
                }
                int end = endOfWord(typed, i);
                word = typed.substring(i, end);
                i = end;
                if (word.isEmpty()) {
                    throw new IllegalArgumentException("its types “," + tags + "” ask for more arguments than follow");
                }
            }
            arguments.add(word.equals("?") && i == typed.length() ? word : typed(tag, word));
        }
        if (!typed.substring(i).isBlank()) {
            throw new IllegalArgumentException("behind the arguments of “," + tags + "” there is more: “"
                    + typed.substring(i).strip() + "”");
        }
        return arguments;
    }

    /** A word goes to the next blank; quotation marks hold blanks. */
    private static int endOfWord(String typed, int from) {
        int i = from;
        while (i < typed.length() && !Character.isWhitespace(typed.charAt(i))) {
            int end = typed.charAt(i) == '"' ? Quoted.end(typed, i) : -1;
            i = end > 0 ? end + 1 : i + 1;
        }
        return i;
    }

    private static Object one(String word) {
        if (Quoted.is(word)) {
            return Quoted.read(word);
        }
        if (word.matches("[-+]?\\d{1,9}") || word.matches("[-+]?\\d{10}") && fits(word)) {
            return Integer.valueOf(word);
        }
        if (word.matches("[-+]?\\d*\\.\\d+([eE][-+]?\\d+)?")) {
            return Float.valueOf(word);
        }
        if (word.equals("T") || word.equals("F")) {
            return word.equals("T");
        }
        return word.matches("(?s)[fhdcbStrmTFNI]:.*") ? typed(word.charAt(0), word.substring(2)) : word;
    }

    private static boolean fits(String digits) {
        long number = Long.parseLong(digits);
        return number == (int) number;
    }

    private static Object typed(char tag, String value) {
        try {
            return switch (tag) {
                case 'i' -> Integer.valueOf(value);
                case 's' -> Quoted.is(value) ? Quoted.read(value) : value;
                case 'f' -> Float.valueOf(value);
                case 'h' -> Long.valueOf(value);
                case 'd' -> Double.valueOf(value);
                case 'c' -> (char) Integer.parseInt(value);
                case 'b' -> Bytes.ofHex(value);
                case 'S' -> new Symbol(Quoted.is(value) ? Quoted.read(value) : value);
                case 't' -> new TimeTag(HexFormat.fromHexDigitsToLong(value));
                case 'r' -> new Colour(HexFormat.fromHexDigits(value));
                case 'm' -> new MidiOctets(HexFormat.fromHexDigits(value));
                case 'T' -> true;
                case 'F' -> false;
                case 'N' -> Bare.NIL;
                default -> Bare.IMPULSE;
            };
        } catch (NumberFormatException unread) {
            throw new IllegalArgumentException("“" + tag + ":" + value + "” is no value of that type");
        }
    }
}
