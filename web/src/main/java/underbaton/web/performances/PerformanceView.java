package underbaton.web.performances;

import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import underbaton.core.cue.PlannedLength;
import underbaton.core.plan.Plan;
import underbaton.core.plan.PlannedItem;
import underbaton.core.timings.Moment;
import underbaton.core.timings.Timings;
import underbaton.web.record.PerformanceMapper;
import underbaton.web.record.Recorder;

/**
 * One run as its page prints it.
 *
 * @param key the moment it began, µs since 1970
 * @param chart each item's plan and actual length drawn side by side, all to one scale
 */
public record PerformanceView(
        long key,
        String day,
        String began,
        String ended,
        boolean goesOn,
        String lasted,
        String planned,
        String over,
        String endsAt,
        List<Row> rows,
        Chart chart,
        List<Line> notes,
        List<Line> moments) {

    private static final DateTimeFormatter DAY =
            DateTimeFormatter.ofPattern("EEEE d MMMM yyyy").withZone(ZoneId.systemDefault());
    private static final DateTimeFormatter TIME =
            DateTimeFormatter.ofPattern("HH:mm:ss").withZone(ZoneId.systemDefault());
    private static final int CHART_WIDTH = 420;
    private static final int ROW_HEIGHT = 34;

    /** @param over with its sign; empty without a plan */
    public record Row(String name, String began, String planned, String lasted, String over, boolean isOver) {}

    /** @param bars from above */
    public record Chart(int width, int height, List<Bar> bars) {}

    /** Widths in px. */
    public record Bar(int y, int planned, int lasted, boolean isOver) {}

    /** @param where bar and beat in the item; empty where no music played */
    public record Line(String time, String kind, String item, String words, String where) {}

    static PerformanceView of(PerformanceMapper.RunRow run, List<Moment> moments, Plan plan, boolean goesOn, long now) {
        OptionalLong ended = goesOn
                ? OptionalLong.empty()
                : OptionalLong.of(
                        run.endedMicros() != null
                                ? run.endedMicros()
                                : moments.isEmpty()
                                        ? run.beganMicros()
                                        : moments.get(moments.size() - 1).epochMicros());
        Timings timings = Timings.of(Recorder.planned(plan), moments, ended, now);
        long planned = plan.items().stream()
                .filter(PlannedItem::armed)
                .mapToLong(PlannedItem::seconds)
                .sum();
        List<Line> lines = moments.stream().map(m -> line(m, plan)).toList();
        return new PerformanceView(
                run.beganMicros(),
                DAY.format(at(run.beganMicros())),
                TIME.format(at(run.beganMicros())),
                ended.isPresent() ? TIME.format(at(ended.getAsLong())) : "",
                goesOn,
                length(ended.orElse(now) - run.beganMicros()),
                planned == 0 ? "" : PlannedLength.tell((int) planned),
                signed(timings.overMicros()),
                timings.endsAt().isPresent() ? TIME.format(at(timings.endsAt().getAsLong())) : "",
                timings.rows().stream().map(PerformanceView::row).toList(),
                chart(timings),
                lines.stream().filter(l -> l.kind.equals("note")).toList(),
                lines);
    }

    private static Row row(Timings.Row r) {
        Optional<Long> over = r.overMicros();
        return new Row(
                r.item().name(),
                TIME.format(at(r.beganAt())),
                r.item().plannedSeconds() == 0
                        ? ""
                        : PlannedLength.tell(r.item().plannedSeconds()),
                length(r.lastedMicros()),
                over.map(PerformanceView::signed).orElse(""),
                over.orElse(0L) > 0);
    }

    private static Chart chart(Timings timings) {
        long longest = timings.rows().stream()
                .mapToLong(r -> Math.max(r.lastedMicros(), r.item().plannedSeconds() * 1_000_000L))
                .max()
                .orElse(1);
        List<Bar> bars = new java.util.ArrayList<>();
        for (Timings.Row r : timings.rows()) {
            bars.add(new Bar(
                    bars.size() * ROW_HEIGHT,
                    scaled(r.item().plannedSeconds() * 1_000_000L, longest),
                    scaled(r.lastedMicros(), longest),
                    r.overMicros().orElse(0L) > 0));
        }
        return new Chart(CHART_WIDTH, bars.size() * ROW_HEIGHT, bars);
    }

    private static int scaled(long micros, long longest) {
        return (int) (micros * (CHART_WIDTH - 2) / Math.max(1, longest));
    }

    private static Line line(Moment m, Plan plan) {
        Optional<PlannedItem> item = plan.item(m.itemId());
        String where = m.positionNanos() < 0
                ? ""
                : item.flatMap(PlannedItem::times)
                        .map(t -> {
                            var place = t.bars().position(t.tempi().tick(m.positionNanos()));
                            return place.bar() + ":" + place.beat();
                        })
                        .orElse("");
        return new Line(
                TIME.format(at(m.epochMicros())),
                KINDS.get(m.kind()),
                item.map(i -> i.item().name()).orElse(""),
                m.words(),
                where);
    }

    private static final Map<Moment.Kind, String> KINDS = Map.of(
            Moment.Kind.ORDER, "order",
            Moment.Kind.ITEM, "item",
            Moment.Kind.ITEM_ENDED, "end of",
            Moment.Kind.CUE, "cue",
            Moment.Kind.NOTE, "note");

    private static Instant at(long micros) {
        return Instant.EPOCH.plus(micros, ChronoUnit.MICROS);
    }

    private static String length(long micros) {
        return PlannedLength.tell((int) ((micros + 500_000) / 1_000_000));
    }

    /** {@code +1:20}, {@code −0:05}. */
    static String signed(long micros) {
        long seconds = Math.round(Math.abs(micros) / 1e6);
        return seconds == 0 ? "0:00" : (micros < 0 ? "−" : "+") + PlannedLength.tell((int) seconds);
    }
}
