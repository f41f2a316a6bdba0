package underbaton.core.exchange;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Show;
import underbaton.core.cue.Start;
import underbaton.core.exchange.PhraseMatch.Found;
import underbaton.core.exchange.Song.CuePoint;
import underbaton.core.exchange.Song.Part;
import underbaton.core.exchange.Song.TimedMessage;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Cut;
import underbaton.core.rig.Device;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Wording;
import underbaton.core.score.Score;

/**
 * A song held against the phrasebooks of a show: what its parts would call, and what nobody's phrasebook says. A call is
 * as much later than its message as its device must be told early, so that the plan sends it at the very same time.
 */
public final class Offer {

    private static final int MOST_CALLS = 64;
    private static final int MOST_UNMATCHED = 12;

    private final Show show;
    private final Song song;
    private final List<Entry> entries = new ArrayList<>();
    private final Optional<Score.Times> times;

    /**
     * One part and what became of it.
     *
     * @param device that takes it; empty where it is left out
     * @param calls how many calls of it were found
     * @param loose how many of these have another velocity in the phrasebook
     * @param unmatched messages that the phrasebook does not say
     */
    public record Entry(Part part, Optional<Device> device, int calls, int loose, List<Missing> unmatched) {

        /** The first of the unmatched ones. */
        public List<Missing> shown() {
            return unmatched.subList(0, Math.min(MOST_UNMATCHED, unmatched.size()));
        }

        /** A message as the device itself would print it: {@code note E3}. */
        public String told(Missing missing) {
            Numbering numbering = device.map(Device::numbering).orElse(Numbering.WIRE);
            return new Wording(numbering).write(missing.said.message());
        }
    }

    /** @param place in the song, such as 17:3 */
    public record Missing(String place, TimedMessage said) {}

    private final Map<Long, List<Found>> found = new TreeMap<>();

    /**
     * @param chosen by the number of a part from 0, the id of the device that takes it, 0 for none; for those not in it
     *     the device with the part's name, or else the one whose phrasebook says most of it
     */
    public Offer(Song song, Show show, Map<Integer, Integer> chosen) {
        this.song = song;
        this.show = show;
        this.times = song.score().map(Score::read);
        for (int i = 0; i < song.parts().size(); i++) {
            Part part = song.parts().get(i);
            Optional<Device> device = chosen.containsKey(i) ? show.device(chosen.get(i)) : meant(show, part);
            entries.add(entry(part, device));
        }
    }

    private static Optional<Device> meant(Show show, Part part) {
        Optional<Device> named = midi(show).stream()
                .filter(d -> d.name().equalsIgnoreCase(part.name()))
                .findFirst();
        if (named.isPresent()) {
            return named;
        }
        Device best = null;
        int most = 0;
        for (Device device : midi(show)) {
            int hits = part.said().size()
                    - new PhraseMatch(device, part.said()).unmatched().size();
            if (hits > most) {
                most = hits;
                best = device;
            }
        }
        return Optional.ofNullable(best);
    }

    /** The devices that a part can go to. */
    public static List<Device> midi(Show show) {
        return show.devices().stream()
                .filter(d -> !(d.connection() instanceof Connection.Osc))
                .toList();
    }

    private Entry entry(Part part, Optional<Device> device) {
        if (device.isEmpty()) {
            return new Entry(part, device, 0, 0, List.of());
        }
        PhraseMatch match = new PhraseMatch(device.get(), part.said());
        match.found().forEach(f -> found.computeIfAbsent(lands(f), n -> new ArrayList<>())
                .add(f));
        int loose = (int) match.found().stream().filter(Found::loosely).count();
        List<Missing> missing = match.unmatched().stream()
                .map(s -> new Missing(place(s.nanos()), s))
                .toList();
        return new Entry(part, device, match.found().size(), loose, missing);
    }

    private String place(long nanos) {
        String at = Song.landing(times, nanos).toString();
        return at.substring("at ".length());
    }

    /** What leaves at the very beginning cannot have been wanted earlier. */
    private long lands(Found found) {
        int lead = show.device(found.call().deviceId()).map(Device::leadMs).orElse(0);
        return found.nanos() == 0 ? 0 : found.nanos() + lead * 1_000_000L;
    }

    /** What was read from the file. */
    public Song song() {
        return song;
    }

    /** Of each part of the song, to which machine it would go and as what. */
    public List<Entry> entries() {
        return entries;
    }

    /** How many cues {@link #into} makes. */
    public int cues() {
        return moments().size() + (moments().firstEntry().getKey() == 0 ? 0 : 1);
    }

    /**
     * The show with the song as a new item at the end. Its first cue starts it by hand; a cue point becomes a cue with its
     * number, if nobody else has it, and what lies beside cue points cues of their own.
     */
    public Show into(Show current, String name) {
        Item item = new Item(0, ItemKind.SONG, name, (int) lengthSeconds(), song.score(), List.of());
        Show with = current.withItem(item, current.items().size());
        int id = with.items().get(with.items().size() - 1).id();
        List<Cue> cues = new ArrayList<>();
        moments().forEach((nanos, moment) -> {
            boolean first = cues.isEmpty();
            if (first && nanos > 0) {
                cues.add(new Cue(0, CueNumber.of("1"), Start.BY_HAND, "Start", List.of(), 0));
                first = false;
            }
            Start start = first ? Start.BY_HAND : Song.landing(times, nanos);
            for (int from = 0; from == 0 || from < moment.calls.size(); from += MOST_CALLS) {
                List<Call> calls = moment.calls.subList(from, Math.min(moment.calls.size(), from + MOST_CALLS));
                cues.add(new Cue(0, CueNumber.of("1"), start, moment.what(), calls, 0));
            }
        });
        return with.withCues(id, numbered(with, cues));
    }

    private long lengthSeconds() {
        return times.map(t -> Math.min(86_400, t.nanosOfBar(t.score().endBar() + 1) / 1_000_000_000L))
                .orElse(0L);
    }

    /** The file's own numbers where all of them are free and rise, else whole numbers behind all others. */
    private List<Cue> numbered(Show with, List<Cue> cues) {
        List<CueNumber> own =
                moments().values().stream().flatMap(m -> m.number().stream()).toList();
        boolean usable = own.size() == cues.size();
        for (int i = 0; i < own.size(); i++) {
            usable &= with.cueNumbered(own.get(i)).isEmpty()
                    && (i == 0 || own.get(i).compareTo(own.get(i - 1)) > 0);
        }
        CueNumber last = with.cues().map(Cue::number).max(CueNumber::compareTo).orElse(null);
        List<CueNumber> numbers = usable
                ? own
                : last == null
                        ? CueNumber.spread(CueNumber.of("0.001"), Optional.empty(), cues.size())
                        : CueNumber.spread(last, Optional.empty(), cues.size());
        List<Cue> numbered = new ArrayList<>();
        for (int i = 0; i < cues.size(); i++) {
            numbered.add(cues.get(i).withNumber(numbers.get(i)));
        }
        return numbered;
    }

    /** A cue to be: what a cue point says, and calls. */
    private static final class Moment {
        private String text = "";
        private final List<Call> calls = new ArrayList<>();

        Optional<CueNumber> number() {
            String word = text.split(" ", 2)[0];
            return word.matches("\\d{1,5}(\\.\\d{1,3})?") && !word.matches("0+(\\.0+)?")
                    ? Optional.of(CueNumber.of(word))
                    : Optional.empty();
        }

        String what() {
            String rest = number().isPresent() ? text.substring(text.split(" ", 2)[0].length()) : text;
            return Cut.to(200, rest).strip();
        }
    }

    /** By their times; calls go to the cue point that stands there. */
    private TreeMap<Long, Moment> moments() {
        TreeMap<Long, Moment> moments = new TreeMap<>();
        for (CuePoint point : song.cuePoints()) {
            moments.computeIfAbsent(point.nanos(), n -> new Moment()).text = point.text();
        }
        if (moments.isEmpty() && found.isEmpty()) {
            moments.put(0L, new Moment());
        }
        found.forEach((nanos, calls) -> {
            long near = near(moments, nanos);
            Moment moment = moments.computeIfAbsent(near, n -> new Moment());
            calls.forEach(c -> moment.calls.add(c.call()));
        });
        return moments;
    }

    private static long near(TreeMap<Long, Moment> moments, long nanos) {
        Long before = moments.floorKey(nanos + 2 * Song.NEAR_NANOS);
        return before != null && nanos - before <= 2 * Song.NEAR_NANOS ? before : nanos;
    }
}
