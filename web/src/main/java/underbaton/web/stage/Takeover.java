package underbaton.web.stage;

import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;
import underbaton.core.cue.Item;
import underbaton.core.cue.Show;
import underbaton.core.engine.Order;
import underbaton.core.engine.PlaybackState;
import underbaton.core.plan.Changes;
import underbaton.core.plan.Plan;
import underbaton.web.library.Plans;
import underbaton.web.library.Shows;
import underbaton.web.live.Live;
import underbaton.web.record.Recorder;

/**
 * How an edit reaches the show on the desk: the moment it is saved or, while a run goes on, when the operator says so. Under the stage's own
 * lock, so that no edit comes while a show is put there or away.
 */
@Component
public class Takeover {

    private final Shows shows;
    private final Plans plans;
    private final Manners manners;
    private final DeviceLines lines;
    private final Stage stage;
    private final Recorder recorder;
    private final Live live;

    Takeover(Shows shows, Plans plans, Manners manners, DeviceLines lines, Stage stage, Recorder recorder, Live live) {
        this.shows = shows;
        this.plans = plans;
        this.manners = manners;
        this.lines = lines;
        this.stage = stage;
        this.recorder = recorder;
        this.live = live;
        shows.watch(this::changed);
    }

    private void changed(Show show, String edit) {
        synchronized (stage) {
            stage.onDesk(show.id()).ifPresent(d -> {
                Plan plan = plans.knowing(show);
                if (waits(d, plan)) {
                    d.await(edit);
                } else {
                    adopt(d, show, plan, "the edit “" + edit + "” is taken over");
                }
                live.changed("desk");
                live.changed("waiting");
            });
        }
        live.changed("book");
        live.changed("patch");
        live.changed("hands");
        live.changed("lamps");
        live.changed("machines");
    }

    private boolean waits(OnDesk d, Plan changed) {
        PlaybackState state = d.performer.state();
        return switch (manners.edits()) {
            case AT_ONCE -> false;
            case WAIT -> recorder.isOn(d.showId);
            case AHEAD ->
                recorder.isOn(d.showId)
                        && (!d.waiting().isEmpty() || !state.liesAhead(Changes.firstPlace(d.base, changed)));
        };
    }

    private void adopt(OnDesk d, Show show, Plan plan, String words) {
        lines.connect(show);
        d.taken(show, plan);
        stage.order(show.id(), words, new Order.Adopt(plan.tonight(d.out)));
    }

    /** In words, the edits that were made while the show runs and are not yet taken over. */
    public List<String> waiting(int showId) {
        return stage.onDesk(showId).map(OnDesk::waiting).orElse(List.of());
    }

    /** The item that plays, where the edits that wait have taken it away; taking them over ends it. */
    public Optional<String> endsByTakingOver(int showId) {
        return stage.onDesk(showId)
                .filter(d -> !d.waiting().isEmpty())
                .flatMap(d -> d.performer.state().playing())
                .map(p -> p.item().item())
                .filter(item -> shows.get(showId).item(item.id()).isEmpty())
                .map(Item::name);
    }

    /** Takes over the edits that wait. */
    public void takeOver(int showId) {
        synchronized (stage) {
            OnDesk d = stage.require(showId);
            int count = d.waiting().size();
            if (count > 0) {
                Show show = shows.get(showId);
                d.bookChanged = true;
                adopt(
                        d,
                        show,
                        plans.knowing(show),
                        count == 1
                                ? "the edit “" + d.waiting().get(0) + "” is taken over"
                                : count + " edits are taken over");
                live.changed("desk");
                live.changed("waiting");
            }
        }
    }

    /** The run is over: its times stand, and edits come at once again. */
    public void endRun(int showId) {
        synchronized (stage) {
            stage.require(showId);
            stage.log(showId, "the performance is over");
            recorder.end();
            takeOver(showId);
        }
        live.changed("desk");
    }
}
