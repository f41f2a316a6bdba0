/**
 * The page Book: cues down, departments across, drawn in leaves.
 */
package underbaton.web.book;
