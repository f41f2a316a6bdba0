/** What comes in: each message is one {@link underbaton.core.signal.Signal} from the wire to whoever listens. */
package underbaton.core.signal;
