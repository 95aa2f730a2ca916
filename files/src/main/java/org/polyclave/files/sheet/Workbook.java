package org.polyclave.files.sheet;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.xml.parsers.ParserConfigurationException;
import org.apache.poi.openxml4j.exceptions.OpenXML4JException;
import org.apache.poi.openxml4j.exceptions.OpenXML4JRuntimeException;
import org.apache.poi.openxml4j.opc.OPCPackage;
import org.apache.poi.openxml4j.util.ZipSecureFile;
import org.apache.poi.ss.usermodel.BuiltinFormats;
import org.apache.poi.ss.usermodel.CellStyle;
import org.apache.poi.ss.usermodel.DataFormatter;
import org.apache.poi.ss.usermodel.DateUtil;
import org.apache.poi.ss.usermodel.FillPatternType;
import org.apache.poi.ss.usermodel.Row;
import org.apache.poi.ss.util.CellRangeAddress;
import org.apache.poi.ss.util.CellReference;
import org.apache.poi.util.XMLHelper;
import org.apache.poi.xssf.eventusermodel.ReadOnlySharedStringsTable;
import org.apache.poi.xssf.eventusermodel.XSSFReader;
import org.apache.poi.xssf.eventusermodel.XSSFSheetXMLHandler;
import org.apache.poi.xssf.model.Comments;
import org.apache.poi.xssf.model.SharedStrings;
import org.apache.poi.xssf.model.StylesTable;
import org.apache.poi.xssf.streaming.SXSSFCell;
import org.apache.poi.xssf.streaming.SXSSFRow;
import org.apache.poi.xssf.streaming.SXSSFSheet;
import org.apache.poi.xssf.streaming.SXSSFWorkbook;
import org.apache.poi.xssf.usermodel.XSSFCellStyle;
import org.apache.poi.xssf.usermodel.XSSFColor;
import org.apache.poi.xssf.usermodel.XSSFComment;
import org.jspecify.annotations.Nullable;
import org.polyclave.files.source.ReadingWatch;
import org.polyclave.study.model.Units;
import org.polyclave.study.rules.Problem;
import org.xml.sax.Attributes;
import org.xml.sax.InputSource;
import org.xml.sax.SAXException;
import org.xml.sax.XMLReader;

/**
 * Tables as XLSX workbooks (ISO/IEC 29500). Read as a stream, so that a sheet of a million cells takes little more memory
 * than its texts; written as a stream, all cells as text, so that no program turns "5-9" into a date.
 */
public final class Workbook {
    /** Most bytes that a part of a workbook may expand to. */
    private static final long EXPANDED = 1L << 30;

    private static final int MOST_COLUMNS = 4_000;
    private static final int KEPT_ROWS = 100;
    private static final int NAME_WIDTH = 28 * 256;

    static {
        ZipSecureFile.setMaxEntrySize(EXPANDED);
    }

    private Workbook() {}

    /** Whether bytes are a zip archive, as workbooks are. */
    static boolean isZip(byte[] bytes) {
        return bytes.length > 3 && bytes[0] == 'P' && bytes[1] == 'K' && bytes[2] == 3 && bytes[3] == 4;
    }

    /** Names of the sheets, in order; none for what cannot be opened, which reading tells. */
    public static List<String> names(byte[] bytes) {
        List<String> names = new ArrayList<>();
        if (isZip(bytes)) {
            try (OPCPackage archive = OPCPackage.open(new ByteArrayInputStream(bytes))) {
                XSSFReader.SheetIterator sheets = (XSSFReader.SheetIterator) new XSSFReader(archive).getSheetsData();
                while (sheets.hasNext()) {
                    sheets.next().close();
                    names.add(sheets.getSheetName());
                }
            } catch (IOException | OpenXML4JException | RuntimeException broken) {
                return List.of();
            }
        }
        return names;
    }

    /**
     * A sheet; merged cells all hold their text.
     *
     * @param name of the sheet; empty: the first that holds something
     */
    static Sheet read(byte[] bytes, String name, List<Problem> problems, ReadingWatch watch) {
        if (!isZip(bytes)) {
            problems.add(
                    Problem.file(
                            "This is not an XLSX workbook, even though its name says so. Open it in your spreadsheet program and save it as XLSX or CSV."));
            return Sheet.empty();
        }
        try (OPCPackage archive = OPCPackage.open(new ByteArrayInputStream(bytes))) {
            return sheet(archive, name, problems, watch);
        } catch (IOException | OpenXML4JException | OpenXML4JRuntimeException broken) {
            problems.add(Problem.file(why(broken)));
        } catch (SAXException | ParserConfigurationException broken) {
            problems.add(Problem.file("The workbook contains XML that is broken or not allowed (" + broken.getMessage()
                    + "). Save it again from your spreadsheet program."));
        } catch (CancellationException cancelled) {
            throw cancelled;
        } catch (RuntimeException broken) {
            // The library tells some broken workbooks by unchecked exceptions of many kinds.
            problems.add(Problem.file("The workbook cannot be read (" + broken.getMessage()
                    + "). Save it again from your spreadsheet program."));
        }
        return Sheet.empty();
    }

    private static String why(Exception broken) {
        String message = String.valueOf(broken.getMessage());
        Throwable cause = broken.getCause();
        boolean bomb = message.contains("Zip bomb")
                || (cause != null && String.valueOf(cause).contains("Zip bomb"));
        return bomb
                ? "The workbook expands to far more than its size. It was not read; save only the sheet that you need."
                : "The workbook cannot be read (" + message + "). Save it again from your spreadsheet program.";
    }

    private static Sheet sheet(OPCPackage archive, String name, List<Problem> problems, ReadingWatch watch)
            throws IOException, OpenXML4JException, SAXException, ParserConfigurationException {
        XSSFReader reader = new XSSFReader(archive);
        SharedStrings strings = new ReadOnlySharedStringsTable(archive);
        StylesTable styles = reader.getStylesTable();
        XSSFReader.SheetIterator sheets = (XSSFReader.SheetIterator) reader.getSheetsData();
        Optional<Contents> found = Optional.empty();
        int others = 0;
        while (sheets.hasNext()) {
            try (InputStream sheet = sheets.next()) {
                boolean wanted = name.isEmpty() || sheets.getSheetName().equals(name);
                if (found.isPresent() || !wanted) {
                    others++;
                    continue;
                }
                Contents contents = new Contents(watch);
                Handler handler = new Handler(styles, sheets.getSheetComments(), strings, contents);
                XMLReader xml = XMLHelper.newXMLReader();
                xml.setContentHandler(handler);
                xml.parse(new InputSource(sheet));
                found = contents.cells.isEmpty() ? Optional.empty() : Optional.of(contents);
            }
        }
        if (!name.isEmpty() && found.isEmpty()) {
            problems.add(
                    Problem.file("The workbook has no sheet '" + name + "' with something in it. Choose another."));
        }
        if (others > 0 && name.isEmpty()) {
            problems.add(new Problem(
                    0,
                    0,
                    "",
                    "The first sheet with contents was read; the workbook has " + others
                            + (others == 1 ? " more sheet." : " more sheets."),
                    false));
        }
        return found.map(Contents::sheet).orElseGet(Sheet::empty);
    }

    /** What was read of a sheet so far. */
    private static final class Contents implements XSSFSheetXMLHandler.SheetContentsHandler {
        private final List<List<String>> cells = new ArrayList<>();
        private final List<Integer> lines = new ArrayList<>();
        private final Map<Sheet.Place, Sheet.Remark> remarks = new HashMap<>();
        private final Map<Sheet.Place, Sheet.Mark> marks = new HashMap<>();
        private final List<CellRangeAddress> merged = new ArrayList<>();
        private final ReadingWatch watch;
        private List<String> row = new ArrayList<>();
        /** Rows that the sheet says it has; 0 if it does not say. */
        private int announced;

        Contents(ReadingWatch watch) {
            this.watch = watch;
        }

        @Override
        public void startRow(int number) {
            watch.at(announced == 0 ? 0 : number, announced);
            row = new ArrayList<>();
        }

        @Override
        public void cell(@Nullable String reference, @Nullable String value, @Nullable XSSFComment comment) {
            int column = reference == null ? row.size() : new CellReference(reference).getCol();
            if (column >= MOST_COLUMNS) {
                return;
            }
            while (row.size() <= column) {
                row.add("");
            }
            row.set(column, value == null ? "" : value.strip());
            if (comment != null && comment.getString() != null) {
                int line = reference == null ? 0 : new CellReference(reference).getRow() + 1;
                String note = comment.getString().getString().strip();
                remarks.put(new Sheet.Place(line, column + 1), Sheet.Remark.note(note));
            }
        }

        @Override
        public void endRow(int number) {
            if (row.stream().anyMatch(t -> !t.isEmpty())) {
                cells.add(row);
                lines.add(number + 1);
            }
        }

        private Sheet sheet() {
            for (CellRangeAddress range : merged) {
                fill(range);
            }
            return Sheet.ofLines(cells, lines, remarks, marks);
        }

        /** People merge cells to say that a text holds for all of them. */
        private void fill(CellRangeAddress range) {
            int first = lines.indexOf(range.getFirstRow() + 1);
            String text =
                    first < 0 || range.getFirstColumn() >= cells.get(first).size()
                            ? ""
                            : cells.get(first).get(range.getFirstColumn());
            for (int r = Math.max(first, 0); r < lines.size() && lines.get(r) <= range.getLastRow() + 1; r++) {
                List<String> row = cells.get(r);
                int last = Math.min(range.getLastColumn(), MOST_COLUMNS - 1);
                while (row.size() <= last) {
                    row.add("");
                }
                for (int c = range.getFirstColumn(); c <= last && !text.isEmpty(); c++) {
                    row.set(c, text);
                }
            }
        }
    }

    /** The library's handler, which tells neither merged cells nor how a cell looks. */
    private static final class Handler extends XSSFSheetXMLHandler {
        private final Contents contents;
        private final StylesTable styles;

        Handler(StylesTable styles, @Nullable Comments comments, SharedStrings strings, Contents contents) {
            super(styles, comments, strings, contents, new Texts(), false);
            this.contents = contents;
            this.styles = styles;
        }

        @Override
        public void startElement(
                @Nullable String uri,
                @Nullable String localName,
                @Nullable String name,
                @Nullable Attributes attributes)
                throws SAXException {
            if ("dimension".equals(localName) && attributes != null && attributes.getValue("ref") != null) {
                contents.announced =
                        CellRangeAddress.valueOf(attributes.getValue("ref")).getLastRow();
            }
            if ("mergeCell".equals(localName) && attributes != null) {
                contents.merged.add(CellRangeAddress.valueOf(attributes.getValue("ref")));
            }
            if ("c".equals(localName) && attributes != null) {
                mark(attributes.getValue("r"), attributes.getValue("s"));
            }
            super.startElement(uri, localName, name, attributes);
        }

        private void mark(@Nullable String reference, @Nullable String style) {
            if (reference == null || style == null) {
                return;
            }
            XSSFCellStyle look = styles.getStyleAt(Integer.parseInt(style));
            XSSFColor fill = look.getFillPattern() == FillPatternType.SOLID_FOREGROUND
                    ? look.getFillForegroundXSSFColor()
                    : null;
            String colour = fill == null || fill.getARGBHex() == null
                    ? ""
                    : fill.getARGBHex().substring(2);
            boolean struck = look.getFont().getStrikeout();
            // White paper is not a mark.
            if (struck || (!colour.isEmpty() && !colour.equals("FFFFFF"))) {
                CellReference cell = new CellReference(reference);
                contents.marks.put(
                        new Sheet.Place(cell.getRow() + 1, cell.getCol() + 1), new Sheet.Mark(struck, colour));
            }
        }
    }

    /**
     * Numbers as they were typed, with a point, and with the unit that their format shows; dates as ISO 8601, so that they can be
     * distinguished from everything else.
     */
    private static final class Texts extends DataFormatter {
        /** A text in a format, as in {@code 0.0" cm"}. */
        private static final Pattern SHOWN = Pattern.compile("[0#?]\\s*\\\\?\\s*\"\\s*([^\"]+?)\\s*\"");

        @Override
        public String formatRawCellContents(double value, int formatIndex, @Nullable String formatString) {
            if (DateUtil.isADateFormat(formatIndex, formatString) && DateUtil.isValidExcelDate(value)) {
                return String.valueOf(DateUtil.getLocalDateTime(value).toLocalDate());
            }
            String number = new java.math.BigDecimal(value)
                    .round(new java.math.MathContext(12))
                    .stripTrailingZeros()
                    .toPlainString();
            Matcher shown = SHOWN.matcher(formatString == null ? "" : formatString);
            if (shown.find() && Units.typeOf(shown.group(1)).isPresent()) {
                return number + " " + shown.group(1);
            }
            return formatString != null && formatString.contains("%")
                    ? new java.math.BigDecimal(number)
                                    .movePointRight(2)
                                    .stripTrailingZeros()
                                    .toPlainString() + " %"
                    : number;
        }
    }

    /** A workbook of one sheet; the first row and column stay in view. */
    public static byte[] write(List<List<String>> lines, String sheetName) {
        try (SXSSFWorkbook workbook = new SXSSFWorkbook(KEPT_ROWS)) {
            CellStyle text = workbook.createCellStyle();
            text.setDataFormat((short) BuiltinFormats.getBuiltinFormat("@"));
            SXSSFSheet sheet = workbook.createSheet(sheetName);
            sheet.createFreezePane(1, 1);
            sheet.setColumnWidth(0, NAME_WIDTH);
            for (int r = 0; r < lines.size(); r++) {
                SXSSFRow row = sheet.createRow(r);
                for (int c = 0; c < lines.get(r).size(); c++) {
                    if (!lines.get(r).get(c).isEmpty()) {
                        SXSSFCell cell = (SXSSFCell) ((Row) row).createCell(c);
                        cell.setCellStyle(text);
                        cell.setCellValue(lines.get(r).get(c));
                    }
                }
            }
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            workbook.write(out);
            return out.toByteArray();
        } catch (IOException failed) {
            throw new UncheckedIOException("The workbook could not be written", failed);
        }
    }
}
