package underbaton.core.store;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Stream;
import underbaton.core.cue.HandPage;
import underbaton.core.cue.Item;
import underbaton.core.cue.Show;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.core.signal.Listener;

/**
 * A whole show as one JSON document, after {@code docs/formats/show.schema.json}. Its numbers for machines, phrases, items
 * and cues count within the file and are no ids of a database, so the same show gives the same bytes wherever it is kept.
 */
public final class ShowFile {

    public static final String FORMAT = "under-baton-show";
    public static final int VERSION = 1;
    /** Largest file that is read, in bytes. */
    public static final int LARGEST = 32_000_000;

    private ShowFile() {}

    /** The file's fields, in their order. */
    private record Content(
            String format,
            int version,
            String name,
            List<Device> devices,
            List<Item> items,
            List<Listener> listeners,
            List<HandPage> hands) {}

    /** What can be said of a file before it is read. */
    private record Head(String format, Optional<Integer> version) {}

    /** @return UTF-8, ending with a line end */
    public static byte[] write(Show show) {
        Show counted = show.numberedAnew();
        String text = StoredForm.writeIndented(new Content(
                FORMAT,
                VERSION,
                counted.name(),
                counted.devices(),
                counted.items(),
                counted.listeners(),
                counted.hands()));
        return (text.replace("\r\n", "\n") + "\n").getBytes(StandardCharsets.UTF_8);
    }

    /**
     * @param id that the show gets
     * @return the show at revision 1
     * @throws Refusal when it is no show, of a later version, or something in it cannot be
     */
    public static Show read(int id, byte[] file) {
        String text = Utf8.text(file, LARGEST);
        Content content;
        try {
            content = StoredForm.read(text, Content.class);
        } catch (Refusal unread) {
            throw told(text, unread);
        }
        requireOurs(content.format, content.version);
        requireNoTwins(content);
        return new Show(
                        id,
                        content.name,
                        1,
                        Show.nextId(content.devices, content.items, content.listeners, content.hands),
                        content.devices,
                        content.items,
                        content.listeners,
                        content.hands)
                .numberedAnew();
    }

    /** A later version's file has keys that are not known here; what is wrong with it is its version, not these. */
    private static Refusal told(String text, Refusal unread) {
        try {
            Head head = StoredForm.readLeniently(text, Head.class);
            requireOurs(head.format, head.version.orElse(VERSION));
            return new Refusal("file", "The file cannot be read at " + unread.getMessage());
        } catch (Refusal notOurs) {
            return notOurs;
        }
    }

    /** A cell names a machine and its phrase in words, so each name stands for one. */
    private static void requireNoTwins(Content content) {
        requireNoTwins("machines", content.devices.stream().map(Device::name));
        for (Device device : content.devices) {
            requireNoTwins(
                    "phrases of " + device.name(), device.phrases().stream().map(Phrase::name));
        }
    }

    private static void requireNoTwins(String kind, Stream<String> names) {
        Set<String> known = new TreeSet<>(String.CASE_INSENSITIVE_ORDER);
        names.filter(n -> !known.add(n)).findFirst().ifPresent(n -> {
            throw new Refusal(
                    "file",
                    "Two of the " + kind + " in the file are called “" + n + "”; give one of them another name there.");
        });
    }

    private static void requireOurs(String format, int version) {
        if (!FORMAT.equals(format)) {
            throw new Refusal("file", "This is no file of a show; one begins with \"format\": \"" + FORMAT + "\".");
        }
        if (version != VERSION) {
            throw new Refusal(
                    "file",
                    "The file is of version " + version + ", and this Under Baton reads version " + VERSION
                            + "; open it with the one that wrote it, or a later one.");
        }
    }
}
