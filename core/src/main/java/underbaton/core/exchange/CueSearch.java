package underbaton.core.exchange;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
import underbaton.core.cue.Cue;
import underbaton.core.cue.Show;

/** Finds a cue by its number, or by words that its row of the Book says. */
public final class CueSearch {

    private final Show show;

    /** Reads all rows of the Book once. */
    public CueSearch(Show show) {
        this.show = show;
    }

    /**
     * The cue with that number; else the next one that says these words anywhere, round the end of the book.
     *
     * @param words in any case
     * @param afterCueId where to begin; 0, or a cue that is gone, for the beginning
     */
    public Optional<Cue> find(String words, int afterCueId) {
        String wanted = words.strip().toLowerCase(Locale.ROOT);
        List<Cue> cues = show.cues().toList();
        Optional<Cue> numbered =
                cues.stream().filter(c -> c.number().toString().equals(wanted)).findFirst();
        if (numbered.isPresent() || wanted.isEmpty()) {
            return numbered;
        }
        int after = 0;
        while (after < cues.size() && cues.get(after).id() != afterCueId) {
            after++;
        }
        int from = after == cues.size() ? 0 : after + 1;
        return Stream.concat(cues.subList(from, cues.size()).stream(), cues.subList(0, from).stream())
                .filter(c -> says(c, wanted))
                .findFirst();
    }

    private boolean says(Cue cue, String wanted) {
        Stream<String> own = Stream.of(cue.number().toString(), cue.start().toString(), cue.what(), cue.note());
        Stream<String> cells = show.devices().stream().map(d -> CueTable.cell(cue, d));
        return Stream.concat(own, cells)
                .anyMatch(text -> text.toLowerCase(Locale.ROOT).contains(wanted));
    }
}
