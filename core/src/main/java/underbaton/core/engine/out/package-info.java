/** A part of the engine: what leaves a step, why, and when the line is free for it. */
package underbaton.core.engine.out;
