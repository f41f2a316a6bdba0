/**
 * The rules of playing, once: {@link underbaton.core.engine.Engine#step} is a pure function from a state and an event to the
 * next state and the messages that leave. The running show, the dry run, the Book's ties, file export and catch-up all fold
 * it; whoever needs a new behaviour adds an order or a case here, never a second path.
 *
 * <p>Here are the orders, the step that puts the parts together ({@link underbaton.core.engine.Parts}), and what folds it. The parts stand
 * in the packages below, from the bottom up: {@code device}, {@code out}, {@code operator}, {@code move}, {@code answer}, {@code patch}, {@code catchup} (no
 * part, but pure functions), {@code call}, {@code music}, {@code key}, {@code ear},
 * {@code light}. Each is read without those above it.
 */
package underbaton.core.engine;
