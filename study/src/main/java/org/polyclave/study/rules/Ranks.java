package org.polyclave.study.rules;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;

/**
 * Ranks of taxa in their order, by the codes of nomenclature. Hybrids, cultivars and what people name otherwise have no
 * place in the order and are compared with nothing.
 */
public final class Ranks {
    /** From the highest to the lowest; names in one line are of one level. */
    private static final List<List<String>> ORDER = List.of(
            List.of("family"),
            List.of("subfamily"),
            List.of("tribe"),
            List.of("subtribe"),
            List.of("genus"),
            List.of("subgenus"),
            List.of("section"),
            List.of("subsection"),
            List.of("series"),
            List.of("species complex", "aggregate"),
            List.of("species"),
            List.of("subspecies"),
            List.of("variety"),
            List.of("subvariety"),
            List.of("forma"));

    /** How the ranks below species are written within names; the first one is ours. */
    private static final Map<String, List<String>> WRITTEN = Map.of(
            "subspecies", List.of("subsp.", "ssp.", "subsp", "ssp"),
            "variety", List.of("var.", "var"),
            "subvariety", List.of("subvar."),
            "forma", List.of("f.", "fo.", "forma"));

    private Ranks() {}

    /** The rank that a word within a name says: "subspecies" of "subsp.". */
    public static Optional<String> ofWord(String word) {
        String folded = word.toLowerCase(Locale.ROOT);
        return WRITTEN.entrySet().stream()
                .filter(r -> r.getValue().contains(folded))
                .map(Map.Entry::getKey)
                .findFirst();
    }

    /** How a rank below species is written within names. */
    public static Optional<String> abbreviation(String rank) {
        return Optional.ofNullable(WRITTEN.get(rank)).map(words -> words.get(0));
    }

    /** Place in the order, 0 the highest. */
    public static OptionalInt level(String rank) {
        String name = rank.strip().toLowerCase(Locale.ROOT);
        for (int level = 0; level < ORDER.size(); level++) {
            if (ORDER.get(level).contains(name)) {
                return OptionalInt.of(level);
            }
        }
        return OptionalInt.empty();
    }

    /** Whether a rank stands above that of species; not known of hybrids, cultivars and what people name otherwise. */
    public static boolean isAboveSpecies(String rank) {
        OptionalInt level = level(rank);
        return level.isPresent() && level.getAsInt() < level("species").orElse(0);
    }

    public static boolean isSpeciesOrAbove(String rank) {
        return level(rank).isPresent() && !isBelowSpecies(rank);
    }

    /** Whether a rank stands below that of species. */
    public static boolean isBelowSpecies(String rank) {
        OptionalInt level = level(rank);
        return level.isPresent() && level.getAsInt() > level("species").orElse(0);
    }

    /** Several of a rank; "taxa" where none is named. */
    public static String plural(String rank) {
        return switch (rank) {
            case "" -> "taxa";
            case "species", "subspecies", "series" -> rank;
            case "genus" -> "genera";
            case "subgenus" -> "subgenera";
            case "family", "subfamily", "variety", "subvariety" -> rank.substring(0, rank.length() - 1) + "ies";
            case "species complex" -> "species complexes";
            case "forma" -> "formae";
            case "nothotaxon" -> "hybrids";
            default -> rank + "s";
        };
    }

    /** Whether a taxon of rank {@code child} may stand within one of rank {@code parent}. */
    public static boolean mayContain(String parent, String child) {
        OptionalInt above = level(parent);
        OptionalInt below = level(child);
        return above.isEmpty() || below.isEmpty() || above.getAsInt() < below.getAsInt();
    }
}
