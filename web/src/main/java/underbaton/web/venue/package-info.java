/**
 * The page on which whoever runs the show opens this computer to the venue and says who may what, and the one at the door, where
 * devices ask to be let in. Who may come in is decided in {@link underbaton.web.access}.
 */
package underbaton.web.venue;
