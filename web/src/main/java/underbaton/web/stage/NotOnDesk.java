package underbaton.web.stage;

/** An order for a show that is not the one on the desk. */
public final class NotOnDesk extends RuntimeException {}
