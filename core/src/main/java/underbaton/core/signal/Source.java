package underbaton.core.signal;

import underbaton.core.rig.Numbering;

/**
 * Who said something.
 *
 * @param deviceId the machine of the rig on whose line it came; {@link #OTHERS} for somebody who reached us
 * @param name as people know it
 * @param numbering how it prints its numbers
 */
public record Source(int deviceId, String name, Numbering numbering) {

    /** Those who are no machine of the rig. */
    public static final int OTHERS = 0;
}
