package underbaton.core.cue;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import underbaton.core.rig.Refusal;

/** The edits of a show's pages of hand cues. Each answers another show. */
public final class Hands {

    private static final int ROWS = 3;
    private static final int COLUMNS = 4;

    private Hands() {}

    /** The page with this id, if it is there. */
    public static Optional<HandPage> page(Show show, int pageId) {
        return show.hands().stream().filter(p -> p.id() == pageId).findFirst();
    }

    /** The key with this id, on whichever page. */
    public static Optional<HandKey> key(Show show, int keyId) {
        return keys(show).filter(k -> k.id() == keyId).findFirst();
    }

    /** All keys of all pages, page by page. */
    public static Stream<HandKey> keys(Show show) {
        return show.hands().stream().flatMap(p -> p.keys().stream());
    }

    /** The first key of that name, whatever its capitals. */
    public static Optional<HandKey> named(Show show, String name) {
        return keys(show).filter(k -> k.name().equalsIgnoreCase(name.strip())).findFirst();
    }

    /** The page on which this key is. */
    public static Optional<HandPage> pageOf(Show show, int keyId) {
        return show.hands().stream().filter(p -> p.key(keyId).isPresent()).findFirst();
    }

    /** A new page at the end, of three rows of four. */
    public static Show withPage(Show show, String name) {
        HandPage page = new HandPage(show.nextId(), name, ROWS, COLUMNS, List.of());
        return with(show, appended(show.hands(), page), show.nextId() + 1);
    }

    /** @throws Refusal when a key would lose its place */
    public static Show withGrid(Show show, int pageId, String name, int rows, int columns) {
        return exchanged(show, require(show, pageId).withGrid(name, rows, columns));
    }

    /** Without this page and its keys; as it was when it is not there. */
    public static Show withoutPage(Show show, int pageId) {
        return with(show, show.hands().stream().filter(p -> p.id() != pageId).toList(), show.nextId());
    }

    /** Moves a page to another place among the pages, 0 being the first. */
    public static Show withPageAt(Show show, int pageId, int place) {
        HandPage page = require(show, pageId);
        List<HandPage> pages = new ArrayList<>(show.hands());
        pages.remove(page);
        pages.add(Math.max(0, Math.min(place, pages.size())), page);
        return with(show, pages, show.nextId());
    }

    /**
     * Adds a key (id 0), or exchanges the one with the same id.
     *
     * @throws Refusal when its place is taken by another, or is not on the page
     */
    public static Show withKey(Show show, int pageId, HandKey key) {
        HandPage page = require(show, pageId);
        HandKey placed = key.id() == 0 ? key.withId(show.nextId()) : key;
        List<HandKey> keys = new ArrayList<>(page.keys());
        keys.removeIf(k -> k.id() == placed.id());
        keys.add(placed);
        HandPage changed = page.withKeys(keys);
        return with(show, replaced(show.hands(), changed), key.id() == 0 ? show.nextId() + 1 : show.nextId());
    }

    /** @throws underbaton.core.rig.Refusal when the key is gone */
    public static Show withoutKey(Show show, int keyId) {
        HandPage page = pageOf(show, keyId).orElseThrow(Hands::gone);
        return exchanged(
                show,
                page.withKeys(page.keys().stream().filter(k -> k.id() != keyId).toList()));
    }

    /** Moves a key to a place of its page or of another; one that is there goes to where the key came from. */
    public static Show withKeyAt(Show show, int keyId, int pageId, int row, int column) {
        HandPage from = pageOf(show, keyId).orElseThrow(Hands::gone);
        HandKey key = from.key(keyId).orElseThrow();
        HandPage to = require(show, pageId);
        Optional<HandKey> there = to.at(row, column).filter(k -> k.id() != keyId);
        HandPage left = from.withKeys(without(from, keyId, there));
        HandPage free = from.id() == pageId ? left : to.withKeys(without(to, keyId, there));
        HandPage filled = free.withKeys(appended(free.keys(), key.at(row, column)));
        HandPage back = from.id() == pageId ? filled : left;
        HandPage given = there.map(k -> back.withKeys(appended(back.keys(), k.at(key.row(), key.column()))))
                .orElse(back);
        List<HandPage> pages = replaced(show.hands(), given);
        return with(show, from.id() == pageId ? pages : replaced(pages, filled), show.nextId());
    }

    private static List<HandKey> without(HandPage page, int keyId, Optional<HandKey> there) {
        return page.keys().stream()
                .filter(k ->
                        k.id() != keyId && there.filter(t -> t.id() == k.id()).isEmpty())
                .toList();
    }

    private static HandPage require(Show show, int pageId) {
        return page(show, pageId)
                .orElseThrow(() -> new Refusal("page", "That page is no longer in the show; reload the page."));
    }

    private static Refusal gone() {
        return new Refusal("key", "That key is no longer in the show; reload the page.");
    }

    private static Show exchanged(Show show, HandPage page) {
        return with(show, replaced(show.hands(), page), show.nextId());
    }

    private static List<HandPage> replaced(List<HandPage> pages, HandPage page) {
        return pages.stream().map(p -> p.id() == page.id() ? page : p).toList();
    }

    private static <T> List<T> appended(List<T> list, T last) {
        return Stream.concat(list.stream(), Stream.of(last)).toList();
    }

    private static Show with(Show show, List<HandPage> pages, int nextId) {
        return new Show(
                show.id(),
                show.name(),
                show.revision() + 1,
                nextId,
                show.devices(),
                show.items(),
                show.listeners(),
                pages);
    }
}
