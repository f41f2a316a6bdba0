package underbaton.core.engine.music;

import java.util.List;
import underbaton.core.engine.device.DeviceStates;
import underbaton.core.plan.PlannedCall;

/** What machines were told of a pass of a vamp that does not come. @param before what they had been told before that */
public record InVain(List<PlannedCall> calls, DeviceStates before) {}
