package underbaton.core.exchange;

import java.util.List;
import underbaton.core.cue.Show;

/**
 * Cues that came into a show from outside it.
 *
 * @param show with them
 * @param cues how many came
 * @param left what could not be matched, a sentence each
 */
public record Taken(Show show, int cues, List<String> left) {}
