package org.polyclave.files.table;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Stream;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVRecord;
import org.apache.poi.ss.usermodel.FillPatternType;
import org.apache.poi.ss.usermodel.IndexedColors;
import org.apache.poi.xssf.usermodel.XSSFCell;
import org.apache.poi.xssf.usermodel.XSSFSheet;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.polyclave.core.key.KeyGenerator;
import org.polyclave.core.key.KeyObjective;
import org.polyclave.core.key.KeyOptions;
import org.polyclave.core.key.KeyOutcome;
import org.polyclave.core.key.SupportPropagationProver;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.run.CancelSignal;
import org.polyclave.files.convert.MatrixFiles;
import org.polyclave.files.source.ImportAccount;
import org.polyclave.files.source.ImportAccount.Fate;
import org.polyclave.files.source.ImportAccount.Reason;
import org.polyclave.files.source.ImportedStudy;
import org.polyclave.files.source.ReadingWatch;
import org.polyclave.files.source.UnreadCell;
import org.polyclave.files.table.SheetMapping.Meaning;
import org.polyclave.files.table.TableChoices.CellCorrection;
import org.polyclave.study.change.Retype;
import org.polyclave.study.compile.StudyCompiler;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.rules.Problem;

/** Tables as people keep them, nobody having prepared them, become proven keys, and every cell of them is accounted for. */
final class TablesAsKeptTest {
    private static final Path FOLDER = Path.of("src/test/resources/unprepared");

    private record Kept(String name, byte[] bytes) {
        static Kept of(String name) {
            try {
                return new Kept(name, Files.readAllBytes(FOLDER.resolve(name)));
            } catch (IOException missing) {
                throw new UncheckedIOException(missing);
            }
        }

        ImportedStudy read(TableChoices choices) {
            ImportedStudy plain = MatrixFiles.read(bytes, name, "", choices);
            return plain.study().rows().isEmpty() ? read(mapping(), choices) : plain;
        }

        ImportedStudy read(SheetMapping mapping, TableChoices choices) {
            return UnpreparedTable.read(bytes, name, "", mapping, choices, ReadingWatch.NONE);
        }

        SheetMapping mapping() {
            return UnpreparedTable.look(bytes, name).proposal();
        }

        @Override
        public String toString() {
            return name;
        }
    }

    static Stream<Kept> tables() {
        return Stream.concat(
                Stream.of(
                                "beetles-sexes-below.csv",
                                "beetles-across.csv",
                                "fungi-two-headings.csv",
                                "fungi-pasted.tsv",
                                "fungi-old-mac.csv",
                                "grasses-inches.csv",
                                "grasses-short-lines.csv",
                                "grasses-no-units.csv",
                                "fish-pounds.csv")
                        .map(Kept::of),
                Stream.of(new Kept("beetles-marked.xlsx", workbook())));
    }

    /** What somebody at the preview would do: choose a unit where one is asked for, take what is offered, or nothing. */
    private static TableChoices answered(ImportedStudy read) {
        Map<String, Retype.Choice> types = new HashMap<>();
        read.columns().stream()
                .filter(ImportedStudy.Column::open)
                .forEach(c -> types.put(c.character(), new Retype.Choice(c.type(), c.unit())));
        List<CellCorrection> corrections = new ArrayList<>();
        for (UnreadCell cell : read.unread()) {
            String as = cell.nearest().isEmpty() ? null : cell.nearest().get(0);
            corrections.add(new CellCorrection(cell.heading(), cell.row(), cell.text(), as));
        }
        return new TableChoices(types, corrections, "");
    }

    @ParameterizedTest
    @MethodSource("tables")
    void itBecomesAProvenKey(Kept table) {
        ImportedStudy first = table.read(TableChoices.NONE);
        ImportedStudy read = table.read(answered(first));

        assertThat(read.problems()).filteredOn(Problem::blocking).isEmpty();
        assertThat(read.unread()).isEmpty();
        assertThat(read.columns()).noneMatch(ImportedStudy.Column::open);
        var matrix = StudyCompiler.compile(read.study()).matrix();
        var outcome = (KeyOutcome.Generated) new KeyGenerator()
                .generate(
                        matrix,
                        KeyOptions.DEFAULT.withNodeBudget(400).withObjective(KeyObjective.FEWEST),
                        CancelSignal.NEVER);
        assertThat(new SupportPropagationProver()
                        .prove(matrix, outcome.result().key())
                        .proven())
                .isTrue();
    }

    @ParameterizedTest
    @MethodSource("tables")
    void everyCellIsAccountedFor(Kept table) throws IOException {
        int held = table.name().endsWith(".xlsx") ? HELD_IN_WORKBOOK : held(table);
        for (TableChoices choices : List.of(TableChoices.NONE, answered(table.read(TableChoices.NONE)))) {
            ImportedStudy read = table.read(choices);
            ImportAccount account = Objects.requireNonNull(read.account());
            assertThat(account.cells().stream()
                            .mapToInt(ImportAccount.FateCount::cells)
                            .sum())
                    .isEqualTo(held);
            assertThat(count(account, Fate.UNREAD))
                    .isEqualTo(read.unread().stream()
                            .map(u -> u.line() * 1000 + u.column())
                            .distinct()
                            .count());
            if (!table.mapping().transposed()) {
                assertThat(account.lines())
                        .isEqualTo(account.taxa() + account.leftOut().size() + headings(table));
            }
        }
    }

    private static int headings(Kept table) {
        boolean prepared =
                !MatrixFiles.read(table.bytes(), table.name()).study().rows().isEmpty();
        return prepared ? 1 : table.mapping().titleRows() + table.mapping().headingRows();
    }

    /** Turned about, a line is a character, or names the taxa. */
    @Test
    void ofATableWithTaxaAcrossTheColumnsAreTaxa() {
        ImportAccount account =
                Objects.requireNonNull(read("beetles-across.csv").account());
        assertThat(List.of(account.lines(), account.taxa(), account.leftOut().size()))
                .containsExactly(6, 4, 0);
        assertThat(read("beetles-across.csv").study().characters())
                .extracting(c -> c.id())
                .containsExactly("body-length", "elytra", "colour", "eye-length", "eye-width", "flight-period");
    }

    private static int count(ImportAccount account, Fate fate) {
        return account.cells().stream()
                .filter(c -> c.fate() == fate)
                .mapToInt(ImportAccount.FateCount::cells)
                .sum();
    }

    /** Cells that hold something, counted without the reader. */
    private static int held(Kept table) throws IOException {
        String text = new String(table.bytes(), StandardCharsets.UTF_8);
        char separator =
                table.name().endsWith(".tsv") ? '\t' : text.contains("|") ? '|' : text.contains(";") ? ';' : ',';
        int held = 0;
        try (var lines = CSVFormat.DEFAULT
                .builder()
                .setDelimiter(table.name().contains("pasted") ? '\t' : separator)
                .get()
                .parse(new StringReader(text))) {
            for (CSVRecord line : lines) {
                for (String cell : line) {
                    held += cell.isBlank() ? 0 : 1;
                }
            }
        }
        // One line is divided by commas.
        return table.name().contains("short-lines") ? held + 4 : held;
    }

    private static ImportedStudy read(String name) {
        return Kept.of(name).read(TableChoices.NONE);
    }

    private static StudyRow row(ImportedStudy read, String id) {
        return read.study().row(id).orElseThrow();
    }

    private static StudyScore score(ImportedStudy read, String row, String character) {
        return read.study().scores().stream()
                .filter(s -> s.row().equals(row) && s.character().equals(character))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void sexesBelowASpeciesThatIsNamedOnceAreItsOwn() {
        ImportedStudy read = read("beetles-sexes-below.csv");
        assertThat(read.study().rows())
                .extracting(StudyRow::name)
                .contains(
                        "Carbolla nitens, male", "Carbolla nitens, female", "Ferrula brevis", "Ferrula longa, female");
        assertThat(row(read, "carbolla-nitens").names().synonyms())
                .extracting(StudyRow.Synonym::name)
                .containsExactly("Carbolla aenea");
        assertThat(row(read, "carbolla-nitens-male").names().synonyms()).isEmpty();
        assertThat(row(read, "carbolla-opaca-male").occurrence().months()).containsExactly(5, 6, 7);
        assertThat(score(read, "carbolla-opaca-female", "foretarsi-widened"))
                .extracting(StudyScore::typed, StudyScore::doubtful, StudyScore::note)
                .containsExactly("present", true, "(+)");
        assertThat(score(read, "ferrula-longa-male", "antennal-segments").doubtful())
                .isTrue();
        assertThat(Objects.requireNonNull(read.account()).leftOut())
                .extracting(ImportAccount.LeftOutLine::line, ImportAccount.LeftOutLine::reason)
                .containsExactly(tuple(10, Reason.COUNTS), tuple(11, Reason.FOOTNOTE));
    }

    @Test
    void whatIsLeftOutIsSaidAndCanBeTakenIn() {
        Kept table = Kept.of("beetles-sexes-below.csv");
        SheetMapping all = table.mapping();
        SheetMapping taken = new SheetMapping(
                all.titleRows(),
                all.headingRows(),
                all.decimalComma(),
                all.fillDown(),
                all.blanks(),
                all.columns(),
                false,
                false,
                List.of());
        assertThat(table.read(taken, TableChoices.NONE).study().rows())
                .extracting(StudyRow::label)
                .contains("n = 16");
    }

    @Test
    void twoMeasuresInOneCellAreTwoCharacters() {
        ImportedStudy read = read("fungi-two-headings.csv");
        assertThat(read.columns())
                .extracting(ImportedStudy.Column::character, ImportedStudy.Column::unit, ImportedStudy.Column::open)
                .contains(tuple("Spores length", "µm", true), tuple("Spores width", "µm", true));
        assertThat(score(read, "letharda-mortis", "spores-length").typed()).isEqualTo("10-12 µm");
        assertThat(score(read, "letharda-mortis", "spores-width").typed()).isEqualTo("6-7 µm");
    }

    /** What people write of harm is never a state that a key asks for, and never taken for harmless. */
    @Test
    void harmIsAskedFor() {
        ImportedStudy read = read("fungi-two-headings.csv");
        assertThat(read.study().characters()).noneMatch(c -> c.label().contains("Poisonous"));
        assertThat(read.study().rows()).allMatch(r -> r.hazard() == Hazard.NOT_ASSESSED);
        assertThat(read.unread())
                .extracting(UnreadCell::row, UnreadCell::text, u -> u.nearest().get(0))
                .containsExactly(
                        tuple("Letharda mortis", "deadly", "life-threatening"),
                        tuple("Tubarella nana", "yes", "caution"));
    }

    @Test
    void aTypeOrACorrectionHoldsForTheCorrectedFileToo() {
        Kept table = Kept.of("grasses-inches.csv");
        ImportedStudy first = table.read(TableChoices.NONE);
        assertThat(first.unread())
                .extracting(UnreadCell::heading, UnreadCell::text)
                .containsExactly(tuple("weight of 100 seeds", "half oz"), tuple("Flowering", "all summer"));
        TableChoices choices = new TableChoices(
                Map.of("Glumes", new Retype.Choice(CharacterType.ORDERED, "")),
                List.of(
                        new CellCorrection("weight of 100 seeds", "", "half oz", "1/2 oz"),
                        new CellCorrection("Flowering", "Sedrion durum", "all summer", null)),
                "");
        String moved = "Kept in the hut,,,,,,\n" + new String(table.bytes(), StandardCharsets.UTF_8);
        for (byte[] file : List.of(table.bytes(), moved.getBytes(StandardCharsets.UTF_8))) {
            ImportedStudy read = new Kept("x.csv", file).read(choices);
            assertThat(read.unread()).isEmpty();
            assertThat(score(read, "carrowel-erecta", "weight-of-100-seeds").typed())
                    .isEqualTo("1/2 oz");
            assertThat(score(read, "sedrion-durum", "flowering"))
                    .extracting(StudyScore::typed, StudyScore::note)
                    .containsExactly("?", "all summer");
            assertThat(read.study().character("glumes").orElseThrow().type()).isEqualTo(CharacterType.ORDERED);
        }
    }

    @Test
    void aLengthWithoutAUnitIsAskedAndARatioIsNot() {
        assertThat(read("grasses-no-units.csv").columns())
                .extracting(ImportedStudy.Column::character, ImportedStudy.Column::type, ImportedStudy.Column::open)
                .containsExactly(
                        tuple("blade length", CharacterType.LENGTH, true),
                        tuple("blade length / width", CharacterType.RATIO, false),
                        tuple("ligule", CharacterType.STATES, false),
                        tuple("whorls", CharacterType.COUNT, false));
    }

    @Test
    void linesThatAreDividedOtherwiseOrCutOffAreTold() {
        ImportedStudy read = read("grasses-short-lines.csv");
        assertThat(read.study().rows()).extracting(StudyRow::label).contains("Sedrion molle");
        assertThat(read.problems())
                .extracting(Problem::row, Problem::blocking)
                .containsExactly(tuple(3, false), tuple(4, false));
        assertThat(score(read, "carrowel-erecta", "leaf-width").typed()).isEqualTo("2.5-4");
        assertThat(Objects.requireNonNull(read.account()).columns())
                .containsExactly(new ImportAccount.LeftOutColumn(8, "far away", 1));
    }

    /** Lines through scores, colours, comments, formats that show a unit, a range that became a day. */
    private static byte[] workbook() {
        String[][] texts = {
            {"Beetles of the weir, 2031"},
            {"Species", "Length", "Colour", "Spots", "Legs"},
            {"Carbolla nitens", "", "black", "4", "red"},
            {"Carbolla opaca", "", "black", "", "black"},
            {"Ferrula brevis", "", "bronze", "0", "#N/A"},
            {"Ferrula longa", "", "bronze", "8-10", "black"}
        };
        double[] lengths = {5.5, 7, 1.2, 9};
        try (XSSFWorkbook book = new XSSFWorkbook()) {
            XSSFSheet sheet = book.createSheet();
            for (int r = 0; r < texts.length; r++) {
                for (int c = 0; c < texts[r].length; c++) {
                    (c == 0 ? sheet.createRow(r) : sheet.getRow(r))
                            .createCell(c)
                            .setCellValue(texts[r][c]);
                }
            }
            var centimetres = book.createCellStyle();
            centimetres.setDataFormat(book.createDataFormat().getFormat("0.0\" cm\""));
            for (int r = 0; r < lengths.length; r++) {
                sheet.getRow(r + 2).getCell(1).setCellValue(lengths[r]);
            }
            sheet.getRow(2).getCell(1).setCellStyle(centimetres);
            sheet.getRow(4).getCell(1).setCellStyle(centimetres);
            var struck = book.createCellStyle();
            var font = book.createFont();
            font.setStrikeout(true);
            struck.setFont(font);
            sheet.getRow(3).getCell(2).setCellStyle(struck);
            var yellow = book.createCellStyle();
            yellow.setFillPattern(FillPatternType.SOLID_FOREGROUND);
            yellow.setFillForegroundColor(IndexedColors.YELLOW.index);
            sheet.getRow(2).getCell(4).setCellStyle(yellow);
            var day = book.createCellStyle();
            day.setDataFormat((short) 14);
            XSSFCell spots = sheet.getRow(3).getCell(3);
            spots.setCellValue(46150);
            spots.setCellStyle(day);
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            book.write(out);
            return out.toByteArray();
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
    }

    private static final int HELD_IN_WORKBOOK = 1 + 5 + 4 * 5;

    @Test
    void whatOnlyTheEyeSeesInAWorkbookIsOffered() {
        Kept table = new Kept("marked.xlsx", workbook());
        SheetMapping mapping = table.mapping();
        assertThat(mapping.marks())
                .extracting(SheetMapping.MarkMeaning::mark, SheetMapping.MarkMeaning::meaning)
                .containsExactly(tuple("FFFF00", Meaning.NOTHING), tuple("struck", Meaning.DOUBT));
        SheetMapping legend = new SheetMapping(
                mapping.titleRows(),
                mapping.headingRows(),
                false,
                false,
                mapping.blanks(),
                mapping.columns(),
                false,
                false,
                List.of(
                        new SheetMapping.MarkMeaning("FFFF00", Meaning.NOTE, "seen once"),
                        new SheetMapping.MarkMeaning("struck", Meaning.DOUBT, "struck through")));
        ImportedStudy read = table.read(legend, TableChoices.NONE);
        assertThat(score(read, "carbolla-opaca", "colour"))
                .extracting(StudyScore::doubtful, StudyScore::note)
                .containsExactly(true, "struck through");
        assertThat(score(read, "carbolla-nitens", "legs"))
                .extracting(StudyScore::doubtful, StudyScore::note)
                .containsExactly(false, "seen once");
        assertThat(score(read, "carbolla-nitens", "length").typed())
                .as("as it is shown")
                .isEqualTo("5.5 cm");
        assertThat(read.columns().get(0).open()).as("7 beside 5.5 cm").isTrue();
        assertThat(read.unread())
                .extracting(UnreadCell::text, UnreadCell::nearest)
                .containsExactly(tuple("2026-05-08", List.of("5–8")));
        assertThat(count(Objects.requireNonNull(read.account()), Fate.NOTHING_SEEN))
                .isEqualTo(1);
    }
}
