package org.polyclave.files.table;

import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.polyclave.study.compile.Facets;
import org.polyclave.study.model.Facet;

/** Sexes and stages as people write them in tables. */
final class StageWords {
    /** Who is both is the taxon itself. */
    private static final Set<String> BOTH = Set.of(
            "both", "both sexes", "m/f", "f/m", "m+f", "m & f", "m, f", "♂♀", "♀♂", "♂/♀", "♂ & ♀", "all", "either");

    private static final Pattern IN_NAME = Pattern.compile("(.*\\S)(?:\\s*[,(]\\s*|\\s+|(?<=\\p{L})(?=[♂♀]))"
            + "([♂♀]+|males?|females?|juv\\.?|juveniles?|larva|adults?)\\s*\\)?");
    /** What tells what an individual is; a dress may be told of a flower or a season, too. */
    private static final Set<Facet> OF_INDIVIDUALS =
            EnumSet.of(Facet.SEX, Facet.LIFE_STAGE, Facet.CASTE, Facet.CANE_YEAR);

    private StageWords() {}

    /** The sex or stage in full; empty for both sexes. */
    static String full(String text) {
        return isBoth(text) ? "" : Facets.inFull(text);
    }

    private static boolean isBoth(String text) {
        return BOTH.contains(text.strip().toLowerCase(Locale.ROOT));
    }

    /** Whether a column holds nothing but sexes and stages, and more than one. */
    static boolean areAll(List<String> texts) {
        List<String> told = texts.stream().filter(t -> !t.isEmpty()).distinct().toList();
        return told.size() > 1
                && told.stream()
                        .allMatch(t -> isBoth(t)
                                || OF_INDIVIDUALS.containsAll(Facets.of(t).keySet()));
    }

    /** A name that ended in a sex or stage, taken apart. */
    record StagedName(String taxon, String stage) {}

    static Optional<StagedName> inName(String name) {
        Matcher found = IN_NAME.matcher(name);
        return found.matches() ? Optional.of(new StagedName(found.group(1), full(found.group(2)))) : Optional.empty();
    }
}
