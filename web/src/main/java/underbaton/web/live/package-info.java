/**
 * The one connection of each browser: drawings out, orders in.
 */
package underbaton.web.live;
