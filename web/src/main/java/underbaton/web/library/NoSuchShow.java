package underbaton.web.library;

import java.util.NoSuchElementException;

/** The address names a show that is not there (any more). */
public final class NoSuchShow extends NoSuchElementException {}
