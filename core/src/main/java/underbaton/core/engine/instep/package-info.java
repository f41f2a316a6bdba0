/**
 * The time that machines are given, so that they keep in step with the music: MIDI clock, time code, machine control. It asks the parts
 * below where the music is, at each moment anew, and never counts on by itself.
 */
package underbaton.core.engine.instep;
