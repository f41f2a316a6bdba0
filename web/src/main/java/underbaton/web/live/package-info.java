/**
 * The one connection of each browser: drawings out, orders in. It knows no page: who draws or takes orders comes and says so.
 */
package underbaton.web.live;
