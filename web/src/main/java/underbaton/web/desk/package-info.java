/**
 * The page Desk: orders to the running show, what stands by and what comes, catch-up before it is sent, who takes part tonight.
 */
package underbaton.web.desk;
