/** A part of the engine: the patch bay, and what sounds by what is played through it or passed on. */
package underbaton.core.engine.patch;
