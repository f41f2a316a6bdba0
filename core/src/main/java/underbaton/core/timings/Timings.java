package underbaton.core.timings;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;

/**
 * How long each item of a run lasted beside what was planned. An item lasts until the next one begins, the last one until the
 * run ends, so what lies between two items belongs to the one before. All times are µs, as µs since 1970 where they are
 * moments.
 *
 * @param rows the items in the order in which they were played; one that was come back to stands there twice
 * @param overMicros by how much the items that are over, and the one under way as far as it is over its plan already, are
 *     over, or, below 0, under
 * @param endsAt when the run will be over if all that comes lasts as long as it is planned; empty when it is over, or when
 *     nothing that is planned is still to come
 */
public record Timings(List<Row> rows, long overMicros, OptionalLong endsAt) {

    /** An item as the running order has it. @param plannedSeconds 0 when nobody knows */
    public record Planned(int itemId, String name, int plannedSeconds, boolean armed) {}

    /**
     * One item as it was played.
     *
     * @param endedAt empty while it goes on
     * @param lastedMicros until its end, or until now
     */
    public record Row(Planned item, long beganAt, OptionalLong endedAt, long lastedMicros) {

        /** Over its plan or, below 0, under it; empty without a plan, and while it goes on and is not over it. */
        public Optional<Long> overMicros() {
            if (item.plannedSeconds == 0) {
                return Optional.empty();
            }
            long over = lastedMicros - item.plannedSeconds * 1_000_000L;
            return endedAt.isEmpty() && over < 0 ? Optional.empty() : Optional.of(over);
        }
    }

    /**
     * @param order the running order
     * @param moments of the run, in the order of their times
     * @param ended when the run ended; empty while it goes on
     * @param now the present moment; of no meaning for a run that is over
     */
    public static Timings of(List<Planned> order, List<Moment> moments, OptionalLong ended, long now) {
        List<Row> rows = new ArrayList<>();
        List<Moment> begins = begins(moments);
        for (int i = 0; i < begins.size(); i++) {
            Moment begin = begins.get(i);
            boolean last = i + 1 == begins.size();
            OptionalLong end = last ? ended : OptionalLong.of(begins.get(i + 1).epochMicros());
            Planned item = order.stream()
                    .filter(p -> p.itemId == begin.itemId())
                    .findFirst()
                    .orElse(new Planned(begin.itemId(), begin.words(), 0, true));
            rows.add(new Row(item, begin.epochMicros(), end, Math.max(0, end.orElse(now) - begin.epochMicros())));
        }
        long over = rows.stream().mapToLong(r -> r.overMicros().orElse(0L)).sum();
        return new Timings(List.copyOf(rows), over, ended.isPresent() ? OptionalLong.empty() : end(order, rows, now));
    }

    /** An item that is begun again before another one is has gone on. */
    private static List<Moment> begins(List<Moment> moments) {
        List<Moment> begins = new ArrayList<>();
        for (Moment m : moments) {
            boolean again = !begins.isEmpty() && begins.get(begins.size() - 1).itemId() == m.itemId();
            if (m.kind() == Moment.Kind.ITEM && !again) {
                begins.add(m);
            }
        }
        return begins;
    }

    private static OptionalLong end(List<Planned> order, List<Row> rows, long now) {
        Set<Integer> played = new HashSet<>();
        rows.forEach(r -> played.add(r.item.itemId));
        int from = 0;
        long left = 0;
        if (!rows.isEmpty()) {
            Row current = rows.get(rows.size() - 1);
            left = Math.max(0, current.item.plannedSeconds * 1_000_000L - current.lastedMicros);
            for (int i = 0; i < order.size(); i++) {
                from = order.get(i).itemId == current.item.itemId ? i + 1 : from;
            }
        }
        for (Planned item : order.subList(from, order.size())) {
            left += item.armed && !played.contains(item.itemId) ? item.plannedSeconds * 1_000_000L : 0;
        }
        return left == 0 ? OptionalLong.empty() : OptionalLong.of(now + left);
    }
}
