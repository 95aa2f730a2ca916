package org.polyclave.files.convert;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileSystem;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import org.apache.poi.ss.usermodel.CellStyle;
import org.apache.poi.ss.util.CellRangeAddress;
import org.apache.poi.xssf.usermodel.XSSFRichTextString;
import org.apache.poi.xssf.usermodel.XSSFSheet;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.files.convert.MatrixFiles.Format;
import org.polyclave.files.source.ImportedStudy;
import org.polyclave.files.source.ReadingWatch;
import org.polyclave.files.table.TableReader;
import org.polyclave.files.table.TableWriter.Layout;
import org.polyclave.files.table.UnpreparedTable;
import org.polyclave.study.compile.StudyCompiler;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyCharacter.StudyState;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.notation.NotationPrinter;
import org.polyclave.study.rules.Problem;
import org.polyclave.study.testkit.RandomScores;

/** Every format there and back, and what comes of broken files. */
class MatrixFilesTest {
    static Stream<Arguments> formats() {
        return Stream.of(1L, 2L, 3L, 4L, 5L, 6L, 7L, 8L, 9L, 10L, 11L, 12L, 13L, 14L, 15L, 16L)
                .flatMap(seed -> Stream.of(Format.values())
                        .filter(f -> f != Format.DARWIN_CORE)
                        .flatMap(f -> Stream.of(Layout.values()).map(l -> Arguments.of(seed, f, l))));
    }

    private static ImportedStudy again(Study study, Format format, Layout layout) {
        return MatrixFiles.read(MatrixFiles.write(study, format, layout), study.title() + "." + format.ending());
    }

    private static List<String> problems(byte[] bytes, String name) {
        return MatrixFiles.read(bytes, name).problems().stream()
                .filter(Problem::blocking)
                .map(Problem::sentence)
                .toList();
    }

    private static List<String> problems(String text, String name) {
        return problems(text.getBytes(StandardCharsets.UTF_8), name);
    }

    @ParameterizedTest(name = "seed {0}, {1}, {2}")
    @MethodSource("formats")
    void whatAFormatCannotHoldIsToldAndAllElseComesBack(long seed, Format format, Layout layout) {
        Study study = RandomScores.study(seed);
        ImportedStudy once = again(study, format, layout);
        assertThat(once.problems()).noneMatch(Problem::blocking);
        List<String> losses = FormatLosses.of(study, once.study());
        Set<String> lost =
                Set.copyOf(losses.stream().map(l -> l.replaceAll(":.*", "")).toList());
        if (format == Format.STUDY) {
            assertThat(once.study()).isEqualTo(study);
            assertThat(losses).isEmpty();
        } else if (format != Format.NEXUS) {
            assertThat(lost).doesNotContain("scores", "what scores say", "taxa", "characters", "taxa, parent");
            assertThat(lost).contains("glossary", "references", "claims", "scope");
        }
        if (format != Format.STUDY && format != Format.NEXUS && layout == Layout.LONG) {
            assertThat(lost).as("the origin of scores is in long tables").noneMatch(l -> l.startsWith("scores"));
        }
        Study twice = again(once.study(), format, layout).study();
        assertThat(FormatLosses.of(once.study(), twice))
                .as("what came through once")
                .isEmpty();
    }

    /** Order of scores is that of rows and characters, however a study got them. */
    private static Study ordered(Study study) {
        List<String> rows = study.rows().stream().map(StudyRow::id).toList();
        List<String> characters =
                study.characters().stream().map(StudyCharacter::id).toList();
        return study.withScores(study.scores().stream()
                .sorted(Comparator.<StudyScore>comparingInt(s -> rows.indexOf(s.row()))
                        .thenComparingInt(s -> characters.indexOf(s.character())))
                .toList());
    }

    @ParameterizedTest(name = "seed {0}, {1}, {2}")
    @MethodSource("formats")
    void withItsSupplementEveryFormatHoldsAll(long seed, Format format, Layout layout) {
        Study study = RandomScores.study(seed);
        byte[] file = MatrixFiles.writeWhole(study, format, layout);
        ImportedStudy read = MatrixFiles.read(file, "another name." + format.ending());
        assertThat(read.problems()).noneMatch(p -> p.blocking() || p.sentence().contains("supplement"));
        assertThat(ordered(read.study())).isEqualTo(ordered(study));
    }

    @ParameterizedTest(name = "seed {0}")
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
    void taxaComeBackFromDarwinCore(long seed) {
        Study random = RandomScores.study(seed);
        StudyRow.Names names = new StudyRow.Names(
                "Orrin, 2031",
                List.of(
                        new StudyRow.Synonym("Aa prior", "Quill", false, ""),
                        new StudyRow.Synonym("Aa falsa", "", true, "Flora of Marrowmere")),
                List.of(new StudyRow.Vernacular("marsh tuft", "und"), new StudyRow.Vernacular("wet tuft", "und")));
        List<StudyRow> rows = random.rows().stream()
                .map(r -> r.isSemaphoront() || r.parent() == null ? r : r.withNames(names))
                .toList();
        Study study = random.withRows(rows);
        ImportedStudy read = again(study, Format.DARWIN_CORE, Layout.WIDE);
        assertThat(read.problems()).isEmpty();
        assertThat(read.study().rows())
                .usingRecursiveFieldByFieldElementComparatorOnFields("label", "rank", "names")
                .isEqualTo(rows.stream().filter(r -> !r.isSemaphoront()).toList());
        assertThat(read.study().rows().get(1).parent())
                .isEqualTo(read.study().rows().get(0).id());
        assertThat(FormatLosses.of(study, read.study())).anyMatch(l -> l.startsWith("scores"));
    }

    @Test
    void aListOfTaxaFromElsewhereIsRead() {
        ImportedStudy read = MatrixFiles.read("""
                dwc:taxonID;dwc:scientificName;dwc:taxonRank;dwc:family;dwc:genus;dwc:acceptedNameUsageID;dwc:parentNameUsageID
                1;Tarnella vadosa Orrin;species;Tarnellaceae;Tarnella;;
                2;Tarnella rara;species;Tarnellaceae;Tarnella;;77
                3;Tarnella olim;;;;1;
                4;;species;;;;
                """.getBytes(StandardCharsets.UTF_8), "list.csv");
        assertThat(read.problems().stream().map(Problem::sentence))
                .containsExactly(
                        "Row 5, column 2 (scientificName): The row names no taxon. Write its name, or remove the row.",
                        "Row 3, column 7 (parentNameUsageID): The file names no taxon '77', so 'Tarnella rara' stands at the top.");
        assertThat(read.study().rows())
                .extracting(StudyRow::label, StudyRow::parent)
                .containsExactly(
                        tuple("Tarnella vadosa Orrin", "tarnella"),
                        tuple("Tarnella rara", null),
                        tuple("Tarnellaceae", null),
                        tuple("Tarnella", "tarnellaceae"));
        assertThat(read.study().rows().get(0).names().synonyms())
                .containsExactly(new StudyRow.Synonym("Tarnella olim", "", false, ""));
    }

    private static final Study SUPPLEMENTED =
            MatrixFiles.read("""
            taxon,#hazard,margin,width
            #type,,states,length
            #states,,toothed|entire|lobed,
            Aa,none known,toothed,1-2
            Bb,caution,entire,3-4
            """.getBytes(StandardCharsets.UTF_8), "x.csv").study();

    /** What is read from a file that was written whole and then changed by hand. */
    private static ImportedStudy changed(UnaryOperator<String> change) {
        StudyCharacter margin = SUPPLEMENTED.characters().get(0);
        List<StudyState> states = margin.states().stream()
                .map(s -> s.withMistakenFor(s.id().equals("lobed") ? List.of("toothed") : List.of()))
                .toList();
        Study whole = SUPPLEMENTED
                .withCharacters(List.of(
                        margin.withStates(states), SUPPLEMENTED.characters().get(1)))
                .withScores(SUPPLEMENTED.scores().stream()
                        .map(s -> s.withSource("Orrin 2031"))
                        .toList());
        String file = new String(MatrixFiles.writeWhole(whole, Format.CSV, Layout.WIDE), StandardCharsets.UTF_8);
        return MatrixFiles.read(change.apply(file).getBytes(StandardCharsets.UTF_8), "x.csv");
    }

    private static StudyScore score(Study study, String row, String character) {
        return study.scores().stream()
                .filter(s -> s.row().equals(row) && s.character().equals(character))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void whatWasChangedInAFileHoldsAgainstItsSupplement() {
        ImportedStudy edited = changed(f -> f.replace("entire,3–4", "lobed,3–4").replace("Aa,", "Ax,"));
        Study study = edited.study();
        assertThat(edited.problems().stream().map(Problem::sentence))
                .anyMatch(p -> p.contains("'aa'") && p.contains("'bb' × 'margin'"));
        assertThat(study.rows().stream().map(StudyRow::name)).containsExactly("Bb", "Ax");
        assertThat(NotationPrinter.print(
                        score(study, "bb", "margin").value(), study.characters().get(0)))
                .isEqualTo("lobed");
        assertThat(score(study, "bb", "margin").source())
                .as("rests on what the file says")
                .isEmpty();
        assertThat(score(study, "bb", "width").source()).isEqualTo("Orrin 2031");
        assertThat(study.characters().get(0).states().get(2).mistakenFor()).containsExactly("toothed");

        Study renamed = changed(f -> f.replace("toothed|entire|lobed", "toothed|entire|lobed|cut"))
                .study();
        assertThat(renamed.characters().get(0).states()).hasSize(4);
        assertThat(renamed.characters().get(0).states().get(2).mistakenFor()).isEmpty();
    }

    /** One taxon is called by the identifier that the file gives to another. */
    @Test
    void aParentThatWasChangedInAFileIsTheTaxonThatTheFileNames() {
        List<StudyRow> rows = List.of(
                StudyRow.of("Aa").withRank("genus").withId("first"),
                StudyRow.of("Bb").withRank("genus").withId("aa"),
                StudyRow.of("Cc").withId("third"));
        Study study = SUPPLEMENTED.withScores(List.of()).withRows(rows);
        String file = new String(MatrixFiles.writeWhole(study, Format.CSV, Layout.WIDE), StandardCharsets.UTF_8);
        Study read = MatrixFiles.read(
                        file.replace("Cc,species,,", "Cc,species,Aa,").getBytes(StandardCharsets.UTF_8), "x.csv")
                .study();
        assertThat(read.rows())
                .extracting(StudyRow::id, StudyRow::parent)
                .containsExactly(tuple("first", null), tuple("aa", null), tuple("third", "first"));
    }

    @Test
    void aDamagedSupplementLeavesTheTable() {
        List<UnaryOperator<String>> damages = List.of(
                f -> f.replace("1/1 {", "1/2 {"),
                f -> f.replace("{\"\"version", "{{{\"\"version"),
                f -> f.replaceAll("(?m)^\"?#supplement.*$", "#supplement"),
                f -> f.replace("\"\"scores\"\":[", "\"\"scores\"\":[7,"),
                f -> f.replace("\"\"rows\"\":[", "\"\"rows\"\":[{\"\"as\"\":null,\"\"fields\"\":{}},"),
                f -> f.replace("\"\"characters\"\":[", "\"\"characters\"\":[{\"\"as\"\":[],\"\"fields\"\":3},"));
        for (UnaryOperator<String> damage : damages) {
            ImportedStudy read = changed(damage);
            assertThat(read.usable()).isTrue();
            assertThat(read.study().rows()).hasSize(2);
            assertThat(read.study().scores()).hasSize(4);
        }
        assertThat(changed(damages.get(0)).problems()).hasSize(1);
        assertThat(changed(damages.get(1)).problems()).hasSize(1);
        assertThat(changed(damages.get(2)).problems()).hasSize(1);
    }

    @ParameterizedTest(name = "seed {0}, {1}, {2}")
    @MethodSource("formats")
    void noFormatMakesARowShowLess(long seed, Format format, Layout layout) {
        Study study = RandomScores.study(seed);
        Study read = again(study, format, layout).study();
        for (StudyScore score : study.scores()) {
            String row = study.row(score.row()).orElseThrow().name();
            String label = study.character(score.character()).orElseThrow().label();
            StudyScore other = read.scores().stream()
                    .filter(s -> read.row(s.row()).orElseThrow().name().equals(row)
                            && read.character(s.character())
                                    .orElseThrow()
                                    .label()
                                    .equals(label))
                    .findFirst()
                    .orElse(null);
            Cell before = cell(study, score);
            Cell after = other == null ? Cell.UNKNOWN : cell(read, other);
            if (after instanceof Cell.Categorical now && before instanceof Cell.Categorical then) {
                assertThat(then.support() & ~now.support())
                        .as("%s × %s", row, label)
                        .isZero();
            } else if (after instanceof Cell.Numeric now && before instanceof Cell.Numeric then) {
                assertThat(now.min()).as("%s × %s", row, label).isEqualTo(then.min());
                assertThat(now.max()).as("%s × %s", row, label).isEqualTo(then.max());
            } else {
                assertThat(after).as("%s × %s", row, label).isIn(Cell.UNKNOWN, before);
            }
        }
    }

    /** What one score says, alone in its study. */
    private static Cell cell(Study study, StudyScore score) {
        Study alone = study.withRows(
                        List.of(study.row(score.row()).orElseThrow().withParent(null)))
                .withScores(List.of(score));
        Matrix matrix = StudyCompiler.compile(alone).matrix();
        for (int c = 0; c < matrix.characterCount(); c++) {
            if (matrix.character(c).id().equals(score.character())) {
                return matrix.cell(0, c);
            }
        }
        throw new AssertionError(score);
    }

    @Test
    void nexusIsReadAsItWasPublished() {
        ImportedStudy read = MatrixFiles.read("""
                #NEXUS [a comment [in a comment]]
                begin data;
                  dimensions ntax=3 nchar=5;
                  format datatype=standard symbols="012" missing=? gap=- matchchar=. interleave equate="x=(01) y={12}";
                  charstatelabels 1 leaf_margin / entire toothed 'deeply lobed', 2 'grower''s mark', 5 awn / absent present;
                  matrix
                    Aa_one 0 1 (0 1)
                    Bb     . 2 {12}
                    'Cc, x'  x y -

                    Aa_one 1 0
                    Bb     ? 1
                    'Cc, x' . .
                  ;
                end;
                begin trees; tree t = ((1,2),3); end;
                begin assumptions; typeset * t = unord: 1-2 4, ord: 3 5; end;
                """.getBytes(StandardCharsets.UTF_8), "old.nex");
        assertThat(read.problems()).isEmpty();
        Study study = read.study();
        assertThat(study.rows()).extracting(r -> r.label()).containsExactly("Aa one", "Bb", "Cc, x");
        assertThat(study.characters())
                .extracting(c -> c.label())
                .containsExactly("leaf margin", "grower's mark", "character 3", "character 4", "awn");
        assertThat(study.characters().get(2).type()).isEqualTo(CharacterType.ORDERED);
        assertThat(study.scores())
                .filteredOn(s -> s.row().equals("bb"))
                .extracting(StudyScore::typed)
                .containsExactly("entire", "state 2", "state 1 / state 2", "present");
        assertThat(study.scores())
                .filteredOn(s -> s.row().equals("cc-x"))
                .extracting(StudyScore::typed)
                .containsExactly("entire, toothed", "state 1 / state 2", "n/a", "state 1", "absent");
    }

    @Test
    void continuousCharactersAreTakenForWhatTheirNamesAndNumbersTell() {
        ImportedStudy read = MatrixFiles.read("""
                #NEXUS
                BEGIN TAXA; DIMENSIONS NTAX=2; TAXLABELS A B; END;
                BEGIN CHARACTERS;
                  DIMENSIONS NCHAR=3;
                  FORMAT DATATYPE=CONTINUOUS ITEMS=(MIN MAX);
                  CHARLABELS 'leaf width (cm)' teeth slenderness;
                  MATRIX A (0.3 0.5) (4 6) 1.25
                         B ? (7 9) (2 2.5);
                END;
                """.getBytes(StandardCharsets.UTF_8), "c.nex");
        assertThat(read.usable()).isTrue();
        assertThat(read.columns())
                .extracting(ImportedStudy.Column::type)
                .containsExactly(CharacterType.LENGTH, CharacterType.COUNT, CharacterType.RATIO);
        assertThat(read.study().scores()).extracting(StudyScore::typed).contains("0.3–0.5", "4–6", "1.25");
        assertThat(cell(read.study(), read.study().scores().get(0))).isEqualTo(Cell.Numeric.range(3, 5));
    }

    @Test
    void brokenNexusIsToldWithItsLine() {
        String head = "#NEXUS\nBEGIN DATA;\nDIMENSIONS NTAX=2 NCHAR=3;\nFORMAT SYMBOLS=\"01\";\nMATRIX\n";
        assertThat(problems("#NEXUS\nBEGIN DATA; [never\nends", "a.nex"))
                .containsExactly(
                        "Row 2: The comment that begins with '[' here does not end. Close it with ']', or remove it.");
        assertThat(problems(head + "A 010\nB 01\n;END;", "a.nex"))
                .singleElement()
                .asString()
                .contains("'B' has 2 entries, but NCHAR says 3");
        assertThat(problems(head + "A 010\nB 0101\n;END;", "a.nex"))
                .singleElement()
                .asString()
                .startsWith("Row 7: 'B' has more entries than the 3");
        assertThat(problems(head + "A 010\n;END;", "a.nex"))
                .singleElement()
                .asString()
                .contains("NTAX says 2 taxa, but the matrix has 1");
        assertThat(problems(head + "A 012\nB 010\n;END;", "a.nex"))
                .singleElement()
                .asString()
                .startsWith("Row 6: '2' is not one of the symbols");
        assertThat(problems(head + "A 010\nB 01", "a.nex"))
                .singleElement()
                .asString()
                .contains("ends");
        assertThat(problems("taxon,colour\nA,red\n", "a.nex"))
                .containsExactly("Row 1: The file must begin with #NEXUS.");
        assertThat(problems("#NEXUS\nBEGIN DATA;\nDIMENSIONS NTAX=1 NCHAR=10000;\nMATRIX\nA 0\n;END;", "a.nex"))
                .contains(
                        "The file has 10000 characters; at most 1000 can be read at once. Choose some of them: by numbers, such as"
                                + " 1-1000, or a set that the file names.");
        assertThat(problems(
                        "#NEXUS\nBEGIN DATA;\nDIMENSIONS NCHAR=4;\nFORMAT DATATYPE=DNA;\nMATRIX A ACGT;END;", "a.nex"))
                .singleElement()
                .asString()
                .contains("type DNA");
    }

    @Test
    void workbooksKeepMergedCellsNotesAndNumbersAndTellDates() throws IOException {
        byte[] bytes;
        try (XSSFWorkbook workbook = new XSSFWorkbook()) {
            workbook.createSheet("empty");
            XSSFSheet sheet = workbook.createSheet("data");
            String[][] texts = {
                {"taxon", "#hazard", "colour", "width"}, {"Aa", "none known", "red", ""}, {"Bb", "", "", ""}
            };
            for (int r = 0; r < texts.length; r++) {
                var row = sheet.createRow(r + 1);
                for (int c = 0; c < texts[r].length; c++) {
                    row.createCell(c).setCellValue(texts[r][c]);
                }
            }
            sheet.addMergedRegion(new CellRangeAddress(2, 3, 2, 2));
            sheet.getRow(2).getCell(3).setCellValue(0.1 + 0.2);
            CellStyle date = workbook.createCellStyle();
            date.setDataFormat((short) 14);
            sheet.getRow(3).getCell(3).setCellValue(46150);
            sheet.getRow(3).getCell(3).setCellStyle(date);
            var note = sheet.createDrawingPatriarch()
                    .createCellComment(new org.apache.poi.xssf.usermodel.XSSFClientAnchor());
            note.setString(new XSSFRichTextString("seen once"));
            sheet.getRow(2).getCell(2).setCellComment(note);
            workbook.createSheet("more").createRow(0).createCell(0).setCellValue("x");
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            workbook.write(out);
            bytes = out.toByteArray();
        }
        ImportedStudy read = MatrixFiles.read(bytes, "field book.xlsx");
        assertThat(read.study().title()).isEqualTo("field book");
        assertThat(read.problems())
                .extracting(Problem::sentence)
                .containsExactly(
                        "The first sheet with contents was read; the workbook has 1 more sheet.",
                        "Row 4, column 4 (width): '2026-05-08' is a date: the spreadsheet program has probably made it of '5-8' or '8-5'. Type what was there.");
        assertThat(read.study().scores())
                .extracting(s -> s.row() + " " + s.typed() + " " + s.note())
                .containsExactly("aa red seen once", "aa 0.3 ", "bb red ");
    }

    @Test
    void anySheetOfAWorkbookIsReadByItsName() throws IOException {
        byte[] bytes;
        try (XSSFWorkbook workbook = new XSSFWorkbook()) {
            workbook.createSheet("notes").createRow(0).createCell(0).setCellValue("read me");
            workbook.createSheet("empty");
            XSSFSheet scores = workbook.createSheet("scores & more");
            scores.createRow(0).createCell(0).setCellValue("taxon");
            scores.getRow(0).createCell(1).setCellValue("colour");
            for (int r = 1; r < 3; r++) {
                scores.createRow(r).createCell(0).setCellValue("A" + r);
                scores.getRow(r).createCell(1).setCellValue("red");
            }
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            workbook.write(out);
            bytes = out.toByteArray();
        }
        assertThat(TableReader.sheetNames(bytes)).containsExactly("notes", "empty", "scores & more");
        assertThat(TableReader.sheetNames("taxon,x".getBytes(StandardCharsets.UTF_8)))
                .isEmpty();
        ImportedStudy read = MatrixFiles.read(bytes, "x.xlsx", "scores & more");
        assertThat(read.problems()).isEmpty();
        assertThat(read.study().scores()).hasSize(2);
        assertThat(UnpreparedTable.look(bytes, "x.xlsx", "scores & more", ReadingWatch.NONE)
                        .rows())
                .hasSize(3);
        for (String none : List.of("empty", "Scores")) {
            assertThat(MatrixFiles.read(bytes, "x.xlsx", none).problems())
                    .extracting(Problem::text)
                    .contains("The workbook has no sheet '" + none + "' with something in it. Choose another.");
        }
    }

    @Test
    void hostileWorkbooksAreRefused() throws IOException {
        byte[] good = MatrixFiles.write(RandomScores.study(1), Format.XLSX, Layout.WIDE);
        byte[] entity = changed(
                good,
                "xl/worksheets/sheet1.xml",
                xml -> xml.replaceFirst(
                        "<worksheet", "<!DOCTYPE x [<!ENTITY e SYSTEM \"file:///etc/passwd\">]><worksheet"));
        assertThat(problems(entity, "x.xlsx")).singleElement().asString().contains("XML that is broken or not allowed");
        byte[] bomb = changed(
                good,
                "xl/worksheets/sheet1.xml",
                xml -> xml.replaceFirst("<sheetData>", "<sheetData>" + " ".repeat(60_000_000)));
        assertThat(bomb.length).isLessThan(200_000);
        assertThat(problems(bomb, "x.xlsx")).singleElement().asString().contains("expands to far more than its size");
        assertThat(problems("taxon,colour\nAa,red\n", "x.xlsx"))
                .singleElement()
                .asString()
                .contains("not an XLSX workbook");
        assertThat(problems(java.util.Arrays.copyOf(good, good.length / 2), "x.xlsx"))
                .isNotEmpty();
    }

    private static byte[] changed(byte[] archive, String entry, UnaryOperator<String> change) throws IOException {
        Path file = Files.createTempFile("workbook", ".zip");
        try {
            Files.write(file, archive);
            try (FileSystem zip = FileSystems.newFileSystem(file)) {
                Path part = zip.getPath(entry);
                Files.writeString(part, change.apply(Files.readString(part)));
            }
            return Files.readAllBytes(file);
        } finally {
            Files.delete(file);
        }
    }

    @Test
    void longTablesNameTheirLines() {
        assertThat(problems("""
                        taxon,stage,character,score,basis,date,colour
                        #states,,margin,toothed|entire,,,
                        Aa,,margin,toothed,reference,2031-05,
                        Aa,,margin,entire,,,
                        Bb,male,margin,tothed,guess,May,
                        Cc,,#hazard,deadly,,,
                        """, "scores.csv"))
                .containsExactlyInAnyOrder(
                        "Row 4, column 4 (score): 'Aa' is scored for 'margin' in line 3 already. Keep one of the lines.",
                        "Row 5, column 4 (margin): 'tothed' is not a state of 'margin'. Nearest: 'toothed', 'entire'.",
                        "Row 6, column 4 (#hazard): 'deadly' is not a severity. Use 'none known', 'caution', 'serious' or 'life-threatening', or leave it empty.");
    }

    @ParameterizedTest
    @MethodSource("awkwardNames")
    void namesOfAnyScriptComeThroughEveryFormat(String name) {
        // In a cell a semicolon parts two states.
        String state = name.replace(';', ':') + " red";
        Study study = MatrixFiles.read(
                        ("taxon\tcolour\n" + name + "\t" + state + "\nBb\tblue\n").getBytes(StandardCharsets.UTF_8),
                        "a.tsv")
                .study();
        assertThat(study.rows()).hasSize(2);
        for (Format format : EnumSet.complementOf(EnumSet.of(Format.DARWIN_CORE))) {
            for (Layout layout : Layout.values()) {
                Study read = again(study, format, layout).study();
                assertThat(read.rows().get(0).label())
                        .as("%s %s", format, layout)
                        .isEqualTo(name);
                assertThat(read.characters().get(0).states().get(0).label()).isEqualTo(state);
            }
        }
    }

    static Stream<String> awkwardNames() {
        return Stream.of(
                "\u05e1\u05d5\u05e3 \u05d0\u05d7\u05d3",
                "\u0633\u0639\u062f \u0661",
                "e\u0301tude n\u0303ame",
                "it's [odd] {name}",
                "semi; colon",
                "<tag> & \"quote\"");
    }

    @Test
    void mixedEncodingsAndTooManyColumnsAreRefusedByName() {
        byte[] mixed = "#NEXUS\nBEGIN DATA;\n[gr\u00fcn]".getBytes(StandardCharsets.ISO_8859_1);
        assertThat(problems(mixed, "a.nex")).anyMatch(p -> p.contains("not UTF-8") && p.contains("line 3"));
        String columns = "taxon"
                + java.util.stream.IntStream.range(0, 10_000)
                        .mapToObj(c -> ",c" + c)
                        .collect(java.util.stream.Collectors.joining());
        assertThat(problems(columns + "\nAa\n", "wide.csv"))
                .singleElement()
                .asString()
                .contains("10000 characters; at most 1000");
        assertThat(problems("taxon,a\nS\u00e1llow,x\nsallow,x\n", "t.csv"))
                .singleElement()
                .asString()
                .contains("case, accents and spaces make no difference");
    }
}
