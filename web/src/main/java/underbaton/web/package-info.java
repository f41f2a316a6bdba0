/**
 * The application: how it is put together, and what is set for the whole of it. Each page has a package of its own below.
 */
package underbaton.web;
