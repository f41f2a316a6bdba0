/**
 * How long the items of a run lasted, what that is against the plan, and when it will be over; worked out from the moments of the
 * run. Whoever plays it is in {@link underbaton.core.perform}.
 */
package underbaton.core.timings;
