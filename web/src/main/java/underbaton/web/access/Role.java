package underbaton.web.access;

import java.util.EnumSet;
import java.util.Set;

/** What somebody is here for. Of the roles each stands with what it may do, and all else is refused. */
public enum Role {
    OPERATOR("operator", "may all", EnumSet.allOf(Act.class)),
    WRITER("writer", "writes books and rigs; gives no GO", EnumSet.of(Act.VIEW, Act.READ, Act.WRITE)),
    CALLER("caller", "GO, standby, hold, notes; writes nothing", EnumSet.of(Act.VIEW, Act.READ, Act.CALL)),
    HANDS("hands", "works hand cues", EnumSet.of(Act.VIEW, Act.TOUCH)),
    VIEWER("viewer", "looks at what a department gets", EnumSet.of(Act.VIEW));

    private final String word;
    private final String words;
    private final Set<Act> acts;

    Role(String word, String words, Set<Act> acts) {
        this.word = word;
        this.words = words;
        this.acts = acts;
        acts.add(Act.COME_IN);
    }

    public String word() {
        return word;
    }

    /** What it may, in words. */
    public String words() {
        return words;
    }

    public boolean may(Act act) {
        return acts.contains(act);
    }
}
