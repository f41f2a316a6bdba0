/**
 * What has passed the wire, line by line, as far as it is kept in memory.
 */
package underbaton.core.traffic;
