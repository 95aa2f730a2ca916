package org.polyclave.study.change;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.polyclave.study.model.Slug;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyRow;

/**
 * Adds taxa by their names. What a name says of its rank and of what it belongs to is carried on: one word with which
 * others begin is a genus, "Helica pumila" a species of the genus Helica if that is in the study or the list, "Helica pumila subsp. alta" a subspecies of that
 * species. Names that are there already are left out, so that a longer list can be given again.
 *
 * @param names one taxon each, in the order in which they shall stand
 */
public record AddTaxa(List<String> names) implements StudyOperation {
    private static final int MOST = 2_000;
    private static final int LONGEST = 200;
    private static final Map<String, String> BELOW_SPECIES = Map.of(
            "subsp.", "subspecies",
            "ssp.", "subspecies",
            "var.", "variety",
            "subvar.", "subvariety",
            "f.", "forma");
    /** A capital, then small letters: a name of a genus. */
    private static final Pattern GENUS = Pattern.compile("\\p{Lu}[\\p{Ll}-]+");

    private static final Pattern EPITHET = Pattern.compile("[×x]?[\\p{Ll}-]{2,}");

    public AddTaxa {
        names = List.copyOf(names);
    }

    @Override
    public Study apply(Study study) {
        if (names.size() > MOST) {
            throw new Refused("More than " + MOST + " names at once. Add them in parts, or bring a table in.");
        }
        List<StudyRow> rows = new ArrayList<>(study.rows());
        Map<String, StudyRow> byName = new LinkedHashMap<>();
        rows.stream().filter(r -> !r.isSemaphoront()).forEach(r -> byName.putIfAbsent(folded(r.label()), r));
        for (String given : names) {
            String name = given.strip().replaceAll("\\s+", " ");
            if (name.length() > LONGEST) {
                throw new Refused("'" + name.substring(0, 40) + "…' is too long for a name.");
            }
            if (!name.isEmpty() && !byName.containsKey(folded(name))) {
                StudyRow row = row(name, rows, byName);
                rows.add(row);
                byName.put(folded(name), row);
            }
        }
        return study.withRows(rows);
    }

    private StudyRow row(String name, List<StudyRow> rows, Map<String, StudyRow> byName) {
        String[] words = name.split(" ");
        String rank = rank(words, rows);
        String parent = parent(words, rank, byName).map(StudyRow::id).orElse(null);
        return StudyRow.of(name).withId(id(name, rows)).withRank(rank).withParent(parent);
    }

    private String rank(String[] words, List<StudyRow> rows) {
        if (words.length == 1) {
            String begins = words[0] + " ";
            boolean holdsOthers = names.stream().anyMatch(n -> n.strip().startsWith(begins))
                    || rows.stream().anyMatch(r -> r.label().startsWith(begins));
            return holdsOthers && GENUS.matcher(words[0]).matches() ? "genus" : "species";
        }
        for (String word : words) {
            String below = BELOW_SPECIES.get(word);
            if (below != null) {
                return below;
            }
        }
        return "species";
    }

    private static Optional<StudyRow> parent(String[] words, String rank, Map<String, StudyRow> byName) {
        boolean binomial = words.length > 1
                && GENUS.matcher(words[0]).matches()
                && EPITHET.matcher(words[1]).matches();
        if (!binomial) {
            return Optional.empty();
        }
        @Nullable StudyRow species = byName.get(folded(words[0] + " " + words[1]));
        if (BELOW_SPECIES.containsValue(rank) && species != null) {
            return Optional.of(species);
        }
        return Optional.ofNullable(byName.get(folded(words[0])));
    }

    private static String id(String name, List<StudyRow> rows) {
        String wanted = Slug.of(name).isEmpty() ? "taxon" : Slug.of(name);
        List<String> taken = rows.stream().map(StudyRow::id).toList();
        String id = wanted;
        for (int n = 2; taken.contains(id); n++) {
            id = wanted + "-" + n;
        }
        return id;
    }

    private static String folded(String name) {
        return name.strip().toLowerCase(Locale.ROOT);
    }
}
