/**
 * The machines: how each is reached, how it prints its numbers, what it can be told and what that does to it. Here, and in
 * {@link underbaton.core.rig.Numbering} alone, a number of the wire becomes one that people read.
 */
package underbaton.core.rig;
