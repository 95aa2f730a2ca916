package org.polyclave.files.table;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.regex.Pattern;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.files.sheet.Sheet;
import org.polyclave.files.table.SheetMapping.ColumnRole;
import org.polyclave.files.table.SheetMapping.MappedColumn;
import org.polyclave.files.table.SheetMapping.MarkMeaning;
import org.polyclave.files.table.SheetMapping.Meaning;
import org.polyclave.study.model.Units;
import org.polyclave.study.notation.UnitHeading;

/** Proposes how a table that nobody prepared may be read. What it proposes is shown, and people decide. */
final class MappingProposal {
    private static final Pattern NUMBER = Pattern.compile(".*\\d.*");
    private static final Pattern COMMA_NUMBER = Pattern.compile("(?:.*[^\\d,]|)\\d+,\\d+(?:[^\\d,].*|)");
    private static final Pattern POINT_NUMBER = Pattern.compile(".*\\d\\.\\d.*");
    private static final Set<String> TAXON = Set.of(
            "taxon",
            "taxa",
            "species",
            "species name",
            "name",
            "scientific name",
            "scientificname",
            "latin name",
            "botanical name",
            "binomial",
            "genus",
            "epithet",
            "organism");
    private static final Set<String> STAGE = Set.of(
            "stage",
            "sex",
            "sex or stage",
            "sex/stage",
            "stage/sex",
            "sex and stage",
            "life stage",
            "lifestage",
            "phase",
            "morph",
            "form",
            "caste",
            "instar",
            "age",
            "dress",
            "plumage");
    /** Headings of what describes taxa, in small letters and without dots and question marks. */
    private static final Map<String, ColumnRole> OF_TAXA = Map.ofEntries(
            Map.entry("rank", ColumnRole.RANK),
            Map.entry("parent", ColumnRole.PARENT),
            Map.entry("author", ColumnRole.AUTHORSHIP),
            Map.entry("authority", ColumnRole.AUTHORSHIP),
            Map.entry("authorship", ColumnRole.AUTHORSHIP),
            Map.entry("synonym", ColumnRole.SYNONYM),
            Map.entry("synonyms", ColumnRole.SYNONYM),
            Map.entry("syn", ColumnRole.SYNONYM),
            Map.entry("also known as", ColumnRole.SYNONYM),
            Map.entry("common name", ColumnRole.VERNACULAR),
            Map.entry("common names", ColumnRole.VERNACULAR),
            Map.entry("vernacular", ColumnRole.VERNACULAR),
            Map.entry("vernacular name", ColumnRole.VERNACULAR),
            Map.entry("english name", ColumnRole.VERNACULAR),
            Map.entry("local name", ColumnRole.VERNACULAR),
            Map.entry("status", ColumnRole.STATUS),
            Map.entry("native", ColumnRole.STATUS),
            Map.entry("protection", ColumnRole.STATUS),
            Map.entry("frequency", ColumnRole.COMMONNESS),
            Map.entry("abundance", ColumnRole.COMMONNESS),
            Map.entry("commonness", ColumnRole.COMMONNESS),
            Map.entry("how common", ColumnRole.COMMONNESS),
            Map.entry("occurrence", ColumnRole.COMMONNESS),
            Map.entry("months present", ColumnRole.MONTHS_PRESENT),
            Map.entry("present in", ColumnRole.MONTHS_PRESENT),
            Map.entry("months seen", ColumnRole.MONTHS_PRESENT),
            Map.entry("seen", ColumnRole.MONTHS_PRESENT),
            Map.entry("seen in", ColumnRole.MONTHS_PRESENT),
            Map.entry("habitat", ColumnRole.HABITAT),
            Map.entry("habitats", ColumnRole.HABITAT),
            Map.entry("source", ColumnRole.SOURCE),
            Map.entry("sources", ColumnRole.SOURCE),
            Map.entry("reference", ColumnRole.SOURCE),
            Map.entry("references", ColumnRole.SOURCE),
            Map.entry("remarks", ColumnRole.NOTE),
            Map.entry("remark", ColumnRole.NOTE),
            Map.entry("notes", ColumnRole.NOTE),
            Map.entry("note", ColumnRole.NOTE),
            Map.entry("comment", ColumnRole.NOTE),
            Map.entry("comments", ColumnRole.NOTE),
            Map.entry("description", ColumnRole.NOTE));
    /** Headings of harm: what stands below is never a state that a key asks for. */
    private static final Pattern HAZARD = Pattern.compile(
            "(hazard|danger|dangerous|harmful|poison|poisonous|toxic|toxicity|venom|venomous|irritant|severity)");
    /** A name of two or more words, the first with a capital. */
    private static final Pattern BINOMIAL =
            Pattern.compile("\\p{Lu}\\p{Ll}+\\.?(?: ×)? \\p{Ll}[\\p{Ll}-]+.*|\\p{Lu}\\. \\p{Ll}[\\p{Ll}-]+.*");

    private static final double MOSTLY = 0.6;
    /** A colour on more cells than this share is there to please the eye. */
    private static final double MOST_MARKED = 0.4;
    /** Headings of lists of specimens, in small letters and without dots. */
    private static final Map<String, ColumnRole> OF_SPECIMENS = Map.ofEntries(
            Map.entry("specimen", ColumnRole.SPECIMEN),
            Map.entry("specimen no", ColumnRole.SPECIMEN),
            Map.entry("specimen code", ColumnRole.SPECIMEN),
            Map.entry("voucher", ColumnRole.SPECIMEN),
            Map.entry("voucher no", ColumnRole.SPECIMEN),
            Map.entry("accession", ColumnRole.SPECIMEN),
            Map.entry("accession no", ColumnRole.SPECIMEN),
            Map.entry("catalogue no", ColumnRole.SPECIMEN),
            Map.entry("barcode", ColumnRole.SPECIMEN),
            Map.entry("catalognumber", ColumnRole.SPECIMEN),
            Map.entry("det", ColumnRole.DETERMINED_BY),
            Map.entry("det by", ColumnRole.DETERMINED_BY),
            Map.entry("determined by", ColumnRole.DETERMINED_BY),
            Map.entry("identified by", ColumnRole.DETERMINED_BY),
            Map.entry("det date", ColumnRole.DETERMINED_ON),
            Map.entry("determined on", ColumnRole.DETERMINED_ON),
            Map.entry("date", ColumnRole.DATE),
            Map.entry("date collected", ColumnRole.DATE),
            Map.entry("collected on", ColumnRole.DATE),
            Map.entry("place", ColumnRole.PLACE),
            Map.entry("locality", ColumnRole.PLACE),
            Map.entry("site", ColumnRole.PLACE),
            Map.entry("coordinates", ColumnRole.COORDINATES),
            Map.entry("latitude", ColumnRole.COORDINATES),
            Map.entry("longitude", ColumnRole.COORDINATES),
            Map.entry("lat", ColumnRole.COORDINATES),
            Map.entry("long", ColumnRole.COORDINATES),
            Map.entry("uncertainty", ColumnRole.UNCERTAINTY),
            Map.entry("collector", ColumnRole.COLLECTOR),
            Map.entry("leg", ColumnRole.COLLECTOR),
            Map.entry("collected by", ColumnRole.COLLECTOR),
            Map.entry("habitat", ColumnRole.HABITAT),
            Map.entry("host", ColumnRole.HOST),
            Map.entry("substrate", ColumnRole.HOST),
            Map.entry("sex", ColumnRole.SEX),
            Map.entry("storage", ColumnRole.STORAGE),
            Map.entry("drawer", ColumnRole.STORAGE),
            Map.entry("box", ColumnRole.STORAGE),
            Map.entry("remarks", ColumnRole.NOTE),
            Map.entry("notes", ColumnRole.NOTE),
            Map.entry("note", ColumnRole.NOTE));
    /** So many columns that describe specimens, the code among them, make a list of these. */
    private static final int FEWEST_OF_SPECIMENS = 3;

    private static final Set<String> IGNORED = Set.of("no", "no.", "nr", "#", "id");
    /** A dash is not among them: it says that the part is not there to look at. */
    private static final List<String> BLANKS =
            List.of(".", "..", "NA", "n.d.", "nd", "no data", "not seen", "unknown", "#N/A");

    private static final int MOST_HEADINGS = 4;

    private final Sheet sheet;
    private final boolean transposed;
    /** Rows of taxa, as far as they look like it. */
    private final List<Integer> data = new ArrayList<>();

    private MappingProposal(Sheet sheet, boolean transposed) {
        this.sheet = sheet;
        this.transposed = transposed;
    }

    static SheetMapping of(Sheet sheet) {
        return of(sheet, standsAcross(sheet));
    }

    /** @param transposed whether taxa stand across */
    static SheetMapping of(Sheet sheet, boolean transposed) {
        int titles = titles(sheet);
        return new MappingProposal(transposed ? sheet.turned(titles) : sheet, transposed).propose(titles);
    }

    /** A title stands alone at the left of its row, or is one text merged over it; a lone group stands over its columns. */
    private static int titles(Sheet sheet) {
        int titles = 0;
        while (titles + 1 < sheet.rows()
                && distinct(sheet, titles) < 2
                && !sheet.cell(titles, 0).isEmpty()
                && sheet.width() > 1) {
            titles++;
        }
        return titles;
    }

    /** Whether most of the headings are names of taxa, and most of the texts at the left are not. */
    private static boolean standsAcross(Sheet sheet) {
        int titles = titles(sheet);
        if (sheet.rows() - titles < 2 || sheet.width() < 3) {
            return false;
        }
        List<String> across =
                sheet.row(titles).stream().skip(1).filter(t -> !t.isEmpty()).toList();
        List<String> down = new ArrayList<>();
        for (int r = titles + 1; r < sheet.rows(); r++) {
            down.add(sheet.cell(r, 0));
        }
        return share(across) >= MOSTLY && across.size() > 1 && share(down) < 1 - MOSTLY;
    }

    private static double share(List<String> texts) {
        return texts.stream().filter(t -> BINOMIAL.matcher(t).matches()).count() / (double) Math.max(1, texts.size());
    }

    private SheetMapping propose(int titles) {
        int headings = sheet.rows() == 0 ? 0 : 1;
        while (headings < MOST_HEADINGS && titles + headings < sheet.rows() - 1 && isHeading(titles, headings)) {
            headings++;
        }
        // What is said below a table says nothing of its columns.
        for (int r = titles + headings; r < sheet.rows(); r++) {
            if (Footnotes.reason(sheet, r).isEmpty()) {
                data.add(r);
            }
        }
        List<MappedColumn> columns = new ArrayList<>();
        boolean named = false;
        int width = sheet.width();
        for (int c = 0; c < width; c++) {
            MappedColumn column = column(c, titles, headings);
            columns.add(column);
            named |= column.role() == ColumnRole.TAXON;
        }
        if (!named && !columns.isEmpty()) {
            MappedColumn first = columns.get(0);
            columns.set(0, new MappedColumn(ColumnRole.TAXON, first.label(), "", ""));
        }
        asSpecimens(columns);
        // A species is often named once, with its sexes or stages on the lines below.
        boolean fills =
                columns.stream().filter(c -> c.role() == ColumnRole.TAXON).count() > 1
                        || columns.stream().anyMatch(c -> c.role() == ColumnRole.STAGE);
        return new SheetMapping(
                titles,
                headings,
                usesCommas(titles + headings),
                fills,
                BLANKS,
                columns,
                transposed,
                data.size() < sheet.rows() - titles - headings,
                marks(titles + headings));
    }

    /** A line through a score takes it back; a colour says what only its author knows, unless it is on most cells. */
    private List<MarkMeaning> marks(int first) {
        Map<String, Integer> found = new TreeMap<>();
        int cells = 0;
        for (int r = first; r < sheet.rows(); r++) {
            for (int c = 0; c < sheet.row(r).size(); c++) {
                Sheet.Mark mark = sheet.marks().get(sheet.place(r, c));
                cells += sheet.cell(r, c).isEmpty() ? 0 : 1;
                if (mark != null && !sheet.cell(r, c).isEmpty()) {
                    found.merge(mark.colour(), 1, Integer::sum);
                    found.merge(mark.struck() ? MarkMeaning.STRUCK : "", 1, Integer::sum);
                }
            }
        }
        List<MarkMeaning> marks = new ArrayList<>();
        for (Map.Entry<String, Integer> one : found.entrySet()) {
            if (!one.getKey().isEmpty() && one.getValue() < MOST_MARKED * cells) {
                boolean struck = one.getKey().equals(MarkMeaning.STRUCK);
                marks.add(new MarkMeaning(
                        one.getKey(), struck ? Meaning.DOUBT : Meaning.NOTHING, struck ? "struck through" : ""));
            }
        }
        return marks;
    }

    /** A list of specimens is mapped as such; what they show is left out of it. */
    private static void asSpecimens(List<MappedColumn> columns) {
        List<Optional<ColumnRole>> known = columns.stream()
                .map(c -> Optional.ofNullable(OF_SPECIMENS.get(
                        c.label().toLowerCase(Locale.ROOT).replace(".", "").strip())))
                .toList();
        long found = known.stream().filter(Optional::isPresent).count();
        if (found < FEWEST_OF_SPECIMENS || !known.contains(Optional.of(ColumnRole.SPECIMEN))) {
            return;
        }
        for (int c = 0; c < columns.size(); c++) {
            MappedColumn column = columns.get(c);
            boolean taxon =
                    TAXON.contains(column.label().toLowerCase(Locale.ROOT).strip());
            boolean stage = column.role() == ColumnRole.STAGE;
            ColumnRole role =
                    known.get(c).orElse(taxon ? ColumnRole.TAXON : stage ? ColumnRole.STAGE : ColumnRole.IGNORED);
            columns.set(c, new MappedColumn(role, column.label(), column.organ(), column.unit()));
        }
    }

    private static int distinct(Sheet sheet, int r) {
        Set<String> texts = new HashSet<>(sheet.row(r));
        texts.remove("");
        return texts.size();
    }

    /**
     * Whether the row after some headings is a heading too: the one before groups columns (a text holds for several, or
     * leaves gaps), or this one holds units only.
     */
    private boolean isHeading(int titles, int headings) {
        int above = titles + headings - 1;
        int row = titles + headings;
        int units = 0;
        int texts = 0;
        int numbers = 0;
        int width = sheet.width();
        for (int c = 0; c < width; c++) {
            String text = sheet.cell(row, c);
            units += unit(text).isPresent() ? 1 : 0;
            texts += text.isEmpty() ? 0 : 1;
            numbers += NUMBER.matcher(text).matches() ? 1 : 0;
        }
        if (units > 0 && units == texts) {
            return true;
        }
        int gaps = 0;
        int repeats = 0;
        for (int c = 1; c < width; c++) {
            gaps += sheet.cell(above, c).isEmpty() && !sheet.cell(row, c).isEmpty() ? 1 : 0;
            repeats += !sheet.cell(above, c).isEmpty() && sheet.cell(above, c).equals(sheet.cell(above, c - 1)) ? 1 : 0;
        }
        return numbers == 0 && (gaps > 0 || repeats > 0);
    }

    private static Optional<String> unit(String text) {
        String bare = text.replaceAll("[()\\[\\]]", "").strip();
        boolean known = !bare.isEmpty()
                && List.of(CharacterType.LENGTH, CharacterType.MASS, CharacterType.ANGLE, CharacterType.PERCENT)
                        .stream()
                        .anyMatch(t -> Units.factor(t, bare).isPresent());
        return known ? Optional.of(bare) : Optional.empty();
    }

    private MappedColumn column(int c, int titles, int headings) {
        List<String> above = new ArrayList<>();
        String unit = "";
        for (int r = titles; r < titles + headings; r++) {
            String text = r == titles && headings > 1 ? grouping(r, c) : sheet.cell(r, c);
            Optional<String> unitRow = r > titles ? unit(text) : Optional.empty();
            if (unitRow.isPresent()) {
                unit = unitRow.get();
            } else if (!text.isEmpty() && !above.contains(text)) {
                above.add(text);
            }
        }
        String label = above.isEmpty() ? "" : above.get(above.size() - 1);
        String organ = above.size() > 1 ? above.get(0) : "";
        Optional<UnitHeading> withUnit = UnitHeading.parse(label);
        if (withUnit.isPresent()) {
            label = withUnit.get().label();
            unit = withUnit.get().unit();
        }
        return new MappedColumn(role(c, label, unit), named(organ, label), organ.toLowerCase(Locale.ROOT), unit);
    }

    /** An upper heading holds for the empty cells right of it, as long as these have headings of their own below. */
    private String grouping(int r, int c) {
        for (int left = c; left >= 0; left--) {
            if (!sheet.cell(r, left).isEmpty()) {
                boolean below = left == c || !sheet.cell(r + 1, c).isEmpty();
                return below ? sheet.cell(r, left) : "";
            }
        }
        return "";
    }

    /** "width" under "Leaf" is "leaf width"; "leaf width" under "Leaf" stays. */
    private static String named(String organ, String label) {
        String group = organ.toLowerCase(Locale.ROOT);
        return organ.isEmpty() || label.toLowerCase(Locale.ROOT).contains(group) ? label : group + " " + label;
    }

    private ColumnRole role(int c, String label, String unit) {
        String name = label.toLowerCase(Locale.ROOT).strip();
        List<String> texts = new ArrayList<>();
        data.forEach(r -> texts.add(sheet.cell(r, c)));
        boolean empty = texts.stream().allMatch(String::isEmpty);
        if (TAXON.contains(name)) {
            return ColumnRole.TAXON;
        }
        if (empty || IGNORED.contains(name)) {
            return ColumnRole.IGNORED;
        }
        if (STAGE.contains(name) || StageWords.areAll(texts)) {
            return ColumnRole.STAGE;
        }
        String bare = name.replaceAll("[.?!:]", "").strip();
        if (HAZARD.matcher(bare).matches()) {
            return ColumnRole.HAZARD;
        }
        ColumnRole known = OF_TAXA.get(bare);
        if (known != null) {
            return known;
        }
        if (name.isEmpty()) {
            return ColumnRole.IGNORED;
        }
        if (TwoMeasures.areMost(texts)) {
            return ColumnRole.SIZE;
        }
        return unit.isEmpty() && Presence.isAll(texts) ? ColumnRole.PRESENCE : ColumnRole.CHARACTER;
    }

    private boolean usesCommas(int first) {
        return usesCommas(sheet, first);
    }

    /** Whether numbers are written with a decimal comma from a row on: a whole file writes them in one way. */
    static boolean usesCommas(Sheet sheet, int first) {
        int commas = 0;
        int points = 0;
        for (int r = first; r < sheet.rows(); r++) {
            for (String text : sheet.row(r)) {
                commas += text.indexOf(',') >= 0 && COMMA_NUMBER.matcher(text).matches() ? 1 : 0;
                points += text.indexOf('.') >= 0 && POINT_NUMBER.matcher(text).matches() ? 1 : 0;
            }
        }
        return commas > points;
    }
}
