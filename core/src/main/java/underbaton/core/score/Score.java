package underbaton.core.score;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import underbaton.core.rig.Refusal;
import underbaton.core.score.BarMap.MeterMark;

/**
 * A song in bars and beats: meters, tempi, holds, sections, vamps and film slots. Written as {@link ScoreText} says.
 *
 * @param pickUpTicks length of the pick-up before bar 1; 0 for none
 * @param meters the first at bar 1
 * @param tempi the first at tick 0; those of the films are not among them
 * @param sections in the order of their bars
 * @param vamps none within another
 * @param films slots with a tempo of their own; they may overlap what is around them, see {@link #overlaps}
 * @param lastBar the last bar; 0 when nobody has said
 */
public record Score(
        int pickUpTicks,
        List<MeterMark> meters,
        List<TempoMark> tempi,
        List<Hold> holds,
        List<Section> sections,
        List<Vamp> vamps,
        List<Film> films,
        int lastBar) {

    /** Of all kinds together. */
    public static final int MOST_MARKS = 10_000;

    public static final int MOST_BARS = 99_999;

    public Score {
        meters = List.copyOf(meters);
        tempi = List.copyOf(tempi);
        holds = List.copyOf(holds);
        sections =
                sections.stream().sorted(Comparator.comparingInt(Section::bar)).toList();
        vamps = vamps.stream().sorted(Comparator.comparingInt(Vamp::bar)).toList();
        films = films.stream().sorted(Comparator.comparingInt(Film::bar)).toList();
        requireFitting(sections);
        requireApart(vamps);
        requireMeasure(meters, tempi, holds, sections, vamps, films, lastBar);
        BarMap bars = new BarMap(pickUpTicks, meters);
        requireTicks(bars, tempi, holds);
        new TempoMap(withFilms(bars, tempi, films), holds);
    }

    private static void requireMeasure(
            List<MeterMark> meters,
            List<TempoMark> tempi,
            List<Hold> holds,
            List<Section> sections,
            List<Vamp> vamps,
            List<Film> films,
            int lastBar) {
        int marks = Stream.of(meters, tempi, holds, sections, vamps, films)
                .mapToInt(List::size)
                .sum();
        if (marks > MOST_MARKS) {
            throw new Refusal(
                    "score",
                    "This song has " + marks + " changes of tempo, sections and the like, and a score holds "
                            + MOST_MARKS + "; thin its tempo track out, or cut the song in two.");
        }
        IntStream bars = Stream.of(
                        meters.stream().map(MeterMark::bar),
                        sections.stream().map(Section::bar),
                        vamps.stream().map(Vamp::after),
                        films.stream().map(Film::bar),
                        Stream.of(lastBar))
                .flatMap(s -> s)
                .mapToInt(b -> b);
        if (bars.anyMatch(b -> b < 0 || b > MOST_BARS)) {
            throw tooLong();
        }
    }

    private static void requireTicks(BarMap bars, List<TempoMark> tempi, List<Hold> holds) {
        long end = bars.tickOfBar(MOST_BARS);
        boolean within = tempi.stream().allMatch(t -> t.tick() <= end && t.overTicks() <= end)
                && holds.stream().allMatch(h -> h.tick() <= end);
        if (!within) {
            throw tooLong();
        }
    }

    private static Refusal tooLong() {
        return new Refusal("score", "A song has at most " + MOST_BARS + " bars.");
    }

    private static void requireFitting(List<Section> sections) {
        Set<Integer> bars = new HashSet<>();
        Set<String> letters = new HashSet<>();
        for (Section section : sections) {
            if (!bars.add(section.bar())) {
                throw new Refusal("section", "Two sections begin at bar " + section.bar() + "; keep one of them.");
            }
            if (!letters.add(section.letter())) {
                throw new Refusal(
                        "section", "Two sections are lettered " + section.letter() + "; give one another letter.");
            }
        }
        for (Section section : sections) {
            section.as().ifPresent(letter -> {
                Section of = sections.stream()
                        .filter(s -> s.letter().equals(letter))
                        .findFirst()
                        .orElseThrow(() -> new Refusal(
                                "section",
                                "Section " + section.letter() + " is “as " + letter + "”, but there is no section "
                                        + letter + "."));
                if (of.as().isPresent()) {
                    throw new Refusal(
                            "section",
                            "Section " + letter + " is itself another again; write “as "
                                    + of.as().get() + "”.");
                }
            });
        }
    }

    private static void requireApart(List<Vamp> vamps) {
        for (int i = 1; i < vamps.size(); i++) {
            if (vamps.get(i).bar() < vamps.get(i - 1).after()) {
                throw new Refusal(
                        "vamp",
                        "The vamps at bars " + vamps.get(i - 1).bar() + " and "
                                + vamps.get(i).bar() + " run into each other; move one of them.");
            }
        }
    }

    /** The tempi with those of the films: each slot begins with its own and ends, at a barline, with the one outside. */
    private static List<TempoMark> withFilms(BarMap bars, List<TempoMark> tempi, List<Film> films) {
        List<TempoMark> all = new ArrayList<>(tempi);
        for (Film film : films) {
            long start = bars.tickOfBar(film.bar());
            long end = slotEnd(bars, film);
            for (TempoMark mark : tempi) {
                boolean runsIn = mark.tick() + mark.overTicks() > start && mark.tick() < start;
                if (mark.tick() >= start && mark.tick() < end && mark.tick() > 0 || runsIn) {
                    throw new Refusal(
                            "tempo",
                            "“" + mark.tempo() + "” at bar "
                                    + bars.position(mark.tick()).bar()
                                    + " lies in the film from bar " + film.bar() + " to "
                                    + (bars.position(end).bar() - 1)
                                    + ", which keeps a tempo of its own; put it outside, or write the film “at "
                                    + mark.tempo() + "”.");
                }
            }
            boolean covered = films.stream()
                    .anyMatch(f -> f != film && bars.tickOfBar(f.bar()) <= start && slotEnd(bars, f) > start);
            if (!covered) {
                all.removeIf(m -> m.tick() == start);
                all.add(TempoMark.at(start, film.tempo()));
            }
            boolean goesOn =
                    films.stream().anyMatch(f -> f != film && bars.tickOfBar(f.bar()) <= end && slotEnd(bars, f) > end);
            if (!goesOn && all.stream().noneMatch(m -> m.tick() == end)) {
                all.add(TempoMark.at(end, standing(tempi, start)));
            }
        }
        return all;
    }

    private static Tempo standing(List<TempoMark> tempi, long tick) {
        return tempi.stream()
                .filter(m -> m.tick() <= tick)
                .max(Comparator.comparingLong(TempoMark::tick))
                .map(TempoMark::tempo)
                .orElse(Film.USUAL);
    }

    /** The first barline at or behind the end of a film. */
    private static long slotEnd(BarMap bars, Film film) {
        long end = bars.tickOfBar(film.bar()) + film.ticks();
        Position last = bars.position(end);
        long barline = bars.tickOfBar(last.bar());
        return barline == end ? end : bars.tickOfBar(last.bar() + 1);
    }

    /** The maps of a score, made once for many questions. */
    public record Times(Score score, BarMap bars, TempoMap tempi) {

        /**
         * @return ns since the start of the item
         * @throws Refusal when the bar has no such beat
         */
        public long nanos(Position position) {
            return tempi.nanos(bars.tick(position));
        }

        /** @return ns since the start of the item at which a bar begins */
        public long nanosOfBar(int bar) {
            return tempi.nanos(bars.tickOfBar(bar));
        }

        /**
         * @param bar that somebody asks for
         * @return ns since the start of the item at which it begins
         * @throws Refusal when the song has no such bar; it says which it has
         */
        public long nanosOfBarAsked(int bar) {
            if (bar < score.firstBar() || bar > score.endBar()) {
                throw new Refusal(
                        "bar", "It has bars " + score.firstBar() + " to " + score.endBar() + ", not " + bar + ".");
            }
            return nanosOfBar(bar);
        }

        /** The tick at which a film is over, whatever tempo or hold stands in its slot. */
        public long endOf(Film film) {
            return tempi.tick(nanosOfBar(film.bar()) + film.millis() * 1_000_000L);
        }

        /** The tick at which a section ends: where the next one begins, or at the end of the score. */
        public long endOf(Section section) {
            return score.sections().stream()
                    .filter(s -> s.bar() > section.bar())
                    .findFirst()
                    .map(s -> bars.tickOfBar(s.bar()))
                    .orElseGet(() -> bars.tickOfBar(score.endBar() + 1));
        }
    }

    /**
     * Something that begins while a film still runs.
     *
     * @param what “C Chorus”, or the name of the next film
     * @param bar where it begins
     * @param leftMillis how much of the film is still to come then, ms
     */
    public record Overlap(Film film, String what, int bar, long leftMillis) {}

    /** What has been drawn into the slots of the films. */
    public List<Overlap> overlaps() {
        Times times = read();
        List<Overlap> found = new ArrayList<>();
        for (Film film : films) {
            sections.forEach(s -> overlap(times, film, s.bar(), ("section " + s.letter() + " " + s.name()).strip())
                    .ifPresent(found::add));
            films.stream().filter(f -> f != film).forEach(f -> overlap(
                            times, film, f.bar(), ("film " + f.name()).strip())
                    .ifPresent(found::add));
            vamps.forEach(v -> overlap(times, film, v.bar(), "the vamp").ifPresent(found::add));
        }
        return found;
    }

    private static Optional<Overlap> overlap(Times times, Film film, int bar, String what) {
        long at = times.nanosOfBar(bar);
        long from = times.nanosOfBar(film.bar());
        long to = from + film.millis() * 1_000_000L;
        return bar > film.bar() && at < to
                ? Optional.of(new Overlap(film, what, bar, (to - at + 999_999) / 1_000_000))
                : Optional.empty();
    }

    /** Where bars and beats are, in ticks. */
    public BarMap bars() {
        return new BarMap(pickUpTicks, meters);
    }

    /** Bars, tempi and holds worked out once, for whoever asks of many places. */
    public Times read() {
        BarMap bars = bars();
        return new Times(this, bars, new TempoMap(withFilms(bars, tempi, films), holds));
    }

    /**
     * One answer; for many ask {@link #read}.
     *
     * @return ns since the start of the item
     * @throws Refusal when the bar has no such beat
     */
    public long nanos(Position position) {
        return read().nanos(position);
    }

    /** The section with this rehearsal letter. */
    public Optional<Section> section(String letter) {
        return sections.stream().filter(s -> s.letter().equals(letter)).findFirst();
    }

    /** 0 where a pick-up stands before bar 1. */
    public int firstBar() {
        return pickUpTicks > 0 ? 0 : 1;
    }

    /** The last bar: the one that was said, or else the last that anything of the score touches. */
    public int endBar() {
        if (lastBar > 0) {
            return lastBar;
        }
        BarMap bars = bars();
        return Stream.of(
                        meters.stream().map(MeterMark::bar),
                        tempi.stream().map(t -> bars.position(t.tick() + t.overTicks())
                                .bar()),
                        holds.stream().map(h -> bars.position(h.tick()).bar()),
                        sections.stream().map(s -> s.bar() + 7),
                        vamps.stream().map(v -> v.after() - 1),
                        films.stream()
                                .map(f -> bars.position(slotEnd(bars, f) - 1).bar()))
                .flatMap(s -> s)
                .max(Integer::compare)
                .orElse(1);
    }

    /** The same with other sections. */
    public Score withSections(List<Section> changed) {
        return new Score(pickUpTicks, meters, tempi, holds, changed, vamps, films, lastBar);
    }

    /** @throws Refusal naming the line that cannot be read */
    public static Score of(String typed) {
        return ScoreText.read(typed);
    }

    @Override
    public String toString() {
        return ScoreText.write(this);
    }
}
