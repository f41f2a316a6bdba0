/**
 * Simulated machines. They are reached over the same wires as real ones and know nothing of the book.
 */
package underbaton.standins;
