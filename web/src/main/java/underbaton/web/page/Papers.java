package underbaton.web.page;

import org.springframework.ui.Model;
import underbaton.core.cue.Show;
import underbaton.core.rig.Device;

/** What all sheets for paper need: of which show, and which others there are. */
public final class Papers {

    private Papers() {}

    /** @param here which one it is: a department's code in small letters, {@code all}, {@code order} or {@code lines} */
    public static void open(Show show, String here, Model model) {
        model.addAttribute("show", show);
        model.addAttribute("here", here);
        model.addAttribute(
                "departments",
                show.devices().stream()
                        .map(Device::department)
                        .distinct()
                        .sorted()
                        .toList());
    }
}
