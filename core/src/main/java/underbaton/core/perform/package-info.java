/**
 * The engine in real time: a {@link underbaton.core.perform.Performer} stamps and queues what is ordered, a
 * {@link underbaton.core.perform.Lane} for each device waits for the moment, a {@link underbaton.core.perform.Scribe} writes
 * down what was done. The rules of playing are all in {@link underbaton.core.engine}.
 */
package underbaton.core.perform;
