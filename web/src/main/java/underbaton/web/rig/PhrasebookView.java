package underbaton.web.rig;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import underbaton.core.cue.Cue;
import underbaton.core.cue.Show;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.PositionList;
import underbaton.web.kernel.Fingerprint;

/** A machine's phrasebook as a sheet: under its headings, each phrase with what it says and where it is used. */
public record PhrasebookView(Device device, List<Group> groups) {

    /** @param heading empty for the phrases that stand under none */
    public record Group(String heading, List<Entry> entries) {}

    /**
     * @param place in the machine's list, as it prints it; empty outside the list
     * @param used in how many cues
     * @param astray the entry that has its number by now, where it is no longer in the list; empty when all is well
     */
    public record Entry(PhraseWords said, String place, int used, String astray) {
        public Phrase phrase() {
            return said.phrase();
        }

        /** What a call adds: {@code dB}, {@code on or off}; empty for nothing. */
        public String takes() {
            return phrase().argument().map(Argument::toString).orElse("");
        }
    }

    /** What the rule of its list was when the sheet was drawn. */
    public String listWas() {
        return Fingerprint.of(device.list());
    }

    static PhrasebookView of(Show show, Device device) {
        Map<String, List<Entry>> groups = new LinkedHashMap<>();
        groups.put("", new ArrayList<>());
        Map<Integer, List<Cue>> using = show.cuesByPhrase(device.id());
        for (Phrase phrase : device.phrases()) {
            PhraseWords said = PhraseWords.of(device, phrase);
            int used = using.getOrDefault(phrase.id(), List.of()).size();
            groups.computeIfAbsent(phrase.remarks().group(), g -> new ArrayList<>())
                    .add(new Entry(
                            said,
                            said.place(device),
                            used,
                            device.nowMeant(phrase).map(Phrase::name).orElse("")));
        }
        return new PhrasebookView(
                device,
                groups.entrySet().stream()
                        .filter(e -> !e.getValue().isEmpty())
                        .map(e -> new Group(e.getKey(), e.getValue()))
                        .toList());
    }

    /** The number of the list's first entry as the machine prints it; empty without a list. */
    public String listFirst() {
        return device.list()
                .map(l -> switch (l.kind()) {
                    case NOTE -> device.numbering().note(l.first());
                    case PROGRAM -> device.numbering().program(l.first());
                    case CONTROLLER -> Integer.toString(l.first());
                })
                .orElse("");
    }

    public PositionList.Kind[] listKinds() {
        return PositionList.Kind.values();
    }
}
