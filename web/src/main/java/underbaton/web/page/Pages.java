package underbaton.web.page;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import tools.jackson.databind.json.JsonMapper;
import underbaton.core.cue.Show;
import underbaton.web.kernel.Alarms;
import underbaton.web.library.Shows;
import underbaton.web.stage.Stage;
import underbaton.web.stage.Takeover;

/** What every page of a show needs: the show, its thumb index, whether it is on the desk. */
@Component
public class Pages {

    /** The index tabs, in the order of the work. */
    private static final List<String> TABS =
            List.of("Rig", "Book", "Score", "Signals", "Patch", "Hands", "Desk", "Room", "Log");

    /** Pages without a tab of their own, and the tab they stand under. */
    private static final Map<String, String> UNDER = Map.of("Linecheck", "Rig", "Performances", "Log");

    private static final Map<String, String> PLACES =
            TABS.stream().collect(Collectors.toMap(Function.identity(), Pages::place));

    private final Shows shows;
    private final Stage stage;
    private final Takeover takeover;
    private final JsonMapper json;
    private final Alarms alarms;

    Pages(Shows shows, Stage stage, Takeover takeover, Alarms alarms, JsonMapper json) {
        this.json = json;
        this.alarms = alarms;
        this.shows = shows;
        this.stage = stage;
        this.takeover = takeover;
    }

    /** The folder of a page's address, style and script. */
    private static String place(String tab) {
        return tab.toLowerCase(Locale.ROOT);
    }

    /** Puts the common parts into the model and answers the show. */
    public Show open(int showId, String tab, Model model) {
        Show show = shows.get(showId);
        model.addAttribute("show", show);
        model.addAttribute("alarms", alarms.now());
        model.addAttribute("tab", tab);
        model.addAttribute("under", UNDER.getOrDefault(tab, tab));
        model.addAttribute("place", place(tab));
        model.addAttribute("title", show.name() + ": " + (tab.equals("Linecheck") ? "Line check" : tab));
        model.addAttribute("tabs", TABS);
        model.addAttribute("places", PLACES);
        model.addAttribute("waiting", takeover.waiting(showId));
        model.addAttribute("armed", json.writeValueAsString(stage.out(showId)));
        model.addAttribute("undoable", shows.undoable(showId).orElse(""));
        model.addAttribute("redoable", shows.redoable(showId).orElse(""));
        model.addAttribute("onDesk", stage.isOpen(showId));
        model.addAttribute(
                "otherShow", stage.openShow().filter(s -> s.id() != showId).orElse(null));
        return show;
    }
}
