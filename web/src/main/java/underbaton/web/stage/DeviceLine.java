package underbaton.web.stage;

import underbaton.core.perform.Lane;
import underbaton.core.rig.Device;
import underbaton.wire.Link;

/** One device of the open show with its way out and its queue. */
record DeviceLine(Device device, Link link, Lane lane, Link.Ear ear) {}
