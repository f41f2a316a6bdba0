package underbaton.web.stage;

import java.util.NoSuchElementException;

/** An order for a show that is not the one on the desk. */
public final class NotOnDesk extends NoSuchElementException {}
