/** The page on the computer that runs the show: what runs on it, since when, in which version, how full it is, where backups lie. */
package underbaton.web.computer;
