/**
 * Bars and beats: meters, tempi, holds, vamps, sections and films of a song, and the exact time of each tick.
 */
package underbaton.core.score;
