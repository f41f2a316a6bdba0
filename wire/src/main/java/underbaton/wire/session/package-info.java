/**
 * Network MIDI: sessions after RFC 6295, with their recovery journal.
 */
package underbaton.wire.session;
