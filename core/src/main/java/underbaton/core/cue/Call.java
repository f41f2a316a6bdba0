package underbaton.core.cue;

/**
 * One instruction inside a cue.
 *
 * @param deviceId the device that gets it
 * @param phraseId one of that device's phrases
 */
public record Call(int deviceId, int phraseId) {}
