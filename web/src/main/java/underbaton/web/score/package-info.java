/**
 * The page Score: songs engraved, cues put onto beats, songs opened from and saved to files.
 */
package underbaton.web.score;
