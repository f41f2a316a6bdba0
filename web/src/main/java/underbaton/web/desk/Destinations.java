package underbaton.web.desk;

import org.springframework.stereotype.Component;
import underbaton.core.cue.CueNumber;
import underbaton.core.engine.Destination;
import underbaton.core.engine.PlaybackState;
import underbaton.core.engine.Whereto;
import underbaton.core.loop.Clock;
import underbaton.web.kernel.Typed;
import underbaton.web.stage.Manners;
import underbaton.web.stage.NotOnDesk;
import underbaton.web.stage.Stage;

/** Where the Desk can bring the machines, as its pages call these places. */
@Component
class Destinations {

    static final String STANDBY = "standby";
    static final String HERE = "here";
    /** Where the show stands, as the book is by now. */
    static final String PRESENT = "present";

    static final String SECTION = "section";
    /** So long before the next cue as the operator has set. */
    static final String NEXT = "next";
    /** Followed by the number of a cue. */
    static final String CUE = "cue ";
    /** Followed by the letter of a section. */
    static final String LETTER = "section ";
    /** Where the music would be had no crash come. */
    static final String NOW = "now";

    private final Stage stage;
    private final Manners manners;
    private final Clock clock;

    Destinations(Stage stage, Manners manners, Clock clock) {
        this.stage = stage;
        this.manners = manners;
        this.clock = clock;
    }

    PlaybackState now(int showId) {
        return stage.playback(showId).orElseThrow(NotOnDesk::new);
    }

    /** @param to {@link #STANDBY}, {@link #PRESENT}, {@link #HERE}, {@link #SECTION}, {@link #NOW}, {@link #NEXT}, {@link #CUE},
     *     {@link #LETTER}, or the number of a bar */
    Destination of(int showId, String to) {
        return Destination.of(whereto(showId, to), now(showId), stage.dryRun(showId), clock.nanos());
    }

    private Whereto whereto(int showId, String to) {
        return switch (to) {
            case STANDBY -> new Whereto.Standby();
            case PRESENT -> new Whereto.Present();
            case NEXT -> new Whereto.Next(manners.cueToCueNanos());
            case HERE -> new Whereto.Here();
            case SECTION -> new Whereto.ThisSection();
            case NOW -> new Whereto.AsIfSince(stoodSince(showId));
            default ->
                to.startsWith(CUE)
                        ? new Whereto.AtCue(CueNumber.of(to.substring(CUE.length())))
                        : to.startsWith(LETTER)
                                ? new Whereto.Letter(
                                        to.substring(LETTER.length()).strip())
                                : new Whereto.Bar(Typed.number("bar", to));
        };
    }

    /** When a crash came, by the clock of the events; now when none did. */
    private long stoodSince(int showId) {
        long ago = stage.left(showId)
                .map(k -> Math.max(0, clock.epochMicros() - k.epochMicros()) * 1000)
                .orElse(0L);
        return clock.nanos() - ago;
    }
}
