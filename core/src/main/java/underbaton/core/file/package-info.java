/**
 * How shows, songs, machines and lists become files and are read again: JSON for what is kept, CSV for tables, Standard MIDI
 * Files for music. What comes from outside is limited while it is read, and refused in a sentence.
 */
package underbaton.core.file;
