/**
 * How what is ours is kept and read again: shows, machines with their phrasebooks, parts of a show, as JSON after the schemas in
 * {@code docs/formats}. Reading accepts every value that the constructors accept. No format of others lives here.
 */
package underbaton.core.store;
