package org.polyclave.study.compile;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.IntPredicate;
import java.util.stream.IntStream;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.study.model.OutsideTaxon;
import org.polyclave.study.model.RowTree;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScore;

/**
 * A study compiled for computation.
 *
 * @param targets what the rows of the matrix are and why
 * @param rows the row of the study behind each row of the matrix, called as readers are told it, with the hazards that stand
 * @param names the taxon behind each name of the matrix
 * @param characters the character of the study behind each character of the matrix
 * @param scores the scores of the study by row, then by character
 */
public record CompiledStudy(
        Study study,
        Matrix matrix,
        List<Targets.Target> targets,
        List<StudyRow> rows,
        List<StudyRow> names,
        List<StudyCharacter> characters,
        Map<String, Map<String, StudyScore>> scores) {
    public CompiledStudy {
        targets = List.copyOf(targets);
        rows = List.copyOf(rows);
        names = List.copyOf(names);
        characters = List.copyOf(characters);
    }

    /** One compilation is what it is; what is worked out of it is kept by it, and must not cost a look at every score. */
    @Override
    public boolean equals(Object other) {
        return this == other;
    }

    @Override
    public int hashCode() {
        return System.identityHashCode(this);
    }

    /** Index of a row by id, -1 if it is not a row that keys lead to. */
    public int rowIndex(String id) {
        for (int i = 0; i < rows.size(); i++) {
            if (rows.get(i).id().equals(id)) {
                return i;
            }
        }
        return -1;
    }

    /** Index of a character by id, -1 if there is none. */
    public int characterIndex(String id) {
        for (int c = 0; c < characters.size(); c++) {
            if (characters.get(c).id().equals(id)) {
                return c;
            }
        }
        return -1;
    }

    /** The taxon whose name a row bears. */
    public StudyRow nameOf(int row) {
        return names.get(matrix.row(row).name());
    }

    /** What readers may meet and no key names. */
    public List<OutsideTaxon> outside() {
        return Outside.of(study, scores);
    }

    /** Rows of which nothing is known: no key can name them. */
    public List<StudyRow> unscored() {
        return IntStream.range(0, rows.size())
                .filter(i -> !targets.get(i).scored())
                .mapToObj(rows::get)
                .toList();
    }

    /** The same without the rows of which nothing is known, as keys are made of it. */
    public CompiledStudy scoredOnly() {
        return ofRows(i -> targets.get(i).scored());
    }

    /** The same for some taxa only, with all that belongs to them. */
    public CompiledStudy of(Set<String> taxa) {
        RowTree tree = new RowTree(study.rows());
        return ofRows(i -> tree.upward(rows.get(i).id()).stream().anyMatch(at -> taxa.contains(at.id())));
    }

    /** The same for some sexes and stages only; none: all. */
    public CompiledStudy ofStages(Set<String> stages) {
        Set<Integer> kept = Set.copyOf(rowsOfStages(stages));
        return ofRows(kept::contains);
    }

    /** The rows that may be of some sexes and stages, in the order of the matrix; none: all. What children leave of a taxon may be any. */
    public List<Integer> rowsOfStages(Set<String> stages) {
        Facets facets = new Facets(stages.isEmpty() ? List.of() : study.rows());
        return IntStream.range(0, rows.size())
                .filter(i -> facets.mayBe(rows.get(i), stages))
                .boxed()
                .toList();
    }

    /**
     * The same with keys that stop at some groups. A group in which some rows are dangerous and others are not is no stop: its name would
     * not warn of what it is, or warn of what it is not.
     *
     * @param groups ids of taxa
     */
    public CompiledStudy stoppingAt(Set<String> groups) {
        if (groups.isEmpty()) {
            return this;
        }
        RowTree tree = new RowTree(study.rows());
        Map<String, Set<Boolean>> dangers = new HashMap<>();
        for (int i = 0; i < rows.size(); i++) {
            boolean dangerous = matrix.row(i).hazard().isDangerous();
            tree.upward(rows.get(i).id())
                    .forEach(at -> dangers.computeIfAbsent(at.id(), id -> new HashSet<>())
                            .add(dangerous));
        }
        List<StudyRow> named = new ArrayList<>(names);
        Map<String, Integer> numbers = new HashMap<>();
        int[] nameOf = new int[rows.size()];
        for (int i = 0; i < nameOf.length; i++) {
            nameOf[i] = matrix.row(i).name();
            for (StudyRow at : tree.upward(rows.get(i).id())) {
                if (groups.contains(at.id())
                        && dangers.getOrDefault(at.id(), Set.of()).size() == 1) {
                    nameOf[i] = numbers.computeIfAbsent(at.id(), id -> {
                        named.add(at.withStopsHere(true));
                        return named.size() - 1;
                    });
                }
            }
        }
        return new CompiledStudy(study, matrix.withNames(i -> nameOf[i]), targets, rows, named, characters, scores);
    }

    private CompiledStudy ofRows(IntPredicate wanted) {
        List<Integer> kept =
                IntStream.range(0, rows.size()).filter(wanted).boxed().toList();
        return kept.size() == rows.size()
                ? this
                : new CompiledStudy(
                        study,
                        matrix.withRows(kept),
                        kept.stream().map(targets::get).toList(),
                        kept.stream().map(rows::get).toList(),
                        names,
                        characters,
                        scores);
    }

    /** The same rows and characters with other cells. */
    CompiledStudy withMatrix(Matrix other) {
        return new CompiledStudy(study, other, targets, rows, names, characters, scores);
    }

    /** The same without some characters: what is not at hand, or forbidden. */
    public CompiledStudy without(List<Integer> dropped) {
        List<Integer> kept = new ArrayList<>();
        for (int c = 0; c < characters.size(); c++) {
            if (!dropped.contains(c)) {
                kept.add(c);
            }
        }
        return new CompiledStudy(
                study,
                matrix.withCharacters(kept),
                targets,
                rows,
                names,
                kept.stream().map(characters::get).toList(),
                scores);
    }
}
