package org.polyclave.study.change;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.polyclave.study.model.Slug;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.rules.Ranks;
import org.polyclave.study.rules.StudyRules;

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
    /** A capital, then small letters: a name of a genus. */
    private static final Pattern GENUS = Pattern.compile("\\p{Lu}[\\p{Ll}-]+");

    public AddTaxa {
        names = List.copyOf(names);
    }

    @Override
    public Study apply(Study study) {
        if (names.size() > MOST) {
            throw new Refused("More than " + MOST + " names at once. Add them in parts, or bring a table in.");
        }
        List<StudyRow> rows = new ArrayList<>(study.rows());
        Map<String, StudyRow> byName = new HashMap<>();
        Set<String> taken = rows.stream().map(StudyRow::id).collect(Collectors.toSet());
        rows.stream().filter(r -> !r.isSemaphoront()).forEach(r -> byName.putIfAbsent(StudyRules.folded(r.label()), r));
        for (String given : names) {
            String name = given.strip().replaceAll("\\s+", " ");
            if (name.length() > LONGEST) {
                throw new Refused("'" + name.substring(0, 40) + "…' is too long for a name.");
            }
            if (!name.isEmpty() && !byName.containsKey(StudyRules.folded(name))) {
                StudyRow row = StudyRow.of(name)
                        .withId(Slug.unused(Slug.of(name, "taxon"), i -> !taken.add(i)))
                        .withRank(rank(name.split(" "), rows));
                rows.add(row);
                byName.put(StudyRules.folded(name), row);
            }
        }
        // What something belongs to may stand below it in the list.
        int before = study.rows().size();
        rows.subList(before, rows.size())
                .replaceAll(row -> row.withParent(parent(row.label().split(" "), row.rank(), byName)
                        .map(StudyRow::id)
                        .orElse(null)));
        return study.withRows(rows);
    }

    private String rank(String[] words, List<StudyRow> rows) {
        if (words.length == 1) {
            String begins = words[0] + " ";
            boolean holdsOthers = names.stream().anyMatch(n -> n.strip().startsWith(begins))
                    || rows.stream().anyMatch(r -> r.label().startsWith(begins));
            return holdsOthers && GENUS.matcher(words[0]).matches() ? "genus" : "species";
        }
        Optional<String> below = Arrays.stream(words)
                .skip(1)
                .flatMap(w -> Ranks.ofWord(w).stream())
                .findFirst();
        return below.orElse(List.of(words).contains("×") ? "nothotaxon" : "species");
    }

    /** What a name of several words belongs to: its species, else its genus. */
    private static Optional<StudyRow> parent(String[] words, String rank, Map<String, StudyRow> byName) {
        if (words.length == 1 || !GENUS.matcher(words[0]).matches()) {
            return Optional.empty();
        }
        Optional<StudyRow> species = Ranks.isBelowSpecies(rank)
                ? Optional.ofNullable(byName.get(StudyRules.folded(words[0] + " " + words[1])))
                : Optional.empty();
        return species.or(() -> Optional.ofNullable(byName.get(StudyRules.folded(words[0]))));
    }
}
