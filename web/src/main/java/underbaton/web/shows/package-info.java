/**
 * The shelf of shows: kept in the database part by part, edited one edit after the other, copied to files and backups.
 */
package underbaton.web.shows;
