/**
 * A show worked out ahead: when each cue comes, what each machine gets with it and in which order. Nothing here knows what
 * has been played; that is {@link underbaton.core.engine}.
 */
package underbaton.core.plan;
