/** A part of the engine: what time brings. The standby, the music and its cues, jumps and holds. */
package underbaton.core.engine.music;
