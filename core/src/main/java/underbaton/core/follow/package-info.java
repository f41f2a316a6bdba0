/** Time that comes from outside: what clocks and time code say, and how fast and where the music of their sender is. */
package underbaton.core.follow;
