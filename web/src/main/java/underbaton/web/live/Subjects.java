package underbaton.web.live;

/** Knows of what there can be drawings. */
@FunctionalInterface
public interface Subjects {

    /** Whether there is a show of this id that can be read. */
    boolean isThere(int showId);
}
