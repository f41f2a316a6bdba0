/**
 * MIDI ports of this computer.
 */
package underbaton.wire.ports;
