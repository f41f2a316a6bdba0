package underbaton.web.hands;

import java.util.ArrayList;
import java.util.List;
import underbaton.core.cue.Call;
import underbaton.core.cue.HandKey;
import underbaton.core.cue.HandPage;
import underbaton.core.cue.Hands;
import underbaton.core.cue.Show;
import underbaton.core.rig.Device;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Remarks.Mark;
import underbaton.core.store.StoredForm;

/**
 * Keys as they go through the clipboard: in words, with the names of their machines, so that another show with the same machines can
 * take them.
 *
 * @param name of the page, where a whole page is copied; else empty
 * @param rows of that page; 0 where single keys are copied
 */
record CopiedKeys(String kind, String name, int rows, int columns, List<Key> keys) {

    private static final String KIND = "hand keys";
    private static final int LONGEST = 200_000;

    record Key(
            int row,
            int column,
            String name,
            Mark mark,
            HandKey.Way way,
            boolean guarded,
            List<Told> on,
            List<Told> off) {}

    /** What a machine is told. */
    record Told(String machine, String says) {}

    /** What was pasted, and which calls no machine here could take. */
    record Pasted(Show show, int pageId, List<String> left) {}

    static String of(Show show, HandKey key) {
        return StoredForm.write(new CopiedKeys(KIND, "", 0, 0, List.of(copied(show, key))));
    }

    static String of(Show show, HandPage page) {
        List<Key> keys = page.keys().stream().map(k -> copied(show, k)).toList();
        return StoredForm.write(new CopiedKeys(KIND, page.name(), page.rows(), page.columns(), keys));
    }

    private static Key copied(Show show, HandKey key) {
        return new Key(
                key.row(),
                key.column(),
                key.name(),
                key.mark(),
                key.way(),
                key.guarded(),
                told(show, key.on()),
                told(show, key.off()));
    }

    private static List<Told> told(Show show, List<Call> calls) {
        return calls.stream()
                .map(c -> new Told(show.device(c.deviceId()).map(Device::name).orElse(""), KeyForm.says(show, c)))
                .toList();
    }

    static CopiedKeys read(String text) {
        try {
            if (text.length() <= LONGEST) {
                CopiedKeys read = StoredForm.read(text, CopiedKeys.class);
                if (read.kind.equals(KIND) && (read.rows > 0 || read.keys.size() == 1)) {
                    return read;
                }
            }
        } catch (Refusal other) {
            // Told below, as anything else that is no key.
        }
        throw new Refusal("paste", "What is on the clipboard is no key of a hand page; copy one first.");
    }

    /** A key at a place, in the stead of the one that is there; or a whole page at the end of the pages. */
    Pasted into(Show show, int pageId, int row, int column) {
        List<String> left = new ArrayList<>();
        if (rows == 0) {
            HandPage page = Hands.page(show, pageId)
                    .orElseThrow(() -> new Refusal("page", "That page is gone; reload the page."));
            int there = page.at(row, column).map(HandKey::id).orElse(0);
            Key key = keys.get(0);
            return new Pasted(Hands.withKey(show, pageId, key(show, key, there, row, column, left)), pageId, left);
        }
        Show with = Hands.withPage(show, name);
        int id = with.hands().get(with.hands().size() - 1).id();
        with = Hands.withGrid(with, id, name, rows, columns);
        for (Key key : keys) {
            with = Hands.withKey(with, id, key(with, key, 0, key.row, key.column, left));
        }
        return new Pasted(with, id, left);
    }

    private static HandKey key(Show show, Key key, int id, int row, int column, List<String> left) {
        return new HandKey(
                id,
                row,
                column,
                key.name,
                key.mark,
                key.way,
                calls(show, key, key.on, left),
                calls(show, key, key.off, left),
                key.guarded);
    }

    private static List<Call> calls(Show show, Key key, List<Told> told, List<String> left) {
        List<Call> calls = new ArrayList<>();
        for (Told each : told) {
            Device device = show.devices().stream()
                    .filter(d -> d.name().equalsIgnoreCase(each.machine))
                    .findFirst()
                    .orElse(null);
            try {
                if (device == null) {
                    throw new Refusal("machine", "there is no " + each.machine + " here");
                }
                calls.addAll(KeyForm.calls("says", device, each.says));
            } catch (Refusal cannot) {
                left.add("“" + key.name + "”, " + each.machine + ": “" + each.says + "” is left out; "
                        + cannot.getMessage());
            }
        }
        return calls;
    }
}
