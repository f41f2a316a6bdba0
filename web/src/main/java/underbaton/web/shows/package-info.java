/**
 * The page of all shows, and the buttons for undo on every other one.
 */
package underbaton.web.shows;
