/**
 * What every page of a show has: its frame and index, the lists of phrases, and how it tells that a show is not there. The lowest of
 * the pages; it knows none of the others.
 */
package underbaton.web.page;
