/**
 * The one show on the desk: its performer, the lines to its machines, what a crash leaves of it. It runs from memory alone.
 */
package underbaton.web.stage;
