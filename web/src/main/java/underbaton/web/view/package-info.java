/**
 * What each department of the venue looks at while the show runs: what it has, what it gets next and in how many bars. Read-only, a
 * link a department, drawn once for all who look.
 */
package underbaton.web.view;
