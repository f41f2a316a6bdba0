/** The page Hands: hand cues as they are played, and, apart from that, as they are edited. */
package underbaton.web.hands;
