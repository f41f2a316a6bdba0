/**
 * The shows that are kept: in the database part by part, edited one edit after the other and planned before they are kept, with
 * backups beside it. It knows nothing of the desk and of pages; who wants to hear of an edit watches.
 */
package underbaton.web.library;
