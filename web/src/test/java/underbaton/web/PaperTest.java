package underbaton.web;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.core.cue.Show;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Device;
import underbaton.web.library.Shows;

/** What is printed, read in the PDF: all of it, on as many pages as it takes, with headings and numbers on each. */
class PaperTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private final Show show = baton.bean(Shows.class).get(baton.show("The Ferryman’s Lantern"));

    /** The words of each page. */
    private List<String> printed(String path) throws IOException {
        Page page = baton.open("/shows/" + show.id() + "/" + path);
        page.waitForTimeout(500);
        List<String> pages = new ArrayList<>();
        try (PDDocument pdf = Loader.loadPDF(page.pdf(new Page.PdfOptions().setPreferCSSPageSize(true)))) {
            for (int i = 1; i <= pdf.getNumberOfPages(); i++) {
                PDFTextStripper stripper = new PDFTextStripper();
                stripper.setSortByPosition(true);
                stripper.setStartPage(i);
                stripper.setEndPage(i);
                pages.add(stripper.getText(pdf).replaceAll("\\s+", " "));
            }
        }
        for (int i = 0; i < pages.size(); i++) {
            assertThat(pages.get(i)).contains((i + 1) + " of " + pages.size());
        }
        return pages;
    }

    /** What is played stands on paper: the copies of linked sections too, by the plan. */
    @Test
    void theWholeBookIsPrintedAsItIsPlayedWithItsHeadingOnEachPage() throws IOException {
        List<String> pages = printed("book/paper");
        assertThat(pages).hasSizeGreaterThan(1).allMatch(p -> p.contains("who gets what"));
        assertThat(pages).allMatch(p -> p.contains(show.name() + ", "));
        String all = String.join(" ", pages);
        List<PlannedCue> plan = Planner.plan(show).cues();
        assertThat(plan).hasSizeGreaterThan((int) show.cues().count());
        int from = 0;
        for (PlannedCue cue : plan) {
            String line = cue.copy().isEmpty() ? cue.label() + " " + cue.start() : cue.label() + " at ";
            assertThat(all.indexOf(line, from)).as(line).isNotNegative();
            from = all.indexOf(line, from);
        }
        assertThat(all)
                .contains("Sound console: Bed → −15 dB")
                .contains("10 Bows, other, 2:00")
                .contains("Told early: FOH lights 40 ms");
        assertThat(all).containsPattern("[A-Z] \\w+.*, bar \\d+, as [A-Z]");
    }

    @Test
    void theWallSheetHasAllBytesAndBothStatesOfASwitch() throws IOException {
        Device console = show.devices().stream()
                .filter(d -> d.name().equals("Sound console"))
                .findFirst()
                .orElseThrow();
        String all = String.join(" ", printed("rig/devices/" + console.id() + "/sheet"));
        console.phrases().forEach(p -> assertThat(all).contains(p.name()));
        assertThat(all).containsPattern("Vox 1 mute .*B5 00 7F \\| B5 .*00 00");
        Device switcher = show.devices().stream()
                .filter(d -> d.name().equals("Camera switcher"))
                .findFirst()
                .orElseThrow();
        assertThat(String.join("", printed("rig/devices/" + switcher.id() + "/sheet"))
                        .replace(" ", ""))
                .contains("2F63616D6572612F70726F6772616D00")
                .contains("6900000000000");
    }

    @Test
    void theWholeSongIsPrinted() throws IOException {
        int song = show.items().stream()
                .filter(i -> i.name().equals("Cold dawn"))
                .findFirst()
                .orElseThrow()
                .id();
        List<String> pages = printed("score?item=" + song + "&bars=4");
        assertThat(pages).hasSizeGreaterThan(1);
        String all = String.join(" ", pages);
        assertThat(all)
                .contains("First light")
                .contains("River")
                .contains("Last note")
                .contains("57");
    }
}
