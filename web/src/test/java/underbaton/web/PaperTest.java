package underbaton.web;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.core.cue.Show;
import underbaton.core.plan.PlannedCall;
import underbaton.core.plan.PlannedCue;
import underbaton.core.plan.PlannedItem;
import underbaton.core.plan.Planner;
import underbaton.core.rig.Connection;
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

    /** Each call of a department's machines is on its sheet, in order, and none of the others'. */
    @Test
    void aDepartmentsSheetHasItsCuesAloneAndWhatTheyTellItBesides() throws IOException {
        List<String> pages = printed("book/paper?of=cm");
        assertThat(pages).allMatch(p -> p.contains(show.name() + ", Cameras, "));
        String all = String.join(" ", pages);
        Device switcher = machine("Camera switcher");
        int from = 0;
        for (PlannedCue cue : Planner.plan(show).cues()) {
            for (PlannedCall call : cue.calls()) {
                if (call.deviceId() == switcher.id()) {
                    String line = "Camera switcher: " + call.phrase();
                    assertThat(all.indexOf(line, from)).as(cue.label()).isNotNegative();
                    from = all.indexOf(line, from) + 1;
                }
            }
        }
        assertThat(all.indexOf("Camera switcher: ", from)).as("no other").isNegative();
        assertThat(all)
                .contains("close on the coin")
                .doesNotContain("haze from here")
                .doesNotContain("FOH lights:");
        assertThat(String.join(" ", printed("book/paper?of=lx"))).contains("haze from here");
    }

    @Test
    void theRunningOrderSaysWhenEachItemBeginsByThePlan() throws IOException {
        String all = String.join(" ", printed("book/order"));
        int seconds = 0;
        for (PlannedItem item : Planner.plan(show).items()) {
            String begins = "%d:%02d:%02d".formatted(seconds / 3600, seconds / 60 % 60, seconds % 60);
            assertThat(all).containsPattern(Pattern.quote(item.item().name()) + ".{1,60}" + begins);
            seconds += item.seconds();
        }
    }

    @Test
    void theLineListNamesEachMachineAndHowItIsReached() throws IOException {
        String all = String.join(" ", printed("rig/paper"));
        for (Device device : show.devices()) {
            assertThat(all).contains(device.name());
            if (device.connection() instanceof Connection.Network network) {
                assertThat(all).contains(network.host() + ":" + network.port());
            }
        }
    }

    private Device machine(String name) {
        return show.devices().stream()
                .filter(d -> d.name().equals(name))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void theWallSheetHasAllBytesAndBothStatesOfASwitch() throws IOException {
        Device console = machine("Sound console");
        String all = String.join(" ", printed("rig/devices/" + console.id() + "/sheet"));
        console.phrases().forEach(p -> assertThat(all).contains(p.name()));
        assertThat(all).containsPattern("Vox 1 mute .*B5 00 7F \\| B5 .*00 00");
        Device switcher = machine("Camera switcher");
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
