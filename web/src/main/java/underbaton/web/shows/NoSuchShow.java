package underbaton.web.shows;

/** The address names a show that is not there (any more). */
public final class NoSuchShow extends RuntimeException {}
