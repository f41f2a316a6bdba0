package underbaton.core.exchange;

import java.util.List;
import java.util.Optional;
import underbaton.core.cue.Start;
import underbaton.core.midi.MidiMessage;
import underbaton.core.score.Position;
import underbaton.core.score.Score;

/**
 * What a Standard MIDI File holds, in our words.
 *
 * @param name of the sequence; may be empty
 * @param score empty for a file that counts frames: it has times and no bars
 * @param parts what is sent, in the order of the tracks
 * @param cuePoints in the order of their times
 * @param remarks what was read in another way than it stands there, a sentence each
 */
public record Song(
        String name, Optional<Score> score, List<Part> parts, List<CuePoint> cuePoints, List<String> remarks) {

    /** How far a moment may be from a tick and still be meant to stand on it, ns. */
    static final long NEAR_NANOS = 30_000;

    private static final int GRID = 240;

    public Song {
        parts = List.copyOf(parts);
        cuePoints = List.copyOf(cuePoints);
        remarks = List.copyOf(remarks);
    }

    /**
     * One track, or one channel of a track.
     *
     * @param name as the track is called, and the channel where the track has several
     */
    public record Part(String name, List<TimedMessage> said) {
        public Part {
            said = List.copyOf(said);
        }
    }

    /** @param nanos since the song began */
    public record TimedMessage(long nanos, MidiMessage message) {}

    /** @param nanos since the song began */
    public record CuePoint(long nanos, String text) {}

    /** @throws underbaton.core.rig.Refusal when no song of ours can be made of it */
    public static Song read(MidiFile file) {
        return new SongReader(file).song();
    }

    /**
     * How a cue starts that strikes at a moment: at a tick that lies there, else some whole milliseconds from a sixteenth,
     * else at the nearest tick; without bars at the time, to the millisecond.
     *
     * @param nanos since the song began, 0 or above
     */
    public static Start.Landing landing(Optional<Score.Times> times, long nanos) {
        if (times.isEmpty()) {
            return new Start.AtTime((int) Math.round(nanos / 1e6));
        }
        Score.Times known = times.get();
        long tick = known.tempi().tick(nanos);
        if (Math.abs(known.tempi().nanos(tick) - nanos) <= NEAR_NANOS) {
            return new Start.AtPosition(known.bars().position(tick), 0);
        }
        long sixteenth = Math.round((double) tick / GRID) * GRID;
        long away = nanos - known.tempi().nanos(sixteenth);
        long millis = Math.round(away / 1e6);
        Position position = known.bars().position(sixteenth);
        boolean near = Math.abs(away - millis * 1_000_000L) <= NEAR_NANOS && Math.abs(millis) < 60_000;
        return near
                ? new Start.AtPosition(position, (int) millis)
                : new Start.AtPosition(known.bars().position(tick), 0);
    }
}
