package underbaton.core.engine;

/**
 * The rules of playing. A pure function: no clock, no thread, no input or output, no randomness; the same events from the
 * same state come to the same messages, to the nanosecond.
 */
public final class Engine {

    private Engine() {}

    /**
     * @param event at the state's own moment or later; an earlier one happens at the state's moment
     * @return the state after the event, with everything that was due until then done before it
     */
    public static Step step(PlaybackState state, Event event) {
        Parts parts = new Parts(state);
        parts.pass(Math.max(state.nowNanos(), event.atNanos()));
        parts.carryOut(event.order());
        parts.showLights();
        return parts.done();
    }
}
