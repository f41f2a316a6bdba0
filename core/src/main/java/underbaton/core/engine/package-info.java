/**
 * The rules of playing, once: {@link underbaton.core.engine.Engine#step} is a pure function from a state and an event to the
 * next state and the messages that leave. The running show, the dry run, the Book's ties, file export and catch-up all fold
 * it; whoever needs a new behaviour adds an order or a case here, never a second path.
 */
package underbaton.core.engine;
