package underbaton.standins;

import java.util.List;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.MidiMessage;

/**
 * A words projector that knows only next (note 60), previous (59) and blank (58), and jumps to the first page of a song
 * by program. Past the last page of a song it goes on to the next song: it has no idea where the band is.
 */
public final class WordsScreen implements Model.Midi {

    /** @param pages the lines of each page */
    public record Song(String title, List<List<String>> pages) {}

    /**
     * @param song 1 for the first, as its display prints it
     * @param page 1 for the first
     */
    public record State(int song, String title, int page, int pages, List<String> lines, boolean blank) {}

    private static final int CHANNEL = 2;
    private static final int BLANK = 58;
    private static final int PREVIOUS = 59;
    private static final int NEXT = 60;

    public static final List<Song> SONGS = List.of(
            song(
                    "Slipway",
                    "The boats are in, | the ropes are dry",
                    "the gulls have gone | to bed",
                    "and one by one | the windows die",
                    "but ours is lit | instead"),
            song(
                    "Is anyone across?",
                    "Hold the lantern high, | I cannot see the shore",
                    "there was a voice, | then nothing more",
                    "Is anyone across? | Is anyone across?",
                    "Ring once for yes, | and twice for loss"),
            song(
                    "Lamps across the water",
                    "One lamp for the miller, | one lamp for the priest",
                    "one lamp for the stranger | who is coming from the east",
                    "Lamps across the water, | count them as they go",
                    "seven for the living | and the rest below",
                    "Lamps across the water, | hold them up and row"),
            song(
                    "Halfway",
                    "Halfway is the quiet place, | halfway is the deep",
                    "halfway is the promise | that I did not keep",
                    "Pull, pull, | the other half is sleep"),
            song(
                    "The toll",
                    "A penny for the river, | a penny for the tide",
                    "a penny for the ferryman | to take the other side",
                    "And what for the passenger | who has nothing but the ride?"),
            song(
                    "Cold dawn",
                    "The rope is on the ring again, | the lantern burning low",
                    "and everyone we carried | has somewhere else to go"),
            song(
                    "Evening comes softly",
                    "Evening comes softly | over the field",
                    "day lays its work down, | and we are healed",
                    "Stay with us, stay with us, | light in the west",
                    "Stay with us, stay with us, | give us rest"),
            song(
                    "We keep the fire",
                    "We keep the fire, | we keep the song",
                    "we keep a place here | all night long",
                    "Come in from the dark, | come in from the cold",
                    "there is bread on the table | and stories told"),
            song(
                    "Field of lanterns",
                    "Every hand a little flame, | every flame a name",
                    "field of lanterns, | field of light",
                    "carry us | across the night"),
            song(
                    "Go gently",
                    "Go gently now, | the night is kind",
                    "leave what is heavy | here behind",
                    "go gently, go gently home"));

    private volatile State state = at(0, 0, true);

    private static Song song(String title, String... pages) {
        return new Song(
                title,
                List.of(pages).stream().map(p -> List.of(p.split(" \\| "))).toList());
    }

    @Override
    public void hear(MidiMessage message, long nanos) {
        if (message instanceof ProgramChange p && p.channel() == CHANNEL && p.program() < SONGS.size()) {
            state = at(p.program(), 0, false);
        } else if (message instanceof NoteOn on && on.channel() == CHANNEL && on.velocity() > 0) {
            switch (on.note()) {
                case NEXT -> next();
                case PREVIOUS -> previous();
                case BLANK -> state = at(state.song - 1, state.page - 1, true);
                default -> {}
            }
        }
    }

    private void next() {
        if (state.page < state.pages) {
            state = at(state.song - 1, state.page, false);
        } else if (state.song < SONGS.size()) {
            state = at(state.song, 0, false);
        }
    }

    private void previous() {
        if (state.page > 1) {
            state = at(state.song - 1, state.page - 2, false);
        } else if (state.song > 1) {
            int before = state.song - 2;
            state = at(before, SONGS.get(before).pages().size() - 1, false);
        }
    }

    private static State at(int song, int page, boolean blank) {
        Song sung = SONGS.get(song);
        return new State(
                song + 1,
                sung.title(),
                page + 1,
                sung.pages().size(),
                sung.pages().get(page),
                blank);
    }

    public State state() {
        return state;
    }
}
