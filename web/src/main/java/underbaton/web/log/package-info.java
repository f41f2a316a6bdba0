/**
 * The page Log: what passed the wire, searched and saved.
 */
package underbaton.web.log;
