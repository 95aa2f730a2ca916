package org.polyclave.files.table;

import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import org.polyclave.files.sheet.Sheet;
import org.polyclave.files.source.ImportAccount.Reason;

/** Lines among or below the taxa of a table that are not taxa. */
final class Footnotes {
    private static final Pattern COUNTS = Pattern.compile(
            "(?i)n|n\\s*=.*|count|counts|total|totals|mean|means|average|sample size|number of specimens|no\\. of specimens|sd|min|max");
    private static final Pattern REMARK = Pattern.compile(
            "(?iu)([*†‡§¹²³]|\\(\\d\\)|\\d\\)|notes?\\b|source|sources?\\s*:|key\\s*:|legend|abbreviations?|data from|measured by|compiled).*");
    /** A name is shorter. */
    private static final int LONG = 70;

    private Footnotes() {}

    /** Why a line that holds something is left out; empty for one that may be a taxon. */
    static Optional<Reason> reason(Sheet sheet, int row) {
        List<String> told = sheet.row(row).stream().filter(t -> !t.isEmpty()).toList();
        String text = told.isEmpty() ? "" : told.get(0).strip();
        if (COUNTS.matcher(text).matches()) {
            return Optional.of(Reason.COUNTS);
        }
        boolean alone = told.stream().distinct().count() == 1;
        boolean remark = alone && (REMARK.matcher(text).matches() || text.length() > LONG);
        return remark ? Optional.of(Reason.FOOTNOTE) : Optional.empty();
    }
}
