/**
 * The made-up shows, read from the files of the demo.
 */
package underbaton.web.demo;
