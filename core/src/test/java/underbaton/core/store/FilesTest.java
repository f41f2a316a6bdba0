package underbaton.core.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.networknt.schema.InputFormat;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.apache.commons.csv.CSVFormat;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;
import underbaton.core.exchange.PhraseTable;
import underbaton.core.rig.Connection;
import underbaton.core.rig.Department;
import underbaton.core.rig.Device;
import underbaton.core.rig.Family;
import underbaton.core.rig.Levels;
import underbaton.core.rig.Numbering;
import underbaton.core.rig.Phrase;
import underbaton.core.rig.PositionList;
import underbaton.core.rig.Refusal;

/** Phrasebooks and machines as files: what is written is read back the same, and what cannot be read is explained. */
class FilesTest {

    private static final Path SCHEMA = Path.of("..", "docs", "formats", "device.schema.json");

    private static Device device(Family family) {
        Connection connection = family == Family.CAMERAS_BY_OSC
                ? new Connection.Osc("cam.local", 9000, "/camera/program", Connection.Carrier.TCP_SLIP)
                : new Connection.NetworkMidi("10.0.0.7", 5004);
        Device empty = new Device(0, "Machine", Department.SOUND, connection, 4, numbering(), 30, List.of())
                .withLevels(Levels.of("-∞=0, -10=80, 0=100", Numbering.WIRE));
        return family.fill(empty, family.examples(), "");
    }

    private static Numbering numbering() {
        return new Numbering(1, 8, Numbering.Values.PER_CENT, -1, true, 0);
    }

    private static byte[] utf8(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    @ParameterizedTest
    @EnumSource(Family.class)
    void everyFamilyComesBackFromBothFormats(Family family) {
        Device device = device(family);
        assertThat(device.phrases()).hasSizeGreaterThan(1);
        assertThat(DeviceFile.read(utf8(DeviceFile.write(device)))).isEqualTo(device);
        Device bare = device.withPhrases(List.of());
        assertThat(PhraseTable.read(bare, utf8(PhraseTable.write(device)))).isEqualTo(device);
    }

    /** Independent readers: a JSON Schema validator (2020-12), and the CSV library under its strictest format. */
    @ParameterizedTest
    @EnumSource(Family.class)
    void othersReadOurFiles(Family family) throws Exception {
        var schema = SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
                .getSchema(Files.readString(SCHEMA), InputFormat.JSON);
        assertThat(schema.validate(DeviceFile.write(device(family)), InputFormat.JSON))
                .isEmpty();
        assertThat(schema.validate("{\"format\": \"under-baton-device\"}", InputFormat.JSON))
                .isNotEmpty();
        try (var csv = CSVFormat.RFC4180.parse(new java.io.StringReader(PhraseTable.write(device(family))))) {
            assertThat(csv.getRecords()).allSatisfy(r -> assertThat(r.size()).isEqualTo(11));
        }
    }

    @Test
    void aListKeepsItsOrderAndItsNumbers() {
        Device desk = new Device(
                        0,
                        "Desk",
                        Department.LIGHTS,
                        new Connection.LocalMidi("Loop 1"),
                        0,
                        Numbering.WIRE,
                        0,
                        List.of())
                .withList(Optional.of(new PositionList(PositionList.Kind.NOTE, 2)));
        Device filled = PhraseTable.read(desk, utf8("\uFEFFname;says;listed\nDark;;yes\nAmber;;yes\n"));
        assertThat(filled.phrases()).extracting(Phrase::listed).containsExactly(true, true);
        assertThat(PhraseTable.write(filled)).contains("Amber,note D♯−2,,holds,,yes");
        assertThat(DeviceFile.read(utf8(DeviceFile.write(filled)))).isEqualTo(filled);
    }

    @Test
    void phrasesThatAreThereAreChangedAndKeepTheirCues() {
        Device device = device(Family.SCENES_BY_PROGRAM);
        Device numbered = device.withPhrases(List.of(device.phrases().get(1).withId(7)));
        Device read = PhraseTable.read(numbered, utf8("name,says,effect\npre-show,program A03,moment\nNew,note 3,\n"));
        assertThat(read.phrases()).extracting(Phrase::id).containsExactly(7, 0);
        assertThat(PhraseTable.write(read)).contains("pre-show,program A03,,moment");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "name,effect\\nA,holds|no column “says”",
                "name,says\\nA,note E0\\na,note 3|Row 3, column name: row 2 has the name “a” already",
                "name,says\\nA,note 300|Row 2, column note: “300” is outside",
                "name,says\\nA,program 12|Row 2, column program: This machine's programs run from A01 to P08",
                "name,says,effect\\nA,note 3,glows|Row 2, column effect: “glows” is no effect",
                "name,says,mark\\nA,note 3,pink|take one of orange, sky",
                "name,says,guarded\\nA,note 3,perhaps|neither yes nor no",
                "name,says,listed\\nA,,yes|has no list of its own",
                "name,says\\n,note 3|Row 2, column name: Give a name",
                "name,says|no rows",
                "name,says\\n,\\n ,\\n|no rows",
                "name,says,colour\\nA,note 3,red|Nothing is known of a column “colour”",
                "name,says,Name\\nA,note 3,B|Two columns are headed “Name”",
                "name,says\\nA,note 3,note 4|Row 2: “note 4” stands behind the last column",
                "name,says\\n\"A,note 3|cannot be read as a table",
            })
    void aRowThatCannotBeReadIsNamed(String csv, String words) {
        Device device = device(Family.SCENES_BY_PROGRAM);
        assertThatThrownBy(() -> PhraseTable.read(device, utf8(csv.replace("\\n", "\n"))))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining(words);
    }

    @Test
    void tablesAreReadAsSpreadsheetsWriteThem() {
        Device device = device(Family.SCENES_BY_PROGRAM).withPhrases(List.of());
        for (String text : List.of(
                "name,says,,\nA,note 3,,\n,,,\n\nB,note 4,,\n",
                "sep=;\r\nname;says\r\nA;note 3\r\nB;note 4\r\n",
                "name;says;\"note\"\nA;note 3;low, dim\n;;\nB;note 4;\n",
                "Name\tWhat goes out\tBytes\nA\tnote 3\t90 03 7F\nB\tnote 4\t90 04 7F\n")) {
            assertThat(PhraseTable.read(device, utf8(text)).phrases())
                    .as(text)
                    .extracting(Phrase::name)
                    .containsExactly("A", "B");
        }
    }

    @Test
    void whatASpreadsheetWouldRunIsTextAndComesBackTheSame() {
        Device device = device(Family.SCENES_BY_PROGRAM).withPhrases(List.of());
        List<String> names = List.of("=1+1", "+6", "-oo", "@home", "'=quoted", "'plain", "6 - 7");
        for (String name : names) {
            device = device.withPhrase(PhraseText.of(
                            device, device(Family.SCENES_BY_PROGRAM).phrases().get(0))
                    .in(device)
                    .withName(name));
        }
        String csv = PhraseTable.write(device);
        assertThat(csv.lines()).noneMatch(l -> l.matches("\"?[=+@-].*"));
        assertThat(csv).contains("\n'=1+1,").contains("\n'plain,");
        Device read = PhraseTable.read(device.withPhrases(List.of()), utf8(csv));
        assertThat(read.phrases()).extracting(Phrase::name).containsExactlyElementsOf(names);
    }

    @Test
    void filesThatAreTooLargeAreRefused() {
        Device device = device(Family.SCENES_BY_PROGRAM);
        assertThatThrownBy(() -> PhraseTable.read(device, utf8("name,says\n" + "A,note 3\n".repeat(1_000_000))))
                .hasMessageContaining("1000");
        StringBuilder rows = new StringBuilder("name,says\n");
        for (int i = 0; i < 1001; i++) {
            rows.append("A").append(i).append(",note 3\n");
        }
        assertThatThrownBy(() -> PhraseTable.read(device, utf8(rows.toString())))
                .hasMessageContaining("more than 1000 rows");
        assertThatThrownBy(() -> DeviceFile.read(new byte[0])).hasMessageContaining("empty");
    }

    @ParameterizedTest
    @ValueSource(strings = {"UTF-8", "UTF-16", "UTF-16LE with its mark", "windows-1252"})
    void aTableIsReadInTheEncodingsThatOtherProgramsSaveIn(String encoding) {
        boolean little = encoding.startsWith("UTF-16LE");
        Charset charset = Charset.forName(little ? "UTF-16LE" : encoding);
        byte[] table = ((little ? "\uFEFF" : "") + "name,says\nCafé,note 3\n").getBytes(charset);
        Device read = PhraseTable.read(device(Family.SCENES_BY_PROGRAM), table);
        assertThat(read.phraseNamed("Café")).isPresent();
    }

    /** Nothing of how a machine counts is guessed: one that is read from 0 or from 1 is off by one else. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "\"firstProgram\" : 1,||nothing of “firstProgram”",
                "\"bankSize\" : 8,||nothing of “bankSize”",
                "\"values\" : \"0 to 100 %\",||nothing of “values”",
                "\"noteZero\" : \"C-1\",||nothing of “noteZero”",
                "\"blackKeys\" : \"flats\",||nothing of “blackKeys”",
                ",\\s*\"firstPlace\" : 0||nothing of “firstPlace”",
                "\"firstProgram\" : 1|\"firstProgram\" : null|nothing of “firstProgram”",
                "\"firstProgram\" : 1|\"firstProgram\" : \"1\"|firstProgram",
                "\"firstProgram\" : 1|\"firstProgram\" : 1.5|firstProgram",
                "\"blackKeys\" : \"flats\"|\"blackKeys\" : \"flat\"|“flat” cannot stand for “blackKeys”",
                "\"channel\" : \\d+,||nothing of “channel”",
                "\"phrases\" : \\[|\"phrases\" : [ null, |Phrase 1 is “null”",
            })
    void whatIsMissingInAMachinesFileIsNotGuessed(String part, String instead, String words) {
        String file = DeviceFile.write(device(Family.SCENES_BY_PROGRAM));
        String changed = file.replaceFirst(part, instead == null ? "" : instead);
        assertThat(changed).isNotEqualTo(file);
        assertThatThrownBy(() -> DeviceFile.read(utf8(changed)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining(words)
                .hasMessageNotContaining("java");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{|cannot be read at line 1",
                "{\"format\":\"other\"}|no file of a machine",
                "{\"format\":\"under-baton-device\",\"version\":2}|version 2",
                "{\"format\":\"under-baton-device\",\"version\":1}|nothing of “numbering”",
                "{\"wings\":2}|wings",
                "null|says “null”",
                "{\"format\":\"under-baton-device\",\"version\":\"1\"}|at version: a whole number must stand there",
            })
    void aMachineThatCannotBeReadIsExplained(String json, String words) {
        assertThatThrownBy(() -> DeviceFile.read(utf8(json)))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining(words);
    }
}
