/**
 * The page Log, and how what passed the wire gets to disk and database without holding up a show.
 */
package underbaton.web.log;
