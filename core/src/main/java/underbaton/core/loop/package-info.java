/**
 * Where time comes from, and what goes round in it: the clock that is handed in, and the loops, each with its name, its fault
 * barrier and its end. Nothing of a show is known here.
 */
package underbaton.core.loop;
