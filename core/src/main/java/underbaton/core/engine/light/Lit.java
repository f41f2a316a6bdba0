package underbaton.core.engine.light;

/**
 * What a pad was told last.
 *
 * @param phraseId of its light's state then; 0 where that has none
 * @param offId the phrase that makes it dark, for when its listener is gone
 */
public record Lit(int deviceId, int phraseId, int offId) {}
