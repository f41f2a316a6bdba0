/**
 * The page Performances: runs of a show, shown and printed with their times.
 */
package underbaton.web.performances;
