/** A part of the engine: what the operator's hand has done, and what it waits to be done once more. */
package underbaton.core.engine.operator;
