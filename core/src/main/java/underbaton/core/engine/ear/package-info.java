/** A part of the engine: what is heard. Listeners, what they bring about, and relays, which pass on what they hear. */
package underbaton.core.engine.ear;
