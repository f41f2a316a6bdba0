package underbaton.web.access;

/** A page of hand cues that a device of the venue was given. */
public record GivenPage(int showId, int pageId) {}
