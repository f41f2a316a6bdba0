/**
 * The line check: each machine tried before the doors open, and what cannot be stopped from here.
 */
package underbaton.web.linecheck;
