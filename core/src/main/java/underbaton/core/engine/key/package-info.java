/** A part of the engine: hand cues, what their keys do and how they are lit. */
package underbaton.core.engine.key;
