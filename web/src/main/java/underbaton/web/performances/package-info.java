/**
 * Runs of shows: kept as they happen, and shown and printed with their times; and the places of GO that were written down.
 */
package underbaton.web.performances;
