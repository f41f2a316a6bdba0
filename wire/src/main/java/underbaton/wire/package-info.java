/**
 * The ways out and in. A {@link underbaton.wire.Link} is one machine’s; the {@link underbaton.wire.Switchboard} gives them out.
 */
package underbaton.wire;
