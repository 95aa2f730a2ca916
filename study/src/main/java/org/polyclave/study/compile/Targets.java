package org.polyclave.study.compile;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.polyclave.study.model.RowTree;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.rules.Ranks;

/**
 * Which rows of a study keys must be able to end at, and what readers call them.
 *
 * <p>Every scored row is a target. A row with children stays one unless its children cover it: a taxon above species rank is
 * covered by its taxa, a taxon by children of one rank that include its autonym, sexes and stages cover what
 * {@link Facets} says, and the author may decide otherwise. A child of a row that stays, without a score that differs from
 * it, is not a target: its parent's text names it. Where a row is covered all its children stand, or its plants would have no
 * name. A taxon of which nothing is known at all stays in the matrix, so that authors see it, but no key names it.
 *
 * <p>Time linear in the rows, besides one look at the scores of rows that have a parent.
 */
public final class Targets {
    private final Map<String, List<StudyRow>> children = new HashMap<>();
    private final Map<String, Map<String, StudyScore>> scores;
    private final Inheritance inheritance;
    private final Facets facets;
    private final RowTree tree;
    private final Map<String, Boolean> standing = new HashMap<>();
    private final Map<String, Boolean> covered = new HashMap<>();

    /**
     * A row that keys must be able to end at.
     *
     * @param row the row of the study, called as readers are told it: what its children leave of it has a name of its own
     * @param name id of the taxon whose name it bears
     * @param weight how common it is; the targets of a name share the weight of the name
     * @param scored whether anything is known of it
     * @param folded names of its sexes, stages and taxa that show nothing of their own
     */
    public record Target(StudyRow row, String name, double weight, boolean scored, List<String> folded) {
        public Target {
            folded = List.copyOf(folded);
        }
    }

    private Targets(List<StudyRow> rows, Map<String, Map<String, StudyScore>> scores) {
        this.scores = scores;
        inheritance = new Inheritance(rows, scores);
        facets = new Facets(rows);
        tree = new RowTree(rows);
        for (StudyRow row : rows) {
            if (row.parent() != null) {
                children.computeIfAbsent(row.parent(), p -> new ArrayList<>()).add(row);
            }
        }
    }

    /** The targets of a study, in the order of its rows. */
    public static List<Target> of(List<StudyRow> rows, Map<String, Map<String, StudyScore>> scores) {
        Targets targets = new Targets(rows, scores);
        List<StudyRow> standing = rows.stream().filter(targets::stands).toList();
        Map<String, Double> weights = targets.weights(standing);
        List<Target> found = new ArrayList<>();
        for (StudyRow row : standing) {
            found.add(new Target(
                    targets.called(row),
                    targets.name(row),
                    weights.getOrDefault(row.id(), 1.0),
                    targets.isKnown(row),
                    targets.folded(row)));
        }
        return List.copyOf(found);
    }

    /**
     * Rows that are scored in their sexes, stages or parts only: what else there is of them is in no key.
     *
     * @return called as readers are told them
     */
    public static List<StudyRow> leftOut(List<StudyRow> rows, Map<String, Map<String, StudyScore>> scores) {
        Targets targets = new Targets(rows, scores);
        return rows.stream()
                .filter(r -> !targets.childrenOf(r).isEmpty()
                        && !targets.isCovered(r)
                        && !targets.stands(r)
                        && !targets.isFolded(r))
                .map(targets::called)
                .toList();
    }

    /** Whether the children of a row are all there is of it. */
    public static boolean isCovered(List<StudyRow> rows, Map<String, Map<String, StudyScore>> scores, StudyRow row) {
        return new Targets(rows, scores).isCovered(row);
    }

    /**
     * A row with children.
     *
     * @param ofTaxa whether some of them are taxa, and not sexes or stages
     * @param covered whether they are all there is of it
     */
    public record Parent(StudyRow row, boolean aboveSpecies, boolean ofTaxa, boolean covered) {}

    /** The rows with children, in the order of the study. */
    public static List<Parent> parents(List<StudyRow> rows, Map<String, Map<String, StudyScore>> scores) {
        Targets targets = new Targets(rows, scores);
        List<Parent> parents = new ArrayList<>();
        for (StudyRow row : rows) {
            List<StudyRow> taxa = targets.childrenOf(row).stream()
                    .filter(c -> !c.isSemaphoront())
                    .toList();
            if (!targets.childrenOf(row).isEmpty()) {
                boolean above = !taxa.isEmpty() && isAboveSpecies(row, taxa);
                parents.add(new Parent(row, above, !taxa.isEmpty(), targets.isCovered(row)));
            }
        }
        return parents;
    }

    private List<StudyRow> childrenOf(StudyRow row) {
        return children.getOrDefault(row.id(), List.of());
    }

    private boolean stands(StudyRow row) {
        Boolean known = standing.get(row.id());
        if (known != null) {
            return known;
        }
        // Set first: a circle of parents ends here.
        standing.put(row.id(), false);
        boolean stands = !isCovered(row) && isWanted(row);
        standing.put(row.id(), stands);
        return stands;
    }

    private boolean isWanted(StudyRow row) {
        Optional<StudyRow> parent = tree.upward(row.id()).stream().skip(1).findFirst();
        if (parent.isEmpty()) {
            return isScored(row) || isBare(row);
        }
        if (isCovered(parent.get())) {
            return isKnown(row) || isBare(row);
        }
        return isKnown(parent.get())
                ? differs(row, parent.get())
                : isScored(row) || (!row.isSemaphoront() && isBare(row));
    }

    /** Whether nothing is scored of a row, nor of anything below it. */
    private boolean isBare(StudyRow row) {
        return !isScored(row) && childrenOf(row).stream().allMatch(this::isBare);
    }

    /** Whether a row shows nothing of its own, so that its parent stands for it. */
    private boolean isFolded(StudyRow row) {
        Optional<StudyRow> parent = tree.upward(row.id()).stream().skip(1).findFirst();
        return parent.isPresent() && !isCovered(parent.get()) && isKnown(parent.get());
    }

    private boolean isScored(StudyRow row) {
        boolean own = scores.getOrDefault(row.id(), Map.of()).values().stream()
                .anyMatch(s -> !(s.value() instanceof ScoreValue.Unknown));
        return own || !row.hybridOf().isEmpty();
    }

    /** Whether it is scored, or inherits something. */
    private boolean isKnown(StudyRow row) {
        return tree.upward(row.id()).stream().anyMatch(this::isScored);
    }

    private boolean differs(StudyRow row, StudyRow parent) {
        if (!row.hybridOf().isEmpty()) {
            return true;
        }
        for (StudyScore own : scores.getOrDefault(row.id(), Map.of()).values()) {
            boolean same = inheritance
                    .effective(parent.id(), own.character())
                    .map(e -> e.score().value().equals(own.value()))
                    .orElse(false);
            if (!(own.value() instanceof ScoreValue.Unknown) && !same) {
                return true;
            }
        }
        return false;
    }

    private boolean isCovered(StudyRow row) {
        return covered.computeIfAbsent(row.id(), id -> {
            List<StudyRow> all = childrenOf(row);
            if (all.isEmpty()) {
                return false;
            }
            return switch (row.coverage().covers()) {
                case ALL -> true;
                case NOT_ALL -> false;
                case BY_RULE -> isCoveredByRule(row, all);
            };
        });
    }

    private boolean isCoveredByRule(StudyRow row, List<StudyRow> all) {
        List<StudyRow> taxa = all.stream().filter(c -> !c.isSemaphoront()).toList();
        List<StudyRow> stages = all.stream().filter(StudyRow::isSemaphoront).toList();
        if (!taxa.isEmpty() && isAboveSpecies(row, taxa)) {
            return true;
        }
        boolean byAutonym = taxa.stream().anyMatch(t -> Autonyms.isAutonym(row, t));
        return byAutonym || (!stages.isEmpty() && facets.cover(row, stages));
    }

    /** By its rank; where nobody gave it one, by what it holds. */
    private static boolean isAboveSpecies(StudyRow row, List<StudyRow> taxa) {
        return Ranks.isAboveSpecies(row.rank())
                || (Ranks.level(row.rank()).isEmpty() && taxa.stream().anyMatch(t -> Ranks.isSpeciesOrAbove(t.rank())));
    }

    /** Names of the children, and of theirs, that show nothing of their own. */
    private List<String> folded(StudyRow row) {
        List<String> names = new ArrayList<>();
        for (StudyRow child : childrenOf(row)) {
            if (!stands(child) && childrenOf(child).isEmpty()) {
                names.add(child.isSemaphoront() ? child.stage() : child.label());
            }
        }
        return names;
    }

    /** What readers are told a target is: what remains beside children that are targets themselves has a name of its own. */
    private StudyRow called(StudyRow row) {
        List<StudyRow> beside = beside(row);
        if (beside.isEmpty()) {
            return row;
        }
        if (!row.coverage().rest().isBlank()) {
            return row.withStage(joined(row.stage(), row.coverage().rest().strip()));
        }
        List<StudyRow> taxa = beside.stream().filter(c -> !c.isSemaphoront()).toList();
        List<String> stages = beside.stream()
                .filter(StudyRow::isSemaphoront)
                .map(s -> row.id().equals(s.parent()) ? s.stage() : s.name())
                .toList();
        if (!taxa.isEmpty() && isAboveSpecies(row, taxa)) {
            return row.withStage(joined(row.stage(), "other " + Ranks.plural(rankOfAll(taxa))));
        }
        Optional<String> autonym = taxa.isEmpty() ? Optional.empty() : Autonyms.of(row, taxa);
        StudyRow named = autonym.map(row::withLabel).orElse(row);
        List<String> others = new ArrayList<>();
        if (autonym.isEmpty()) {
            taxa.forEach(t -> others.add(Autonyms.shortName(row, t)));
        }
        others.addAll(stages);
        return others.isEmpty() ? named : named.withStage(joined(row.stage(), "other than " + listed(others)));
    }

    /** What has a name of its own below a row; of a child that shows nothing of its own, what is below that. */
    private List<StudyRow> beside(StudyRow row) {
        List<StudyRow> found = new ArrayList<>();
        for (StudyRow child : childrenOf(row)) {
            if (stands(child) || isCovered(child)) {
                found.add(child);
            } else {
                found.addAll(beside(child));
            }
        }
        return found;
    }

    private static String rankOfAll(List<StudyRow> taxa) {
        Set<String> ranks = taxa.stream()
                .map(t -> t.rank().strip().toLowerCase(Locale.ROOT))
                .collect(Collectors.toCollection(LinkedHashSet::new));
        return ranks.size() == 1 ? ranks.iterator().next() : "";
    }

    private static String joined(String stage, String rest) {
        return stage.isEmpty() ? rest : stage + ", " + rest;
    }

    private static String listed(List<String> names) {
        if (names.size() == 1) {
            return names.get(0);
        }
        return String.join(", ", names.subList(0, names.size() - 1)) + " and " + names.get(names.size() - 1);
    }

    /** The taxon whose name a row bears: the topmost at which keys may stop, else that of a sex or stage, else itself. */
    private String name(StudyRow row) {
        String name = taxon(row).id();
        for (StudyRow at : tree.upward(row.id())) {
            name = at.stopsHere() ? at.id() : name;
        }
        return name;
    }

    private StudyRow taxon(StudyRow row) {
        return tree.upward(row.id()).stream()
                .filter(r -> !r.isSemaphoront())
                .findFirst()
                .orElse(row);
    }

    /** The targets of one taxon share its weight as they are weighted among each other; what remains counts as one. */
    private Map<String, Double> weights(List<StudyRow> targets) {
        Map<String, List<StudyRow>> byTaxon = new LinkedHashMap<>();
        targets.forEach(t ->
                byTaxon.computeIfAbsent(taxon(t).id(), n -> new ArrayList<>()).add(t));
        Map<String, Double> weights = new HashMap<>();
        byTaxon.forEach((id, of) -> {
            double all = of.stream().mapToDouble(Targets::share).sum();
            double weight = taxon(of.get(0)).weight();
            of.forEach(t -> weights.put(t.id(), weight * share(t) / all));
        });
        return weights;
    }

    private static double share(StudyRow target) {
        return target.isSemaphoront() ? target.weight() : 1;
    }
}
