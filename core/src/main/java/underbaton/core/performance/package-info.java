/**
 * What a run of a show was: its events as they came, and from them how long each item really lasted, what that is against
 * the plan, and when it will be over.
 */
package underbaton.core.performance;
