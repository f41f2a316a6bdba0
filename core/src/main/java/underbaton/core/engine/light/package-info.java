/**
 * The lights of pads and surfaces: what their signals stand for is sent back to them as phrases of theirs. Nothing here is known as told
 * to a machine, and nothing is asked of here: it looks at the parts below when a step is done.
 */
package underbaton.core.engine.light;
