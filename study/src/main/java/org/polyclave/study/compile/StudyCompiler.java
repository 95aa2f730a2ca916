package org.polyclave.study.compile;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.ControllingCondition;
import org.polyclave.core.matrix.Handling;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.MatrixRow;
import org.polyclave.core.matrix.MisidentificationCosts;
import org.polyclave.core.matrix.Misreading;
import org.polyclave.study.model.RowTree;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScope;
import org.polyclave.study.model.StudyScore;

/**
 * Compiles a study for computation: its {@link Targets} become rows of the matrix, inheritance is resolved, words of
 * frequency become shares, organs and methods become numbers.
 */
public final class StudyCompiler {
    private static final double NO_RATE_OF_ITS_OWN = -1;

    private final Study study;
    private final Map<String, Map<String, StudyScore>> scores;
    private final Inheritance inheritance;
    private final RowTree tree;
    private final HazardTree hazards;
    private final Features features;
    private final List<String> names = new ArrayList<>();
    private final Map<String, Integer> numbers = new HashMap<>();
    private final Map<String, Double> openEnds = new HashMap<>();

    private StudyCompiler(Study study, Map<String, Map<String, StudyScore>> scores) {
        this.study = study;
        this.scores = scores;
        inheritance = new Inheritance(study.rows(), scores);
        tree = new RowTree(study.rows());
        hazards = new HazardTree(study.rows());
        features = new Features(study.characters());
    }

    public static CompiledStudy compile(Study study) {
        return compile(study, study.scoresByRow());
    }

    /** The same for whoever has the scores by row, then by character, already. */
    public static CompiledStudy compile(Study study, Map<String, Map<String, StudyScore>> scores) {
        return new StudyCompiler(study, scores).run(study.scores());
    }

    /**
     * Compiles a study of which only scores changed. Time linear in the rows for each character, besides copying the rows
     * that changed.
     *
     * @param before the study before
     * @param after the same rows and characters with other scores
     * @param scores the scores of {@code after} by row, then by character
     * @param characters ids of the characters whose scores changed
     */
    public static CompiledStudy recompile(
            CompiledStudy before,
            Study after,
            Map<String, Map<String, StudyScore>> scores,
            Collection<String> characters) {
        if (!Targets.of(after.rows(), scores).equals(before.targets())) {
            // A first score makes a target of a row, and the last that differs unmakes it.
            return compile(after, scores);
        }
        StudyCompiler compiler = new StudyCompiler(after, scores);
        for (Map<String, StudyScore> row : scores.values()) {
            for (String id : characters) {
                StudyScore score = row.get(id);
                if (score != null) {
                    compiler.noteOpenEnd(score);
                }
            }
        }
        Matrix matrix = before.matrix();
        for (String id : characters) {
            int c = before.characterIndex(id);
            if (c >= 0) {
                Column column =
                        compiler.column(before.rows(), after.characters().get(c));
                matrix = matrix.withColumn(c, column.cells, column.weak, column.months);
            }
        }
        return new CompiledStudy(
                after, matrix, before.targets(), before.rows(), before.names(), before.characters(), scores);
    }

    /** What the rows show for one character. */
    private record Column(Cell[] cells, boolean[] weak, int[] months) {}

    private void noteOpenEnd(StudyScore score) {
        if (score.value() instanceof ScoreValue.Range range) {
            double end = range.max() == null ? range.low() * 2 : range.max();
            openEnds.merge(score.character(), end, Math::max);
        }
    }

    private CompiledStudy run(List<StudyScore> all) {
        all.forEach(this::noteOpenEnd);
        List<Targets.Target> targets = Targets.of(study.rows(), scores);
        List<StudyRow> leaves =
                targets.stream().map(Targets.Target::row).map(hazards::applied).toList();
        List<MatrixCharacter> characters = new ArrayList<>();
        for (StudyCharacter character : study.characters()) {
            characters.add(character(character, leaves));
        }
        List<MatrixRow> rows = new ArrayList<>();
        for (int i = 0; i < leaves.size(); i++) {
            Targets.Target target = targets.get(i);
            StudyRow row = leaves.get(i);
            rows.add(new MatrixRow(
                    row.id(),
                    nameIndex(target.name()),
                    number("kin", kin(row)),
                    target.weight(),
                    row.hazard(),
                    HazardRoutes.of(row),
                    present(row)));
        }
        Cell[][] cells = new Cell[leaves.size()][characters.size()];
        boolean[][] weak = new boolean[leaves.size()][characters.size()];
        int[][] ownMonths = new int[leaves.size()][characters.size()];
        for (int c = 0; c < characters.size(); c++) {
            Column column = column(leaves, study.characters().get(c));
            for (int i = 0; i < leaves.size(); i++) {
                cells[i][c] = column.cells[i];
                weak[i][c] = column.weak[i];
                ownMonths[i][c] = column.months[i];
            }
        }
        Matrix matrix = Matrix.of(rows, characters, cells, weak, ownMonths).withLosses(losses(leaves));
        List<StudyRow> named = names.stream()
                .map(n -> study.row(n).orElseThrow())
                .map(hazards::applied)
                .toList();
        return new CompiledStudy(study, matrix, targets, leaves, named, study.characters(), scores);
    }

    /** The months in which a row is met: its own, or those of the nearest taxon above it that has any. */
    private int present(StudyRow row) {
        return tree.upward(row.id()).stream()
                .map(r -> months(r.occurrence().months()))
                .filter(m -> m != 0)
                .findFirst()
                .orElse(0);
    }

    private int nameIndex(String name) {
        if (!names.contains(name)) {
            names.add(name);
        }
        return names.indexOf(name);
    }

    /** Losses of pairs of taxa are those of all that belongs to them. */
    private List<MisidentificationCosts.Loss> losses(List<StudyRow> leaves) {
        List<MisidentificationCosts.Loss> losses = new ArrayList<>();
        for (StudyScope.Loss loss : study.scope().losses()) {
            for (int i : of(loss.row(), leaves)) {
                for (int j : of(loss.named(), leaves)) {
                    if (i != j) {
                        losses.add(new MisidentificationCosts.Loss(i, j, loss.times()));
                    }
                }
            }
        }
        return losses;
    }

    /** Places of the leaves that are a taxon, or belong to it. */
    private List<Integer> of(String taxon, List<StudyRow> leaves) {
        return IntStream.range(0, leaves.size())
                .filter(i -> tree.belongs(leaves.get(i).id(), taxon))
                .boxed()
                .toList();
    }

    private Column column(List<StudyRow> leaves, StudyCharacter character) {
        Column column = new Column(new Cell[leaves.size()], new boolean[leaves.size()], new int[leaves.size()]);
        // Rows that are scored alike share a cell: most of a large matrix says the same few things.
        Map<ScoreValue, Cell> known = new HashMap<>();
        boolean ofIndividuals = character.looking().subject() == StudyCharacter.Subject.INDIVIDUAL;
        for (int i = 0; i < leaves.size(); i++) {
            if (ofIndividuals) {
                // Whatever a specimen shows, it tells nothing of its taxon.
                column.cells[i] = Cell.UNKNOWN;
                column.weak[i] = true;
                continue;
            }
            StudyRow row = leaves.get(i);
            StudyScore own = scores.getOrDefault(row.id(), Map.of()).get(character.id());
            if (own != null) {
                // By far the most cells; a million look-ups among ancestors take longer than all the rest.
                fill(column, i, own, true, known, character);
                continue;
            }
            Optional<Inheritance.Effective> inherited = inheritance.effective(row.id(), character.id());
            if (inherited.isPresent()) {
                fill(
                        column,
                        i,
                        inherited.get().score(),
                        standsForAll(row, inherited.get(), character),
                        known,
                        character);
            } else {
                column.cells[i] = betweenParents(row, character);
                column.weak[i] = true;
            }
        }
        return column;
    }

    private void fill(
            Column column,
            int i,
            StudyScore score,
            boolean standsFor,
            Map<ScoreValue, Cell> known,
            StudyCharacter character) {
        Cell cell = known.computeIfAbsent(score.value(), v -> cell(v, character));
        StudyScore.Sample sample = score.sample();
        column.cells[i] = sample == null ? cell : measured(cell, sample);
        boolean unchecked =
                score.basis() == StudyScore.Basis.IMPORT && score.confirmed().isEmpty();
        column.weak[i] = !standsFor || score.doubtful() || unchecked;
        column.months[i] = score.months().isEmpty() ? 0 : months(score.months());
    }

    /** A range with the sample behind it. How often each count is met, where that is said, says more than a mean of counts. */
    private static Cell measured(Cell cell, StudyScore.Sample sample) {
        return sample.measured().isPresent()
                        && cell instanceof Cell.Numeric range
                        && range.parts().isEmpty()
                ? new Cell.Numeric(range.min(), range.low(), range.high(), range.max(), sample.measured())
                : cell;
    }

    /**
     * Whether a score that a row inherits may be evidence against a danger: a sex or stage must be known to be alike, and so
     * must a part of a dangerous taxon.
     */
    private boolean standsForAll(StudyRow row, Inheritance.Effective inherited, StudyCharacter character) {
        boolean constant = tree.upward(row.id()).stream()
                .skip(1)
                .anyMatch(r -> r.constant().contains(character.id()));
        return constant || (!inherited.acrossStages() && !row.hazard().isDangerous());
    }

    private int number(String kind, String name) {
        return numbers.computeIfAbsent(kind + ':' + name, n -> numbers.size());
    }

    /** The named group: the first word of a scientific name. */
    private static String kin(StudyRow row) {
        return row.label().strip().split("\\s+", 2)[0];
    }

    private MatrixCharacter character(StudyCharacter character, List<StudyRow> leaves) {
        List<ControllingCondition> conditions = new ArrayList<>();
        for (StudyCharacter.AppliesWhen condition : character.appliesWhen()) {
            for (int d = 0; d < study.characters().size(); d++) {
                StudyCharacter controller = study.characters().get(d);
                if (controller.id().equals(condition.character())) {
                    int states = 0;
                    for (String state : condition.states()) {
                        states |= 1 << controller.indexOf(state);
                    }
                    conditions.add(new ControllingCondition(d, states));
                }
            }
        }
        int months = months(character.months());
        return new MatrixCharacter(
                character.id(),
                character.type(),
                stateCount(character),
                conditions,
                organ(character.organ()),
                number("method", character.method()),
                number("feature", features.of(character)),
                // Whoever looks for what one individual in five shows looks at five.
                character.effort() * character.use().individuals(),
                character.uncertainty(),
                misreading(character, leaves),
                months == 0 ? MatrixCharacter.ALL_MONTHS : months,
                handling(character),
                character.countsAgainstDangers(),
                confusable(character),
                absence(character),
                study.scope().bodyPlan().around(character.organ()).stream()
                        .map(this::organ)
                        .toList(),
                character.use().role(),
                1 / character.use().individuals());
    }

    /** Characters of which nobody says on what part they are seen are on one part together. */
    private int organ(String organ) {
        return number("organ", organ.strip().toLowerCase(Locale.ROOT));
    }

    /** The states that say that something is not there; of a count, 0. */
    private static int absence(StudyCharacter character) {
        int absence = character.type() == CharacterType.COUNT ? 1 : 0;
        for (int s = 0; s < character.states().size(); s++) {
            absence |= character.states().get(s).isAbsence() ? 1 << s : 0;
        }
        return absence;
    }

    /** A ratio that is measured by the same means as a part that takes handling takes it, too. */
    private Handling handling(StudyCharacter character) {
        return character.ratioOf().stream()
                .flatMap(part -> study.character(part).stream())
                .filter(p -> p.method().equals(character.method()))
                .map(StudyCharacter::handling)
                .max(Comparator.naturalOrder())
                .filter(h -> h.compareTo(character.handling()) > 0)
                .orElse(character.handling());
    }

    /** The nearest taxon above a row that has rates of its own gives them. */
    private Misreading misreading(StudyCharacter character, List<StudyRow> leaves) {
        StudyCharacter.Trust trust = character.trust();
        double novice = trust.noviceRate(character.misreading());
        if (trust.groups().isEmpty()) {
            return new Misreading(character.misreading(), novice, List.of(), List.of());
        }
        Map<String, StudyCharacter.InGroup> groups = new HashMap<>();
        trust.groups().forEach(g -> groups.put(g.row(), g));
        List<Double> trainedOf = new ArrayList<>();
        List<Double> noviceOf = new ArrayList<>();
        for (StudyRow leaf : leaves) {
            Optional<StudyCharacter.InGroup> group = tree.upward(leaf.id()).stream()
                    .filter(r -> groups.containsKey(r.id()))
                    .findFirst()
                    .map(r -> groups.get(r.id()));
            trainedOf.add(group.map(StudyCharacter.InGroup::trained).orElse(NO_RATE_OF_ITS_OWN));
            noviceOf.add(group.map(StudyCharacter.InGroup::noviceRate).orElse(NO_RATE_OF_ITS_OWN));
        }
        return new Misreading(character.misreading(), novice, trainedOf, noviceOf);
    }

    private static List<Integer> confusable(StudyCharacter character) {
        if (character.states().stream().allMatch(s -> s.mistakenFor().isEmpty())) {
            return List.of();
        }
        return character.states().stream()
                .map(state -> {
                    int mask = 0;
                    for (String other : state.mistakenFor()) {
                        mask |= 1 << character.indexOf(other);
                    }
                    return mask;
                })
                .toList();
    }

    private static int months(List<Integer> numbers) {
        int months = 0;
        for (int month : numbers) {
            months |= 1 << (month - 1);
        }
        return months;
    }

    private static int stateCount(StudyCharacter character) {
        return switch (character.type()) {
            case MONTHS -> 12;
            case STATES, ORDERED -> character.states().size();
            default -> 0;
        };
    }

    /** An unscored cell of a hybrid admits everything between its parents, or either. */
    private Cell betweenParents(StudyRow row, StudyCharacter character) {
        List<Cell> shown = new ArrayList<>();
        for (String parent : row.hybridOf()) {
            inheritance
                    .effective(parent, character.id())
                    .ifPresent(e -> shown.add(cell(e.score().value(), character)));
        }
        if (row.hybridOf().isEmpty() || shown.size() < row.hybridOf().size()) {
            return Cell.UNKNOWN;
        }
        int readable = 0;
        double min = Double.POSITIVE_INFINITY;
        double max = Double.NEGATIVE_INFINITY;
        for (Cell cell : shown) {
            if (cell instanceof Cell.Categorical states) {
                readable |= states.readable();
            } else if (cell instanceof Cell.Numeric range) {
                min = Math.min(min, range.min());
                max = Math.max(max, range.max());
            } else {
                return cell;
            }
        }
        if (character.type() == CharacterType.ORDERED) {
            readable = filled(readable);
        }
        return readable != 0 ? Cell.Categorical.even(readable, stateCount(character)) : Cell.Numeric.range(min, max);
    }

    private static int filled(int mask) {
        int filled = 0;
        for (int s = Integer.numberOfTrailingZeros(mask); s <= 31 - Integer.numberOfLeadingZeros(mask); s++) {
            filled |= 1 << s;
        }
        return filled;
    }

    /** A score as algorithms see it. */
    Cell cell(ScoreValue value, StudyCharacter character) {
        int n = stateCount(character);
        if (value instanceof ScoreValue.NotApplicable) {
            return Cell.NOT_APPLICABLE;
        }
        if (value instanceof ScoreValue.Any && n > 0) {
            return Cell.Categorical.even(n == 32 ? -1 : (1 << n) - 1, n);
        }
        if (value instanceof ScoreValue.Months months) {
            return Cell.Categorical.even(months(months.months()), n);
        }
        if (value instanceof ScoreValue.States states) {
            return categorical(states, character);
        }
        if (value instanceof ScoreValue.Range range) {
            double end = Math.max(openEnds.getOrDefault(character.id(), range.low()), range.low());
            double max = range.max() == null ? end : range.max();
            double high = range.high() == null ? max : range.high();
            return range.counts().isEmpty()
                    ? new Cell.Numeric(range.min(), range.low(), high, max)
                    : Cell.Numeric.inParts(range.min(), range.low(), high, max, Shares.of(range));
        }
        return Cell.UNKNOWN;
    }

    private static Cell categorical(ScoreValue.States states, StudyCharacter character) {
        double[] shares = Shares.of(states, character);
        int support = 0;
        int readable = 0;
        for (int s = 0; s < shares.length; s++) {
            support |= shares[s] > 0 ? 1 << s : 0;
        }
        for (ScoreValue.Shown shown : states.shown()) {
            readable |= 1 << character.indexOf(shown.state());
        }
        return new Cell.Categorical(support, support | readable, shares);
    }
}
