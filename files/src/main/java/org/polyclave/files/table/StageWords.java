package org.polyclave.files.table;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Sexes and stages as people write them in tables. */
final class StageWords {
    private static final Map<String, String> SHORT = Map.ofEntries(
            Map.entry("♂", "male"),
            Map.entry("♂♂", "male"),
            Map.entry("m", "male"),
            Map.entry("males", "male"),
            Map.entry("♀", "female"),
            Map.entry("♀♀", "female"),
            Map.entry("f", "female"),
            Map.entry("females", "female"),
            Map.entry("juv", "juvenile"),
            Map.entry("juveniles", "juvenile"),
            Map.entry("imm", "immature"),
            Map.entry("ad", "adult"),
            Map.entry("adults", "adult"));
    private static final Set<String> STAGES = Set.of(
            "male",
            "female",
            "juvenile",
            "immature",
            "adult",
            "larva",
            "pupa",
            "nymph",
            "worker",
            "queen",
            "soldier",
            "seedling",
            "rosette",
            "first-year",
            "breeding",
            "winter",
            "summer");
    /** Who is both is the taxon itself. */
    private static final Set<String> BOTH = Set.of(
            "both", "m/f", "f/m", "m+f", "♂♀", "♀♂", "♂/♀", "♂ & ♀", "m & f", "m, f", "both sexes", "all", "either");

    private static final Pattern IN_NAME = Pattern.compile(
            "(.*\\S)(?:\\s*[,(]\\s*|\\s+|(?<=\\p{L})(?=[♂♀]))([♂♀]+|males?|females?|juv\\.?|juveniles?|larva|adults?)\\s*\\)?");

    private StageWords() {}

    /** The sex or stage in full; empty for both sexes. What is not known stays as it is. */
    static String full(String text) {
        String word = text.strip().toLowerCase(Locale.ROOT);
        String bare = word.endsWith(".") ? word.substring(0, word.length() - 1) : word;
        return BOTH.contains(bare) ? "" : SHORT.getOrDefault(bare, text.strip());
    }

    /** Whether a column holds nothing but sexes and stages, and more than one. */
    static boolean areAll(List<String> texts) {
        List<String> told = texts.stream().filter(t -> !t.isEmpty()).distinct().toList();
        return told.size() > 1
                && told.stream().allMatch(t -> full(t).isEmpty() || STAGES.contains(full(t).toLowerCase(Locale.ROOT)));
    }

    /** A name that ends in a sex or stage, taken apart: name, stage. */
    static Optional<List<String>> inName(String name) {
        Matcher found = IN_NAME.matcher(name);
        return found.matches() ? Optional.of(List.of(found.group(1), full(found.group(2)))) : Optional.empty();
    }
}
