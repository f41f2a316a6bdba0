package underbaton.core.engine;

import java.util.Map;
import java.util.TreeMap;
import underbaton.core.midi.ChannelMessage.ControlChange;
import underbaton.core.midi.ChannelMessage.NoteOff;
import underbaton.core.midi.ChannelMessage.NoteOn;
import underbaton.core.midi.ChannelMessage.ProgramChange;
import underbaton.core.midi.Message;

/**
 * The rig of {@link PlayableShows} in the flesh: machines that hear bytes and know nothing of phrases, effects or states.
 * How they are before anybody has told them anything is not known, so that nothing may be taken for granted.
 */
final class Machines {

    static final String FILM = "player film";
    static final long FILM_STEP = 500_000_000;

    private static final int TOP = 1;

    /** How each part of each machine is; a part that nobody has touched is not there. */
    private final Map<String, String> parts = new TreeMap<>();

    /** 0 for nobody knows. */
    private int song;

    private long now;
    /** When the film would have begun to be where it is. */
    private long filmBegan;

    /** @param song at which the tablet stands; 0 for nobody knows */
    Machines(int song) {
        this.song = song;
    }

    /** @param nanos the moment at which they are looked at: a film that runs is so many half seconds on, and at its end it is off */
    Map<String, String> parts(long nanos) {
        Map<String, String> all = new TreeMap<>(parts);
        if (song > 0) {
            all.put("tablet song", Integer.toString(song));
        }
        if ("runs".equals(all.get(FILM))) {
            long at = nanos - filmBegan;
            all.put(FILM, at < PlayableShows.FILM_NANOS ? Long.toString(at / FILM_STEP) : "off");
        }
        return all;
    }

    /** When the film would have begun to be where it is; 0 for never. */
    long filmBegan() {
        return filmBegan;
    }

    /** @param nanos when, by the clock of whoever plays */
    void hear(Message message, long nanos) {
        now = nanos;
        if (message instanceof NoteOn n) {
            note(n);
        } else if (message instanceof NoteOff n && n.channel() == 4) {
            release(n.note());
        } else if (message instanceof NoteOff n && n.channel() >= PlayableShows.FIRST_LINE) {
            parts.put("module " + n.channel() + " " + n.note(), "off");
        } else if (message instanceof ControlChange c) {
            control(c);
        } else if (message instanceof ProgramChange p) {
            program(p);
        }
    }

    private void note(NoteOn n) {
        if (n.channel() == 0 && n.note() < PlayableShows.LOOKS) {
            parts.put("lights look", "" + n.note());
        } else if (n.channel() == 4 && n.note() == 70) {
            nothingRuns();
            parts.put("player reel", "none");
        } else if (n.channel() == 4 && n.note() >= 40 && n.note() < 40 + PlayableShows.LOOPS) {
            parts.put("player loop " + (n.note() - 40), "runs");
        } else if (n.channel() >= PlayableShows.FIRST_LINE) {
            parts.put("module " + n.channel() + " " + n.note(), "runs");
        } else if (n.channel() == 5) {
            int by = n.note() == 48 ? 1 : n.note() == 47 ? -1 : n.note() == 50 ? -PlayableShows.SONGS : 0;
            boolean jumps = n.note() == 50;
            song = song == 0 && !jumps ? 0 : Math.max(TOP, Math.min(PlayableShows.SONGS, song + by));
        }
    }

    private void nothingRuns() {
        for (int i = 0; i < PlayableShows.LOOPS; i++) {
            parts.put("player loop " + i, "off");
        }
        parts.put(FILM, "off");
    }

    private void release(int note) {
        if (note >= 40 && note < 40 + PlayableShows.LOOPS) {
            parts.put("player loop " + (note - 40), "off");
        }
    }

    private void control(ControlChange c) {
        if (c.channel() == 1) {
            parts.put("console fader " + c.controller(), "" + c.value());
        } else if (c.channel() == 2) {
            parts.put("console mute " + c.controller(), "" + c.value());
        } else if (c.channel() == 4) {
            parts.put(FILM, c.controller() == 20 ? "runs" : "off");
            filmBegan = now - c.value() * 1_000_000_000L;
        } else if (c.channel() == PlayableShows.FIRST_LINE) {
            parts.put("module control " + c.controller(), "" + c.value());
        } else if (c.channel() == 6) {
            parts.put("keys " + c.controller(), "" + c.value());
        }
    }

    private void program(ProgramChange p) {
        if (p.channel() == 1) {
            parts.put("console scene", "" + p.program());
            for (int i = 0; i < PlayableShows.FADERS; i++) {
                int leaves = PlayableShows.leaves(p.program(), i);
                parts.put("console fader " + i, leaves < 0 ? "as scene " + p.program() : "" + leaves);
                parts.put("console mute " + i, "as scene " + p.program());
            }
        } else if (p.channel() == 4) {
            // A clip belongs to its reel.
            parts.put("player reel", "" + p.program());
            nothingRuns();
        } else if (p.channel() == 6) {
            parts.put("keys patch", "" + p.program());
        }
    }
}
