package underbaton.web.signals;

import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import underbaton.core.cue.Show;
import underbaton.core.rig.Numbering;
import underbaton.core.signal.Condition;
import underbaton.core.signal.Listener;
import underbaton.core.signal.Pattern;
import underbaton.core.signal.Reaction;
import underbaton.core.signal.Source;

/** The blanks of a listener being filled in. Used once, by one thread. */
final class ListenerDraft {

    int id;
    String name = "";
    String from = ListenerForm.RIG;
    String channel = "";
    String kind = "";
    String low = "";
    String high = "";
    String soft = "";
    String hard = "";
    String way = "";
    String bank = "";
    String word = "";
    String text = "";
    List<Condition> conditions = List.of();
    String does = "";
    String cue = "";
    String fires = "on";
    String offset = "";
    String target = "";
    String section = "";
    String group = "";
    String among = "";
    String table = "";
    String pause = "0";
    int item;
    String atOnce;
    String listens;

    ListenerForm form() {
        return new ListenerForm(
                id,
                name,
                from,
                channel,
                kind,
                low,
                high,
                soft,
                hard,
                way,
                bank,
                word,
                text,
                conditions.stream().map(c -> Integer.toString(c.place() + 1)).toList(),
                conditions.stream().map(c -> c.relation().name()).toList(),
                conditions.stream().map(Condition::value).toList(),
                does,
                cue,
                fires,
                offset,
                target,
                section,
                group,
                among,
                table,
                null,
                pause,
                item,
                atOnce,
                listens);
    }

    void fill(Show show, Listener l) {
        id = l.id();
        name = l.name();
        among = ListenerForm.joined(l.from());
        from = l.from().size() > 1
                ? ListenerForm.SEVERAL
                : l.from().isEmpty()
                        ? ListenerForm.RIG
                        : l.from().contains(Source.OTHERS)
                                ? ListenerForm.OTHERS
                                : Integer.toString(l.from().iterator().next());
        channel = l.channel().isEmpty()
                ? ""
                : Integer.toString(Numbering.channel(l.channel().getAsInt()));
        pattern(l.pattern(), SignalsController.numbering(show, l));
        reaction(show, l.reaction());
        pause = Integer.toString(l.pauseMs());
        item = l.itemId();
        atOnce = l.atOnce() ? "on" : null;
        listens = l.listens() ? "on" : null;
    }

    void pattern(Pattern pattern, Numbering n) {
        if (pattern instanceof Pattern.Note p) {
            kind("note", p.struck() ? "struck" : "released");
            range(n.note(p.from()), n.note(p.to()));
            soft = p.softest() == 1 ? "" : Integer.toString(p.softest());
            hard = p.hardest() == 127 ? "" : Integer.toString(p.hardest());
        } else if (pattern instanceof Pattern.Controller p) {
            kind("controller", p.way().name().toLowerCase(Locale.ROOT));
            low = Integer.toString(p.controller());
            soft = p.way() == Pattern.Way.CHANGED ? Integer.toString(p.from()) : n.value(p.from());
            hard = p.way() == Pattern.Way.WITHIN ? n.value(p.to()) : "";
        } else if (pattern instanceof Pattern.Program p) {
            kind("program", "");
            bank = p.bank() < 0 ? "" : Integer.toString(p.bank());
            if (p.from() != 0 || p.to() != 127) {
                range(n.program(p.from()), n.program(p.to()));
            }
        } else if (pattern instanceof Pattern.Bend p) {
            kind("bend", "");
            soft = Integer.toString(p.from());
            hard = Integer.toString(p.to());
        } else if (pattern instanceof Pattern.Show p) {
            kind("showControl", p.command().name());
            word = p.list();
            text = p.cue();
        } else if (pattern instanceof Pattern.Machine p) {
            kind("machineControl", p.command().name());
        } else if (pattern instanceof Pattern.Song p) {
            kind("song", "");
            range(Integer.toString(p.from()), Integer.toString(p.to()));
        } else if (pattern instanceof Pattern.Transport p) {
            kind("transport", p.move().name());
        } else if (pattern instanceof Pattern.Osc p) {
            kind("osc", "");
            text = p.address();
            conditions = p.conditions();
        }
    }

    /** Nothing of another pattern stays behind. */
    private void kind(String newKind, String newWay) {
        low = "";
        high = "";
        soft = "";
        hard = "";
        bank = "";
        word = "";
        text = "";
        conditions = List.of();
        kind = newKind;
        way = newWay;
    }

    private void range(String first, String last) {
        low = first;
        high = first.equals(last) ? "" : last;
    }

    private void reaction(Show show, Reaction reaction) {
        if (reaction instanceof Reaction.Give give) {
            does = give.deed().name();
        } else if (reaction instanceof Reaction.ToCue to) {
            does = "cue";
            cue = show.cue(to.cueId()).map(c -> c.number().toString()).orElse("");
            fires = to.fires() ? "on" : null;
            table = to.table().stream()
                    .map(r -> r.number() + "="
                            + show.cue(r.cueId())
                                    .map(c -> c.number().toString())
                                    .orElse("gone"))
                    .collect(Collectors.joining(", "));
            offset = to.offset() == 0 ? "" : Integer.toString(to.offset());
        } else if (reaction instanceof Reaction.Play play) {
            does = "item";
            target = Integer.toString(play.itemId());
            section = play.section();
            offset = play.offset() == 0 ? "" : Integer.toString(play.offset());
        } else if (reaction instanceof Reaction.Fire fire) {
            does = "phrase";
            target = fire.deviceId() + " " + fire.phraseId();
        } else if (reaction instanceof Reaction.Hand hand) {
            does = "hand";
            target = Integer.toString(hand.keyId());
        } else if (reaction instanceof Reaction.Arm arm) {
            does = arm.listens() ? "arm" : "disarm";
            group = ListenerForm.joined(arm.listenerIds());
        } else {
            does = "relay";
        }
    }
}
