package underbaton.web.library;

/** A show whose rows are there but cannot be read: it stands on the shelf with what is wrong, and the others go on. */
public final class UnreadableShow extends RuntimeException {

    private final int showId;

    UnreadableShow(int showId, Throwable cause) {
        super(cause instanceof StackOverflowError ? "it is nested too deep" : cause.getMessage(), cause);
        this.showId = showId;
    }

    public int showId() {
        return showId;
    }
}
