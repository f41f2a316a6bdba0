/** The page Signals: what came in and what became of it, and the listeners that make orders of it. */
package underbaton.web.signals;
