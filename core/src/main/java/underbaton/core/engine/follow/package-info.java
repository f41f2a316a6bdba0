/**
 * The time that an item takes from a machine: where the machine is becomes where the music is. It moves the music by what the parts below
 * offer; nobody below knows of it.
 */
package underbaton.core.engine.follow;
