/**
 * Open Sound Control 1.0 over UDP and TCP.
 */
package underbaton.wire.osc;
