/**
 * The book as people write it: the show with its running order, items, cues and calls, how a cue starts, and how a call moves a
 * control. All of it is immutable; an edit is a function from a show to a show.
 */
package underbaton.core.cue;
