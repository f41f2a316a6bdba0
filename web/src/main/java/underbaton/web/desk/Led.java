package underbaton.web.desk;

import java.util.EnumSet;
import java.util.Optional;
import java.util.Set;
import underbaton.core.engine.PlaybackState;
import underbaton.core.engine.follow.FollowState;
import underbaton.core.engine.music.Playing;
import underbaton.core.follow.CodeHeard;
import underbaton.core.follow.Doing;
import underbaton.core.follow.Following;
import underbaton.core.loop.Clock;
import underbaton.core.plan.PlannedItem;
import underbaton.core.rig.Device;

/**
 * How the item that plays, or stands by, gets on with the machine by whose time it goes.
 *
 * @param words {@code follows Film player}
 * @param says what the machine says, where that is of use
 * @param key what the key does now; empty for nothing
 * @param astray whether the operator has to look
 */
record Led(String words, long sinceEpochMillis, String says, String key, boolean astray) {

    private static final Set<Doing> CALM = EnumSet.of(Doing.FOLLOWS, Doing.WAITS, Doing.JUMPS, Doing.BY_HAND);

    static Optional<Led> of(PlaybackState state, Clock clock) {
        Optional<PlannedItem> item = state.playing().map(Playing::item).or(() -> state.standbyCue()
                .flatMap(c -> state.plan().item(c.item().id())));
        return item.flatMap(i -> i.item().follows())
                .filter(how ->
                        how.kind() != Following.Kind.TAPS || state.playing().isPresent())
                .map(how -> of(state, how, clock));
    }

    private static Led of(PlaybackState state, Following how, Clock clock) {
        FollowState follow = state.follow();
        Doing doing = follow.doing().doing();
        // Nothing was heard or ordered since it stands by.
        Doing shown = doing == Doing.NOTHING ? Doing.WAITS : doing;
        boolean taps = how.kind() == Following.Kind.TAPS;
        String machine = state.plan()
                .device(how.deviceId())
                .map(Device::name)
                .orElse(taps ? "the taps" : "a machine that is gone");
        return new Led(
                shown.words(machine),
                doing == Doing.NOTHING ? 0 : clock.epochMicrosAt(follow.doing().nanos()) / 1000,
                says(shown, how, follow.of(how.deviceId()).code()),
                taps ? "" : shown == Doing.BY_HAND ? "follow it again" : shown.isLed() ? "take it by hand" : "",
                !taps && !CALM.contains(shown));
    }

    private static String says(Doing doing, Following how, CodeHeard code) {
        if (how.kind() != Following.Kind.CODE || code.place().isEmpty()) {
            return "";
        }
        CodeHeard.Place place = code.place().get();
        return switch (doing) {
            case OTHER_RATE ->
                "it sends " + place.rate().words() + " frames a second, and "
                        + how.rate().words() + " are expected: the item’s form in the Book";
            case ELSEWHERE, STANDS, SILENT, WAITS -> "at " + place.frame();
            default -> "";
        };
    }
}
