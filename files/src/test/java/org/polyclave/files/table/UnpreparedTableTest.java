package org.polyclave.files.table;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.io.ByteArrayOutputStream;
import java.util.ArrayList;
import java.util.List;
import org.apache.poi.ss.util.CellRangeAddress;
import org.apache.poi.xssf.usermodel.XSSFRow;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.files.source.ImportedStudy;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.notation.NotationPrinter;
import org.polyclave.study.notation.UnitHeading;
import org.polyclave.study.rules.Problem;

final class UnpreparedTableTest {
    /** Title, grouped headings, units in a row of their own, genus named once, decimal commas, remarks, marks. */
    private static final String[][] FIELD_BOOK = {
        {"Field book of the lower meadow, spring"},
        {"No", "Genus", "Epithet", "Leaf", "", "", "Flower", "Remarks"},
        {"", "", "", "width", "margin", "hairs", "length", ""},
        {"", "", "", "(mm)", "", "", "cm", ""},
        {"1", "Tarnella", "vadosa", "4,5–9", "toothed (young ones)", "x", "1,2", "by the ford"},
        {"2", "", "nana", "3,2*", "toothed ?", "-", "0,8–1", ""},
        {"3", "Velmia", "lata", "-", "toothed [two seen]", "x", "2,5", "wet"}
    };

    private static byte[] workbook() throws Exception {
        try (XSSFWorkbook workbook = new XSSFWorkbook()) {
            var sheet = workbook.createSheet();
            for (int r = 0; r < FIELD_BOOK.length; r++) {
                XSSFRow row = sheet.createRow(r);
                for (int c = 0; c < FIELD_BOOK[r].length; c++) {
                    row.createCell(c).setCellValue(FIELD_BOOK[r][c]);
                }
            }
            sheet.addMergedRegion(new CellRangeAddress(0, 0, 0, 7));
            sheet.addMergedRegion(new CellRangeAddress(1, 1, 3, 5));
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            workbook.write(out);
            return out.toByteArray();
        }
    }

    private static byte[] csv() {
        List<String> lines = new ArrayList<>();
        for (String[] row : FIELD_BOOK) {
            lines.add(String.join(";", row));
        }
        return String.join("\n", lines).getBytes(UTF_8);
    }

    /** A mapping of a table that stands as its file does, with nothing below it and nothing marked. */
    private static SheetMapping mapping(
            int titleRows,
            int headingRows,
            boolean decimalComma,
            boolean fillDown,
            List<String> blanks,
            List<SheetMapping.MappedColumn> columns) {
        return new SheetMapping(
                titleRows, headingRows, decimalComma, fillDown, blanks, columns, false, false, List.of());
    }

    private static String cell(Study study, String row, String character) {
        StudyCharacter known = study.character(character).orElseThrow();
        return study.scores().stream()
                .filter(s -> s.row().equals(row) && s.character().equals(character))
                .map(s -> NotationPrinter.print(s.value(), known) + (s.note().isEmpty() ? "" : " | " + s.note()))
                .findFirst()
                .orElse("");
    }

    @Test
    void aFieldBookIsUnderstoodAsItStands() throws Exception {
        for (byte[] file : new byte[][] {workbook(), csv()}) {
            String name = file[0] == 'P' ? "book.xlsx" : "book.csv";
            SheetMapping mapping = UnpreparedTable.look(file, name).proposal();
            assertThat(mapping.titleRows()).isEqualTo(1);
            assertThat(mapping.headingRows()).isEqualTo(3);
            assertThat(mapping.decimalComma()).isTrue();
            ImportedStudy read = UnpreparedTable.read(file, name, mapping);
            assertThat(read.problems()).filteredOn(Problem::blocking).isEmpty();
            Study study = read.study();
            assertThat(study.rows())
                    .filteredOn(r -> r.rank().equals("species"))
                    .extracting(r -> r.label())
                    .containsExactly("Tarnella vadosa", "Tarnella nana", "Velmia lata");
            assertThat(study.characters())
                    .extracting(StudyCharacter::id, StudyCharacter::type, StudyCharacter::unit, StudyCharacter::organ)
                    .containsExactly(
                            tuple("leaf-width", CharacterType.LENGTH, "mm", "leaf"),
                            tuple("leaf-margin", CharacterType.STATES, "", "leaf"),
                            tuple("leaf-hairs", CharacterType.STATES, "", "leaf"),
                            tuple("flower-length", CharacterType.LENGTH, "cm", "flower"));
            assertThat(cell(study, "tarnella-vadosa", "leaf-width")).isEqualTo("4.5–9");
            assertThat(cell(study, "tarnella-vadosa", "leaf-margin")).isEqualTo("toothed | (young ones)");
            assertThat(cell(study, "tarnella-nana", "leaf-width")).isEqualTo("3.2 | *");
            assertThat(cell(study, "tarnella-nana", "leaf-margin")).isEqualTo("toothed");
            assertThat(study.scores())
                    .filteredOn(StudyScore::doubtful)
                    .extracting(StudyScore::row, StudyScore::character)
                    .containsExactly(tuple("tarnella-nana", "leaf-margin"));
            assertThat(cell(study, "tarnella-nana", "leaf-hairs")).isEqualTo("absent");
            assertThat(cell(study, "velmia-lata", "leaf-width"))
                    .as("a dash: the part is not there")
                    .isEqualTo("n/a");
            assertThat(cell(study, "velmia-lata", "leaf-margin")).isEqualTo("toothed | [two seen]");
            assertThat(cell(study, "tarnella-nana", "flower-length")).isEqualTo("0.8–1");
        }
    }

    @ParameterizedTest
    @CsvSource({"leaf width in cm,leaf width,cm", "'cover, %',cover,%", "spore length [µm],spore length,µm"})
    void aUnitIsFoundAtTheEndOfAHeading(String heading, String label, String unit) {
        assertThat(UnitHeading.parse(heading)).hasValueSatisfying(found -> {
            assertThat(found.label()).isEqualTo(label);
            assertThat(found.unit()).isEqualTo(unit);
        });
        assertThat(UnitHeading.parse(label)).isEmpty();
        assertThat(UnitHeading.parse("when seen in fluid")).isEmpty();
    }

    @Test
    void aProblemIsToldAtItsPlaceInTheOriginal() {
        byte[] file = new String(csv(), UTF_8).replace("0,8–1", "about so").getBytes(UTF_8);
        ImportedStudy read = UnpreparedTable.read(
                file, "b.csv", UnpreparedTable.look(file, "b.csv").proposal());

        assertThat(read.problems())
                .filteredOn(Problem::blocking)
                .singleElement()
                .satisfies(p -> {
                    assertThat(p.row()).isEqualTo(6);
                    assertThat(p.column()).isEqualTo(7);
                });
    }

    /** "1" and "0" may be counts: what they are taken for is a role that people see and change. */
    @Test
    void marksForYesAndNoAreAProposalThatCanBeOverruled() {
        byte[] table = "species,stamens\nAa,1\nBb,0\nCc,?\n".getBytes(UTF_8);
        SheetMapping proposal = UnpreparedTable.look(table, "t.csv").proposal();
        assertThat(proposal.columns().get(1).role()).isEqualTo(SheetMapping.ColumnRole.PRESENCE);
        assertThat(cell(UnpreparedTable.read(table, "t.csv", proposal).study(), "bb", "stamens"))
                .isEqualTo("absent");

        byte[] marked = "species,hairs\nAa,x\nBb,\n".getBytes(UTF_8);
        SheetMapping marks = UnpreparedTable.look(marked, "t.csv").proposal();
        assertThat(UnpreparedTable.read(marked, "t.csv", marks)
                        .study()
                        .characters()
                        .get(0)
                        .states())
                .as("what is marked only where it is there can still be absent")
                .extracting(s -> s.label())
                .containsExactly("absent", "present");

        SheetMapping counted = mapping(
                0,
                1,
                false,
                false,
                List.of(),
                List.of(
                        proposal.columns().get(0),
                        new SheetMapping.MappedColumn(SheetMapping.ColumnRole.CHARACTER, "stamens", "", "")));
        Study study = UnpreparedTable.read(table, "t.csv", counted).study();
        assertThat(study.character("stamens").orElseThrow().type()).isEqualTo(CharacterType.COUNT);
        assertThat(cell(study, "bb", "stamens")).isEqualTo("0");
        byte[] never = "species,hairs\nAa,no\nBb,-\n".getBytes(UTF_8);
        assertThat(UnpreparedTable.look(never, "t.csv")
                        .proposal()
                        .columns()
                        .get(1)
                        .role())
                .as("what is never there is not distinguished from what was not looked at")
                .isEqualTo(SheetMapping.ColumnRole.CHARACTER);
    }

    @Test
    void tablesWithTheSameHeadingsAreKnownAgainWhateverTheyHold() {
        byte[] other = new String(csv(), UTF_8)
                .replace("4,5–9", "7")
                .replace("Field book", "Second book")
                .getBytes(UTF_8);
        byte[] moreTitles = ("Copied by hand\n" + new String(csv(), UTF_8)).getBytes(UTF_8);
        byte[] different = new String(csv(), UTF_8).replace("margin", "edge").getBytes(UTF_8);
        String signature = UnpreparedTable.look(csv(), "b.csv").signature();

        assertThat(UnpreparedTable.look(other, "c.csv").signature()).isEqualTo(signature);
        assertThat(UnpreparedTable.look(different, "c.csv").signature()).isNotEqualTo(signature);
        assertThat(UnpreparedTable.look(moreTitles, "c.csv").signature()).isNotEqualTo(signature);
    }

    @Test
    void aMappingThatDoesNotFitIsRefusedInWords() {
        SheetMapping good = UnpreparedTable.look(csv(), "b.csv").proposal();
        SheetMapping deep = mapping(1, 9, true, true, good.blanks(), good.columns());
        SheetMapping nameless = mapping(
                1,
                3,
                true,
                true,
                List.of(),
                good.columns().stream()
                        .map(c -> new SheetMapping.MappedColumn(SheetMapping.ColumnRole.CHARACTER, c.label(), "", ""))
                        .toList());
        SheetMapping narrow =
                mapping(1, 3, true, true, List.of(), good.columns().subList(0, 2));

        for (SheetMapping wrong : List.of(deep, narrow)) {
            assertThat(UnpreparedTable.read(csv(), "b.csv", wrong)
                            .problems()
                            .get(0)
                            .text())
                    .contains("Say which rows");
        }
        assertThat(UnpreparedTable.read(csv(), "b.csv", nameless)
                        .problems()
                        .get(0)
                        .text())
                .contains("names of the taxa");
    }

    /** A table that was prepared is proposed to be read as what it is. */
    @Test
    void aPlainTableNeedsNoMapping() {
        byte[] plain = "Species,leaf width (mm),margin\nAa,5-9,toothed\nBb,3,entire\n".getBytes(UTF_8);
        SheetMapping mapping = UnpreparedTable.look(plain, "p.csv").proposal();
        assertThat(mapping.titleRows()).isZero();
        assertThat(mapping.headingRows()).isEqualTo(1);
        assertThat(mapping.decimalComma()).isFalse();
        Study study = UnpreparedTable.read(plain, "p.csv", mapping).study();
        assertThat(study.character("leaf-width").orElseThrow().unit()).isEqualTo("mm");
        assertThat(cell(study, "aa", "leaf-width")).isEqualTo("5–9");
    }

    @Test
    void aListOfSpecimensIsUnderstoodAsItStands() {
        byte[] box = """
                Box 7;;;;;;;;;
                No.;Species;Leg.;Date;Locality;Parish;Lat.;Long.;Specimen no.;Leaf width
                1;Tarnella nana;Isolde;4.5.2021;the weir;Sallow;47.3;-33.1;MM 1;4,5
                2;cf. Tarnella nana;Oswin;12 June 2021;-;Sallow;;;MM 2;
                3;Velmia lata;Oswin;31.2.2021;;;;;MM 3;
                """.getBytes(UTF_8);
        SheetMapping proposed = UnpreparedTable.look(box, "box.csv").proposal();
        assertThat(proposed.columns())
                .extracting(c -> c.role().name())
                .containsExactly(
                        "IGNORED",
                        "TAXON",
                        "COLLECTOR",
                        "DATE",
                        "PLACE",
                        "IGNORED",
                        "COORDINATES",
                        "COORDINATES",
                        "SPECIMEN",
                        "IGNORED");
        List<SheetMapping.MappedColumn> columns = new ArrayList<>(proposed.columns());
        columns.set(5, new SheetMapping.MappedColumn(SheetMapping.ColumnRole.PLACE, "Parish", "", ""));
        SheetMapping mapping = mapping(1, 1, false, false, List.of("-"), columns);
        ImportedStudy read = UnpreparedTable.read(box, "box.csv", mapping);
        assertThat(read.problems()).singleElement().satisfies(p -> {
            assertThat(p.text()).contains("31.2.2021");
            assertThat(List.of(p.row(), p.column())).as("in the original").containsExactly(5, 4);
        });
        assertThat(read.study().specimens())
                .extracting(
                        s -> s.code(), s -> s.event().place(), s -> s.event().date())
                .startsWith(tuple("MM 1", "the weir, Sallow", "2021-05-04"), tuple("MM 2", "Sallow", "2021-06-12"));
        assertThat(read.study().specimens().get(0).event().coordinates()).isEqualTo("47.3, -33.1");
        assertThat(read.study().specimens().get(1).present().orElseThrow().qualifier())
                .isEqualTo("cf.");
        assertThat(read.study().characters()).isEmpty();
    }

    @Test
    void aPreparedTableSaysHowTwoMeasuresInACellAreRead() {
        ImportedStudy read = TableReader.read(
                "taxon,spore size,cap\nAa,7-9 x 4-5,brown\nBb,8-10 × 5-6 µm,tan\n".getBytes(UTF_8), "t.csv");
        assertThat(read.problems().stream().filter(p -> !p.blocking()).map(Problem::sentence))
                .anySatisfy(
                        s -> assertThat(s).contains("'spore size' hold two measures", "Choose what each column holds"))
                .noneMatch(s -> s.contains("'cap'"));
    }
}
