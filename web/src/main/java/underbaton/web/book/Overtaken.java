package underbaton.web.book;

import underbaton.core.cue.Cue;

/** Somebody else changed the cue since this writer's page was drawn. Nothing of either is lost. */
final class Overtaken extends RuntimeException {

    private final transient Cue cue;
    private final String column;
    private final String mine;
    private final String theirs;

    Overtaken(Cue cue, String column, String mine, String theirs) {
        this.cue = cue;
        this.column = column;
        this.mine = mine;
        this.theirs = theirs;
    }

    Cue cue() {
        return cue;
    }

    String column() {
        return column;
    }

    String mine() {
        return mine;
    }

    String theirs() {
        return theirs;
    }
}
