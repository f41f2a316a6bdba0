package underbaton.web.rig;

import java.util.List;
import underbaton.core.cue.Show;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Remarks;
import underbaton.web.kernel.Faults;

/**
 * What is changed of several phrases at once. A blank that says nothing leaves each as it is.
 *
 * @param phrases their ids
 * @param guarded {@code yes} or {@code no}
 * @param group the heading to stand under; a dash for none
 */
public record SeveralPhrases(List<Integer> phrases, String effect, String mark, String guarded, String group) {

    private static final String NO_HEADING = "-";

    /** @throws Refusal naming the blanks that cannot be read, or when none is filled in */
    Show change(Show show, int deviceId) {
        Faults faults = new Faults();
        Effect does = faults.or(null, () -> says(effect) ? Effect.of(effect) : null);
        Remarks.Mark marked = faults.or(null, () -> says(mark) ? Remarks.Mark.of(mark) : null);
        return faults.all(() -> {
            if (!says(effect) && !says(mark) && !says(guarded) && !says(group)) {
                throw new Refusal("effect", "Say what shall change: the effect, the mark, guarded or the heading.");
            }
            Show changed = show;
            for (int id : chosen()) {
                Phrase phrase = in(changed, deviceId, id);
                Remarks was = phrase.remarks();
                Phrase next = phrase.withRemarks(new Remarks(
                        marked == null ? was.mark() : marked,
                        was.note(),
                        says(group) ? NO_HEADING.equals(group.strip()) ? "" : group.strip() : was.group()));
                next = does == null ? next : next.withEffect(does);
                changed = changed.withPhrase(deviceId, says(guarded) ? next.withGuarded("yes".equals(guarded)) : next);
            }
            return changed;
        });
    }

    Show remove(Show show, int deviceId) {
        Show left = show;
        for (int id : chosen()) {
            in(left, deviceId, id);
            left = left.withoutPhrase(deviceId, id);
        }
        return left;
    }

    /** What the edit is called: {@code change 3 phrases}. */
    String told(String verb) {
        return verb + " " + chosen().size() + (chosen().size() == 1 ? " phrase" : " phrases");
    }

    private List<Integer> chosen() {
        if (phrases == null || phrases.isEmpty()) {
            throw new Refusal("phrases", "Choose a phrase first.");
        }
        return phrases;
    }

    private static Phrase in(Show show, int deviceId, int phraseId) {
        Device device = RigController.device(show, deviceId);
        return PhrasebookController.phrase(device, phraseId);
    }

    private static boolean says(String typed) {
        return typed != null && !typed.isBlank();
    }
}
