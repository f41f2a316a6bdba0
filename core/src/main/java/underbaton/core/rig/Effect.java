package underbaton.core.rig;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * What a phrase does to its device.
 *
 * @param of the slot that is held, the thing that is started or stopped, the list whose pointer moves, the control that
 *     is levelled; empty where the device has but one
 * @param amount for what starts, its length in seconds, 0 for unknown; for steps, by how many; for sets, the place that
 *     the device prints; else 0
 * @param along what else it sets, in the order of the constants, each once
 */
public record Effect(Kind kind, String of, int amount, List<Along> along) {

    /** The kinds of effect. */
    public enum Kind {
        /** Takes a slot until another phrase takes it. */
        HOLDS("holds"),
        /** Fires and is over. */
        MOMENT("moment"),
        /** Sets something going that goes on by itself. */
        STARTS("starts"),
        /** Ends what is held or going on. */
        STOPS("stops"),
        /** Moves the device's own pointer by so many places. */
        STEPS("steps"),
        /** Moves the device's own pointer to a place. */
        SETS("sets"),
        /** Moves a control. */
        LEVELS("levels");

        private final String word;

        Kind(String word) {
            this.word = word;
        }

        /** As it is typed. */
        public String word() {
            return word;
        }
    }

    /** Whether it takes a slot: holds, sets going, or ends. */
    public boolean takesASlot() {
        return switch (kind) {
            case HOLDS, STARTS, STOPS -> true;
            case MOMENT, STEPS, SETS, LEVELS -> false;
        };
    }

    public static final Effect HOLDS = new Effect(Kind.HOLDS, "", 0);
    public static final Effect MOMENT = new Effect(Kind.MOMENT, "", 0);
    public static final Effect STARTS = new Effect(Kind.STARTS, "", 0);
    public static final Effect STOPS = new Effect(Kind.STOPS, "", 0);
    public static final Effect STEPS = new Effect(Kind.STEPS, "", 1);
    public static final Effect LEVELS = new Effect(Kind.LEVELS, "", 0);

    private static final int LONGEST_SECONDS = 24 * 3600;
    private static final int MOST_STEPS = 999;
    private static final Pattern LENGTH =
            Pattern.compile("(.*?)(?:^| )for (\\d{1,4}):([0-5]\\d)|(.*?)(?:^| )for (\\d{1,5}) s");
    private static final Pattern BY = Pattern.compile("(.*?)(?:^| )(?:by )?([-−+]\\d{1,4}|\\d{1,4})");
    private static final Pattern TO = Pattern.compile("(.*?)(?:^| )to (\\d{1,4})");

    private static final String EACH = "(?:levels|lists|what runs)";
    private static final Pattern ALONG =
            Pattern.compile("(.*?),? takes along (" + EACH + "(?: and " + EACH + "){0,2})", Pattern.CASE_INSENSITIVE);

    public Effect {
        along = Arrays.stream(Along.values()).filter(along::contains).toList();
        of = Refusal.requireShort("effect", of.strip(), 40);
        if (kind == Kind.STARTS && (amount < 0 || amount > LONGEST_SECONDS)) {
            throw new Refusal("effect", "A length is at most 24 hours.");
        }
        if (kind == Kind.STEPS && (amount == 0 || Math.abs(amount) > MOST_STEPS)) {
            throw new Refusal("effect", "Steps go by at least one place forwards or back, such as: steps by −1.");
        }
    }

    /** One that takes nothing along. */
    public Effect(Kind kind, String of, int amount) {
        this(kind, of, amount, List.of());
    }

    /** The same with what it takes along. */
    public Effect takingAlong(List<Along> taken) {
        return new Effect(kind, of, amount, taken);
    }

    /** Whether it moves what phrases of this kind set. */
    public boolean takesAlong(Along what) {
        return along.contains(what);
    }

    /**
     * Reads an effect as it is typed: {@code holds}, {@code holds reel}, {@code starts film for 4:37}, {@code stops
     * film}, {@code steps page by -1}, {@code sets page to 3}, {@code levels}, {@code holds scene, takes along levels}.
     *
     * @throws Refusal when its first word is none of the kinds
     */
    public static Effect of(String typed) {
        Matcher taking = ALONG.matcher(typed.strip());
        if (taking.matches()) {
            List<String> said = List.of(taking.group(2).toLowerCase(Locale.ROOT).split(" and "));
            List<Along> along = Arrays.stream(Along.values())
                    .filter(a -> said.contains(a.word()))
                    .toList();
            return of(taking.group(1)).takingAlong(along);
        }
        String[] words = typed.strip().split("\\s+", 2);
        String rest = words.length > 1 ? words[1].strip() : "";
        for (Kind kind : Kind.values()) {
            if (kind.word.equals(words[0].toLowerCase(Locale.ROOT))) {
                return read(kind, rest);
            }
        }
        throw new Refusal(
                "effect",
                "“" + typed + "” is no effect; begin with holds, moment, starts, stops, steps, sets or levels.");
    }

    private static Effect read(Kind kind, String rest) {
        Matcher m = (kind == Kind.STARTS ? LENGTH : kind == Kind.STEPS ? BY : TO).matcher(rest);
        boolean counted = kind == Kind.STARTS || kind == Kind.STEPS || kind == Kind.SETS;
        if (!counted || !m.matches()) {
            if (kind == Kind.SETS) {
                throw new Refusal("effect", "Say to which place it sets its pointer, such as: sets page to 3.");
            }
            return new Effect(kind, rest, kind == Kind.STEPS ? 1 : 0);
        }
        if (kind != Kind.STARTS) {
            return new Effect(kind, m.group(1), Integer.parseInt(m.group(2).replace('−', '-')));
        }
        return m.group(2) != null
                ? new Effect(kind, m.group(1), Integer.parseInt(m.group(2)) * 60 + Integer.parseInt(m.group(3)))
                : new Effect(kind, m.group(4), Integer.parseInt(m.group(5)));
    }

    /** As {@link #of(String)} reads it. */
    @Override
    public String toString() {
        String taken = along.isEmpty()
                ? ""
                : ", takes along " + along.stream().map(Along::word).collect(Collectors.joining(" and "));
        return told() + taken;
    }

    private String told() {
        String said = of.isEmpty() ? kind.word : kind.word + " " + of;
        return switch (kind) {
            case STARTS -> amount == 0 ? said : said + " for %d:%02d".formatted(amount / 60, amount % 60);
            case STEPS ->
                amount == 1 && of.isEmpty() ? said : said + " by " + (amount < 0 ? "−" : "+") + Math.abs(amount);
            case SETS -> said + " to " + amount;
            default -> said;
        };
    }

    /** Whether the device stays in the state that the phrase gave it. */
    public boolean lasts() {
        return kind == Kind.HOLDS || kind == Kind.STARTS || kind == Kind.STEPS || kind == Kind.SETS;
    }
}
