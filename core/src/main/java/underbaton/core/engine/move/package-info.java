/** A part of the engine: the controls that are under way, fades and waves, step by step. */
package underbaton.core.engine.move;
