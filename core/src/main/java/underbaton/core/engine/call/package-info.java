/**
 * A part of the engine: calls that become messages, what of them leaves later and whose it is, and the calls that make devices
 * right.
 */
package underbaton.core.engine.call;
