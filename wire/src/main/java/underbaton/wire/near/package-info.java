/**
 * Machines on the same network that make themselves known.
 */
package underbaton.wire.near;
