package underbaton.web.hands;

import jakarta.servlet.http.HttpServletResponse;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import tools.jackson.databind.json.JsonMapper;
import underbaton.core.cue.HandKey;
import underbaton.core.cue.HandPage;
import underbaton.core.cue.Hands;
import underbaton.core.cue.Show;
import underbaton.core.engine.key.KeyTouch;
import underbaton.core.loop.Clock;
import underbaton.core.midi.ChannelMessage;
import underbaton.core.midi.Message;
import underbaton.core.rig.Refusal;
import underbaton.core.rig.Remarks.Mark;
import underbaton.core.signal.Learning;
import underbaton.core.signal.Listener;
import underbaton.core.signal.Outcome;
import underbaton.core.signal.Reaction;
import underbaton.web.kernel.Fingerprint;
import underbaton.web.kernel.Notice;
import underbaton.web.kernel.Typed;
import underbaton.web.library.Shows;
import underbaton.web.live.Live;
import underbaton.web.page.Pages;
import underbaton.web.record.CameIn;
import underbaton.web.stage.Stage;

/** The page Hands, to be played, and the page on which its keys are made: two addresses, so that nobody takes one for the other. */
@Controller
class HandsController {

    private final Shows shows;
    private final Stage stage;
    private final Pages pages;
    private final HandTouches touches;
    private final CameIn cameIn;

    HandsController(
            Shows shows,
            Stage stage,
            Pages pages,
            HandTouches touches,
            CameIn cameIn,
            Live live,
            Clock clock,
            JsonMapper json) {
        this.cameIn = cameIn;
        this.shows = shows;
        this.stage = stage;
        this.pages = pages;
        this.touches = touches;
        live.paints(
                "hands",
                showId -> shows.drawn(
                        showId,
                        show -> json.writeValueAsString(
                                HandsView.lights(show, stage.playback(showId), clock.nanos()))));
    }

    // ---- played

    @GetMapping("/shows/{showId}/hands")
    String page(@PathVariable int showId, @RequestParam(defaultValue = "0") int page, Model model) {
        fill(pages.open(showId, "Hands", model), page, model);
        model.addAttribute("playing", true);
        model.addAttribute("script", "playing");
        return "hands/hands";
    }

    @GetMapping("/shows/{showId}/hands/sheet")
    String sheet(@PathVariable int showId, Model model) {
        Show show = shows.get(showId);
        model.addAttribute("show", show);
        model.addAttribute("printed", new HandsView(show, Optional.empty()).printed());
        return "hands/sheet";
    }

    /** Of a browser without a line: {@code press}, {@code let_go}, {@code on}, {@code off}. */
    @PostMapping("/shows/{showId}/hands/keys/{keyId}/touch")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void touch(@PathVariable int showId, @PathVariable int keyId, @RequestParam(defaultValue = "press") String how) {
        stage.touch(showId, touches.given(showId, keyId), way(how), "hand: ");
    }

    private static KeyTouch way(String how) {
        for (KeyTouch each : KeyTouch.values()) {
            if (each.name().equalsIgnoreCase(how)) {
                return each;
            }
        }
        throw new Refusal("how", "A key is pressed, let go, or put on or off; “" + how + "” is none of these.");
    }

    // ---- edited

    @GetMapping("/shows/{showId}/hands/edit")
    String edit(@PathVariable int showId, @RequestParam(defaultValue = "0") int page, Model model) {
        fill(pages.open(showId, "Hands", model), page, model);
        model.addAttribute("script", "editing");
        return "hands/edit";
    }

    private void fill(Show show, int pageId, Model model) {
        HandPage page = (pageId == 0 ? show.hands().stream().findFirst() : Hands.page(show, pageId)).orElse(null);
        // In the place of one that is gone nothing is written into another.
        model.addAttribute("gone", pageId != 0 && page == null);
        model.addAttribute("show", show);
        model.addAttribute("page", page);
        model.addAttribute("was", page == null ? "" : grid(page));
        model.addAttribute("left", List.of());
        if (page != null) {
            model.addAttribute("rows", new HandsView(show, stage.playback(show.id())).rows(page));
            model.addAttribute("copy", CopiedKeys.of(show, page));
        }
    }

    private String drawn(Show show, int pageId, Model model) {
        fill(show, pageId, model);
        return "hands/edit :: body";
    }

    @GetMapping("/shows/{showId}/hands/body")
    String body(@PathVariable int showId, @RequestParam(defaultValue = "0") int page, Model model) {
        return drawn(shows.get(showId), page, model);
    }

    @GetMapping("/shows/{showId}/hands/form")
    String form(
            @PathVariable int showId,
            @RequestParam int page,
            @RequestParam int row,
            @RequestParam int column,
            Model model) {
        Show show = shows.get(showId);
        Optional<HandKey> there = Hands.page(show, page).flatMap(p -> p.at(row, column));
        model.addAttribute("show", show);
        model.addAttribute(
                "form", there.map(k -> KeyForm.of(show, page, k)).orElseGet(() -> KeyForm.fresh(page, row, column)));
        model.addAttribute("was", Fingerprint.of(there));
        model.addAttribute("marks", Mark.values());
        model.addAttribute("ways", HandKey.Way.values());
        model.addAttribute(
                "told",
                show.devices().stream().filter(d -> !d.phrases().isEmpty()).toList());
        return "hands/form :: form";
    }

    @PostMapping("/shows/{showId}/hands/keys")
    String keep(
            @PathVariable int showId,
            KeyForm form,
            @RequestParam(defaultValue = "") String was,
            HttpServletResponse response,
            Model model) {
        Show changed = shows.edit(showId, (form.id() == 0 ? "add the key " : "change the key ") + form.name(), s -> {
            Optional<HandKey> there = form.id() == 0
                    ? Hands.page(s, form.page()).flatMap(p -> p.at(form.row(), form.column()))
                    : Hands.key(s, form.id());
            Fingerprint.require(was, there, "this key");
            return Hands.withKey(s, form.page(), form.toKey(s));
        });
        if (form.way() != HandKey.Way.PRESS && form.off().isBlank()) {
            Notice.with(response, "“" + form.name() + "” has nothing under off: nothing is sent when it goes off.");
        }
        return drawn(changed, form.page(), model);
    }

    @PostMapping("/shows/{showId}/hands/keys/{keyId}/delete")
    String delete(@PathVariable int showId, @PathVariable int keyId, Model model) {
        Show before = shows.get(showId);
        int page = Hands.pageOf(before, keyId).map(HandPage::id).orElse(0);
        String name = Hands.key(before, keyId).map(HandKey::name).orElse("");
        return drawn(shows.edit(showId, "delete the key " + name, s -> Hands.withoutKey(s, keyId)), page, model);
    }

    /** To a place of this page or another; a key that is there goes to where this one came from. */
    @PostMapping("/shows/{showId}/hands/keys/{keyId}/move")
    String move(
            @PathVariable int showId,
            @PathVariable int keyId,
            @RequestParam int page,
            @RequestParam int row,
            @RequestParam int column,
            Model model) {
        String name = Hands.key(shows.get(showId), keyId).map(HandKey::name).orElse("");
        Show changed = shows.edit(showId, "move the key " + name, s -> Hands.withKeyAt(s, keyId, page, row, column));
        return drawn(changed, page, model);
    }

    @PostMapping("/shows/{showId}/hands/paste")
    String paste(
            @PathVariable int showId,
            @RequestParam(defaultValue = "0") int page,
            @RequestParam(defaultValue = "0") int row,
            @RequestParam(defaultValue = "0") int column,
            @RequestParam String keys,
            Model model) {
        CopiedKeys copied = CopiedKeys.read(keys);
        CopiedKeys.Pasted[] pasted = new CopiedKeys.Pasted[1];
        Show changed = shows.edit(showId, "paste keys", s -> {
            pasted[0] = copied.into(s, page, row, column);
            return pasted[0].show();
        });
        String drawn = drawn(changed, pasted[0].pageId(), model);
        model.addAttribute("left", pasted[0].left());
        return drawn;
    }

    // ---- a signal that works it too

    /** From which moment on a touch is waited for. */
    @GetMapping("/shows/{showId}/hands/came")
    @ResponseBody
    String came(@PathVariable int showId) {
        return Long.toString(cameIn.last());
    }

    /** @return what was learnt, in words; no content as long as nothing has been touched */
    @PostMapping("/shows/{showId}/hands/keys/{keyId}/learn")
    ResponseEntity<String> learn(@PathVariable int showId, @PathVariable int keyId, @RequestParam long after) {
        if (!stage.isOpen(showId)) {
            throw new Refusal("show", "This show is not on the desk, so no pad of it is heard; put it there first.");
        }
        Optional<Outcome> touched = cameIn.touchedSince(after, showId);
        if (touched.isEmpty()) {
            return ResponseEntity.noContent().build();
        }
        Show changed = shows.edit(
                showId, "learn a signal for the key", s -> s.withListener(listener(s, keyId, touched.get())));
        Listener learnt = changed.listeners().get(changed.listeners().size() - 1);
        return ResponseEntity.ok(learnt.pattern().words(touched.get().source().numbering()) + " of "
                + touched.get().source().name());
    }

    private static Listener listener(Show show, int keyId, Outcome touched) {
        HandKey key =
                Hands.key(show, keyId).orElseThrow(() -> new Refusal("key", "That key is gone; reload the page."));
        Message message = touched.signal().message();
        return new Listener(
                0,
                show.freeListenerName(key.name()),
                Set.of(touched.source().deviceId()),
                message instanceof ChannelMessage m ? OptionalInt.of(m.channel()) : OptionalInt.empty(),
                Learning.pattern(message, false),
                new Reaction.Hand(keyId),
                0,
                0,
                false,
                true);
    }

    // ---- pages

    @PostMapping("/shows/{showId}/hands/pages")
    String newPage(
            @PathVariable int showId,
            @RequestParam String name,
            @RequestParam String rows,
            @RequestParam String columns,
            Model model) {
        Show changed = shows.edit(showId, "add the page " + name, s -> {
            Show with = Hands.withPage(s, name);
            return Hands.withGrid(
                    with,
                    with.hands().get(with.hands().size() - 1).id(),
                    name,
                    Typed.number("rows", rows),
                    Typed.number("columns", columns));
        });
        return drawn(changed, changed.hands().get(changed.hands().size() - 1).id(), model);
    }

    /** What a page is besides its keys. */
    private static String grid(HandPage page) {
        return Fingerprint.of(List.of(page.name(), page.rows(), page.columns()));
    }

    @PostMapping("/shows/{showId}/hands/pages/{pageId}")
    String grid(
            @PathVariable int showId,
            @PathVariable int pageId,
            @RequestParam(defaultValue = "") String was,
            @RequestParam String name,
            @RequestParam String rows,
            @RequestParam String columns,
            Model model) {
        Show changed = shows.edit(showId, "change the page " + name, s -> {
            String is = Hands.page(s, pageId).map(HandsController::grid).orElse("");
            Fingerprint.requireMark(was, is, "this page");
            return Hands.withGrid(s, pageId, name, Typed.number("rows", rows), Typed.number("columns", columns));
        });
        return drawn(changed, pageId, model);
    }

    @PostMapping("/shows/{showId}/hands/pages/{pageId}/delete")
    String deletePage(@PathVariable int showId, @PathVariable int pageId, Model model) {
        String name = Hands.page(shows.get(showId), pageId).map(HandPage::name).orElse("");
        return drawn(
                shows.edit(
                        showId, "delete the page " + name.toLowerCase(Locale.ROOT), s -> Hands.withoutPage(s, pageId)),
                0,
                model);
    }

    @PostMapping("/shows/{showId}/hands/pages/{pageId}/place")
    String placePage(@PathVariable int showId, @PathVariable int pageId, @RequestParam int by, Model model) {
        Show changed = shows.edit(showId, "move a page", s -> {
            List<Integer> ids = s.hands().stream().map(HandPage::id).toList();
            return Hands.withPageAt(s, pageId, ids.indexOf(pageId) + by);
        });
        return drawn(changed, pageId, model);
    }

    @PostMapping("/shows/{showId}/hands/undo")
    String undo(@PathVariable int showId, @RequestParam(defaultValue = "0") int page, Model model) {
        model.addAttribute("done", shows.undone(showId));
        return stepped(shows.get(showId), page, model);
    }

    @PostMapping("/shows/{showId}/hands/redo")
    String redo(@PathVariable int showId, @RequestParam(defaultValue = "0") int page, Model model) {
        model.addAttribute("done", shows.redone(showId));
        return stepped(shows.get(showId), page, model);
    }

    /** A page that the step took away gives way to another. */
    private String stepped(Show show, int page, Model model) {
        return drawn(show, Hands.page(show, page).isPresent() ? page : 0, model);
    }
}
