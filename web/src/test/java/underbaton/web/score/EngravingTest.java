package underbaton.web.score;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import underbaton.core.cue.Call;
import underbaton.core.cue.Cue;
import underbaton.core.cue.CueNumber;
import underbaton.core.cue.Item;
import underbaton.core.cue.ItemKind;
import underbaton.core.cue.Show;
import underbaton.core.cue.Start;
import underbaton.core.engine.DryRun;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Effect;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.Remarks;
import underbaton.core.rig.SpeechWording;
import underbaton.core.score.Score;
import underbaton.core.score.Tempo;

/** Where lines, notes and signs of a score stand on the paper. */
class EngravingTest {

    private Show show = rig();

    private static Show rig() {
        Show show = Show.empty(1, "Engraved");
        for (Department department : List.of(Department.SOUND, Department.LIGHTS)) {
            show = show.withDevice(new Device(
                    0,
                    department.title(),
                    department,
                    new Connection.NetworkMidi("127.0.0.1", 5004),
                    0,
                    Numbering.WIRE,
                    0,
                    List.of()));
        }
        show = show.withPhrase(1, phrase("Bed", "control 7 to ?", Effect.LEVELS));
        show = show.withPhrase(2, phrase("Amber", "note 1", Effect.HOLDS));
        return show.withPhrase(2, phrase("Dark", "note 0", Effect.STOPS));
    }

    private static Phrase phrase(String name, String says, Effect effect) {
        return new Phrase(
                0,
                name,
                new SpeechWording(Numbering.WIRE).read(says),
                Optional.empty(),
                effect,
                false,
                false,
                Remarks.NONE);
    }

    /** @param cues each a start, a bar, and one call, of the first machine that has such a phrase */
    private Engraving of(String score, String... cues) {
        Item song = new Item(0, ItemKind.SONG, "Song", 0, List.of()).withScore(Optional.of(Score.of(score)));
        show = show.withItem(song, 0);
        int item = show.items().get(0).id();
        for (String cue : cues) {
            String[] parts = cue.split("\\|");
            Device device = show.devices().get(parts[1].strip().startsWith("Bed") ? 0 : 1);
            List<Call> calls = List.of(Call.of(device, parts[1].strip()));
            CueNumber number = CueNumber.of(Long.toString(1 + show.cues().count()));
            show = show.withCue(item, new Cue(0, number, Start.of(parts[0].strip()), "", calls, 0));
        }
        return new Engraving(show, DryRun.of(Planner.plan(show)), item);
    }

    @Test
    void aStaffLineStandsForEachDepartmentInTheirOwnOrder() {
        Sheet sheet = of("16 end").sheet(8, 1216);
        assertThat(sheet.lines()).hasSize(2);
        assertThat(sheet.lines().get(0).staves())
                .extracting(Sheet.Staff::department)
                .containsExactly(Department.LIGHTS, Department.SOUND);
        assertThat(sheet.lines().get(1).bars())
                .extracting(Sheet.Bar::number)
                .containsExactly(9, 10, 11, 12, 13, 14, 15, 16);
    }

    @ParameterizedTest
    @CsvSource({"0,2", "1,40", "8,5", "64,1"})
    void theSongIsCutIntoLinesOfSoManyBars(int bars, int lines) {
        assertThat(of("40 end").sheet(bars, 1216).lines()).hasSize(lines);
    }

    @Test
    void barsAreAsWideAsTheyAreLongAndFillTheLine() {
        Sheet.Line line = of("1 4/4\n3 2/4\n4 end").sheet(4, 1216).lines().get(0);
        double whole =
                line.bars().get(1).end() - line.bars().get(1).beats().get(0).x();
        double half =
                line.bars().get(2).end() - line.bars().get(2).beats().get(0).x();
        assertThat(whole).isCloseTo(2 * half, within(0.001));
        assertThat(line.bars().get(3).end()).isCloseTo(line.last(), within(0.001));
        assertThat(line.meters()).extracting(Sheet.Meter::top).containsExactly(4, 2);
    }

    /** A pick-up of three eighths before 4/4: its beats are the last of a whole bar, from the half of the third on. */
    @Test
    void aPickUpIsBarNoughtItsBeatsCountTowardsBarOneAndTheMeterStandsBeforeIt() {
        Sheet.Line line =
                of("pick-up 3 eighths\n1 4/4\n4 end").sheet(4, 1216).lines().get(0);
        assertThat(line.bars()).extracting(Sheet.Bar::number).startsWith(0, 1, 2);
        assertThat(line.bars().get(0).beats()).extracting(Sheet.Beat::place).containsExactly("3:480", "4");
        assertThat(line.bars().get(0).beats()).extracting(Sheet.Beat::tick).containsExactly(0L, 480L);
        assertThat(line.bars().get(1).beats()).extracting(Sheet.Beat::place).containsExactly("1", "2", "3", "4");
        assertThat(line.meters()).singleElement().satisfies(m -> assertThat(m.x())
                .isLessThan(line.bars().get(0).beats().get(0).x()));
    }

    @Test
    void aNoteStandsOnItsBeatAndWhatItHoldsIsTiedToTheNextAcrossLines() {
        Sheet sheet = of("16 end", "at 2:3| Amber", "at 10:1| Dark").sheet(8, 1216);
        Sheet.Line first = sheet.lines().get(0);
        Sheet.Note note = first.notes().get(0);
        assertThat(note.x()).isEqualTo(first.bars().get(1).beats().get(2).x());
        assertThat(note.y()).isEqualTo(first.staves().get(0).y());
        assertThat(note.hollow()).isFalse();
        assertThat(first.curves()).extracting(Sheet.Curve::kind).containsExactly("tie");
        Sheet.Line second = sheet.lines().get(1);
        assertThat(second.notes())
                .extracting(Sheet.Note::hollow)
                .as("it ends what was held")
                .containsExactly(true);
        assertThat(second.curves()).extracting(Sheet.Curve::kind).containsExactly("tie");
    }

    /** A hairpin opens where a level rises and closes where it falls. */
    @Test
    void movesAreHairpins() {
        Sheet.Line line = of("8 end", "at 1| Bed 20", "at 2| Bed 100 in 4 beats", "at 5| Bed 10 in 4 beats")
                .sheet(8, 1216)
                .lines()
                .get(0);
        List<String> hairs = line.curves().stream()
                .filter(c -> c.kind().startsWith("hair"))
                .map(c -> tips(c.path()))
                .toList();
        assertThat(hairs).containsExactly("opens", "closes");
    }

    /** The middle point of a hairpin is its tip. */
    private static String tips(String path) {
        String[] points = path.substring(1).split(" L");
        double begin = Double.parseDouble(points[0].split(" ")[0]);
        double tip = Double.parseDouble(points[1].split(" ")[0]);
        return tip < begin ? "opens" : "closes";
    }

    @Test
    void spansSayWhatTheyAreAndAnOverlapIsTold() {
        Sheet.Line line =
                of("1 quarter = 120\n3 vamp 2 bars, leave at once\n5 film 0:10 River\n8 Z Late\n10 hold 2.5 s\n12 end")
                        .sheet(16, 1216)
                        .lines()
                        .get(0);
        assertThat(line.vamps()).extracting(Sheet.Span::text).containsExactly("vamp until GO, leave at once");
        Sheet.Span film = line.films().get(0);
        assertThat(film.wrong()).isTrue();
        assertThat(film.text()).isEqualTo("film 0:10 River: section Z Late begins 4 s before its end");
        assertThat(film.end()).isCloseTo(line.bars().get(8).end(), within(1.0));
        assertThat(line.holds()).extracting(Sheet.Sign::text).containsExactly("2.5 s");
    }

    @Test
    void copiesOfALinkedSectionAreHollowAndNameTheirCue() {
        Sheet.Line line = of("1 B Chorus\n5 C Again as B\n8 end", "at 2:1| Amber")
                .sheet(8, 1216)
                .lines()
                .get(0);
        assertThat(line.notes()).hasSize(2);
        assertThat(line.notes().get(1).copy()).isEqualTo("C");
        assertThat(line.notes().get(1).told()).isEqualTo("Amber (as cue 1)");
        assertThat(line.letters()).extracting(Sheet.Letter::name).containsExactly("Chorus", "Again = B");
    }

    @Test
    void aStripKnowsWhenEachOfItsBeatsComes() {
        Sheet strip = of("1 quarter = 120\n2 end").strip(100);
        assertThat(strip.beats())
                .startsWith("[[0,")
                .contains("[500,")
                .contains("[3500,")
                .contains("[4000,");
        assertThat(strip.lines()).hasSize(1);
    }

    @ParameterizedTest
    @CsvSource({"quarter = 96,♩ = 96", "dotted quarter = 72.5,♩. = 72.5", "half = 60,half = 60"})
    void aTempoIsWrittenAsMusiciansDo(String typed, String told) {
        assertThat(Engraving.told(Tempo.of(typed))).isEqualTo(told);
    }

    @Test
    void whatWaitsForGoHasNoPlaceOnThePaperButIsNamed() {
        Engraving engraving = of("8 end", "at 1| Amber", "by hand| Dark");
        assertThat(engraving.byHand()).extracting(c -> c.number().toString()).containsExactly("2");
        assertThat(engraving.sheet(8, 1216).lines().get(0).notes()).hasSize(1);
    }

    @Test
    void aCopyThatIsLeftOutIsACrossWhereItWouldStand() {
        Sheet.Line line = of("1 B Chorus\n5 C Again as B without 1\n8 end", "at 2:1| Amber", "at 3:1| Dark")
                .sheet(8, 1216)
                .lines()
                .get(0);
        Sheet.Left left = line.lefts().get(0);
        assertThat(line.lefts()).hasSize(1);
        assertThat(left.copy()).isEqualTo("C");
        assertThat(left.told()).isEqualTo("cue 1 is left out here");
        assertThat(left.tick()).as("a bar into the section at bar 5").isEqualTo(5L * 4 * 960);
        assertThat(line.notes()).filteredOn(n -> !n.copy().isEmpty()).hasSize(1);
    }

    @Test
    void onlyLinesThatChangedAreNewToWhoHasTheSheetBefore() {
        Sheet before = of("16 end", "at 2:3| Amber", "at 14:1| Amber").sheet(4, 1216);
        Sheet moved = of("16 end", "at 2:4| Amber", "at 14:1| Amber").sheet(4, 1216);
        // The cues of the second song have other ids: nothing with a note is the same, empty lines are.
        assertThat(before.since(before).same()).containsExactlyInAnyOrder(0, 1, 2, 3);
        assertThat(moved.since(before).same()).doesNotContain(0, 3);
        assertThat(of("20 end", "at 2:3| Amber").sheet(4, 1216).since(before).same())
                .as("another number of lines: all of it is new")
                .isEmpty();
    }
}
