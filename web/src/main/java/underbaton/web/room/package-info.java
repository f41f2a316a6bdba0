/**
 * The rehearsal room, in which the stand-ins are seen working.
 */
package underbaton.web.room;
