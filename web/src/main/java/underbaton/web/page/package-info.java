/**
 * What all pages share: their frame, refusals, alarms, what is typed.
 */
package underbaton.web.page;
