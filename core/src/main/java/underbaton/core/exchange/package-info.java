/**
 * What comes from others and goes to them: Standard MIDI Files, tables, lists as people paste them, blocks of cues between shows.
 * What comes from outside is limited while it is read, and refused in a sentence. It stands on {@link underbaton.core.store}, never
 * the other way.
 */
package underbaton.core.exchange;
