/**
 * A part of the engine: what each device has been told, and what those that are away have missed. Knows of nothing that
 * moves, plays or is heard.
 */
package underbaton.core.engine.device;
