package underbaton.web.kernel;

import java.util.List;

/** Somebody who may have something that everybody has to know. */
public interface Alarm {

    /** A sentence or two each; empty when all is well. Asked every second. */
    List<String> alarms();
}
