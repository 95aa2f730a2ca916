package org.polyclave.study.change;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import org.polyclave.study.change.StudyDifference.Change;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.model.RowTree;

/**
 * What changed in a study of that on which a key rests: its taxa, the characters that it may ask, and their cells. Time and
 * memory linear in both versions.
 */
public final class KeyChanges {
    private final Set<String> taxa;
    private final Set<String> characters = new HashSet<>();
    private final List<RowTree> trees;

    private KeyChanges(CompiledStudy then, CompiledStudy now, Set<String> taxa) {
        this.taxa = taxa;
        Stream.of(then, now).flatMap(s -> s.characters().stream()).forEach(c -> characters.add(c.id()));
        trees = List.of(
                new RowTree(then.study().rows()), new RowTree(now.study().rows()));
    }

    /**
     * @param then what the key could ask of the study when it was made
     * @param now what it could ask today
     * @param taxa ids of the taxa that the key is for, with all that belongs to them; empty: all
     */
    public static List<Change> between(CompiledStudy then, CompiledStudy now, Set<String> taxa) {
        KeyChanges changes = new KeyChanges(then, now, taxa);
        return StudyDifference.between(then.study(), now.study()).stream()
                .filter(changes::matters)
                .toList();
    }

    private boolean matters(Change change) {
        return switch (change.kind()) {
            // Also of a taxon that the key leaves out: it says so at its head, with what is known of its hazards.
            case ROW -> true;
            case CHARACTER -> characters.contains(change.id());
            case CELL -> characters.contains(change.character()) && concerns(change.id());
            default -> false;
        };
    }

    /** Whether a row is in the key, or one that is inherits from it. */
    private boolean concerns(String row) {
        return taxa.isEmpty()
                || trees.stream()
                        .anyMatch(t ->
                                taxa.stream().anyMatch(wanted -> t.belongs(row, wanted) || t.belongs(wanted, row)));
    }
}
