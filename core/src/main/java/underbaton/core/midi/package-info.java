/**
 * Messages and their bytes: MIDI 1.0 in all its kinds, and Open Sound Control as far as it has no packet. Values are 0–127 and
 * channels 0–15; how a machine prints them is not known here.
 */
package underbaton.core.midi;
