package org.polyclave.study.compile;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.LongStream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.study.checks.StudyCheck;
import org.polyclave.study.model.Claim;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.testkit.RandomScores;

/** A study brought up to date by its changed cells is the study compiled from the beginning. */
class RecompileTest {
    private static final List<StudyScore.Basis> BASES = List.of(StudyScore.Basis.values());

    static LongStream seeds() {
        return LongStream.rangeClosed(1, 80);
    }

    /** A random study of which one row is a hybrid of two others, so that cells hang together in every way. */
    private static Study study(long seed) {
        Study study = RandomScores.study(seed);
        List<StudyRow> rows = new ArrayList<>(study.rows());
        rows.set(
                3,
                rows.get(3).withHybridOf(List.of(rows.get(4).id(), rows.get(5).id())));
        List<StudyScore> scores = study.scores().stream()
                .filter(s -> !s.row().equals(rows.get(3).id()))
                .toList();
        return study.withRows(rows).withScores(scores);
    }

    /** The same with a ratio of two parts, a claim and a taxon that is not there in summer, for checks of every kind. */
    private static Study checked(Study study, Random random) {
        List<StudyCharacter> characters = new ArrayList<>(study.characters());
        List<String> parts = study.characters().stream()
                .filter(c -> c.type() == CharacterType.LENGTH || c.type() == CharacterType.COUNT)
                .map(StudyCharacter::id)
                .toList();
        characters.replaceAll(c -> c.type() == CharacterType.RATIO ? c.withRatioOf(parts) : c);
        List<StudyRow> rows = new ArrayList<>(study.rows());
        rows.set(1, rows.get(1).withOccurrence(new StudyRow.Occurrence(List.of(1, 2, 3, 11, 12), "", List.of())));
        StudyCharacter withStates = study.characters().stream()
                .filter(c -> c.states().size() > 1)
                .findFirst()
                .orElseThrow();
        String state = withStates.states().get(0).id();
        Claim claim = new Claim(
                "claim",
                rows.get(random.nextInt(rows.size())).id(),
                Claim.Kind.ONLY,
                withStates.id(),
                List.of(state),
                "");
        return study.withCharacters(characters).withRows(rows).withClaims(List.of(claim));
    }

    private static Study edited(Study study, Random random, Set<String> characters) {
        Study now = study;
        for (int k = 0; k <= random.nextInt(4); k++) {
            StudyRow row = study.rows().get(random.nextInt(study.rows().size()));
            StudyCharacter character =
                    study.characters().get(random.nextInt(study.characters().size()));
            characters.add(character.id());
            boolean emptied = random.nextInt(4) == 0;
            StudyScore score = new StudyScore(
                            row.id(),
                            character.id(),
                            RandomScores.of(character, random),
                            "",
                            BASES.get(random.nextInt(BASES.size())),
                            "",
                            random.nextBoolean(),
                            "")
                    .withMonths(random.nextBoolean() ? List.of() : List.of(1 + random.nextInt(12)));
            now = now.withScore(row.id(), character.id(), emptied ? Optional.empty() : Optional.of(score));
        }
        return now;
    }

    @ParameterizedTest(name = "seed {0}")
    @MethodSource("seeds")
    void changedCellsGiveTheSameMatrix(long seed) {
        Random random = new Random(seed);
        Study study = study(seed);
        CompiledStudy compiled = StudyCompiler.compile(study);
        for (int step = 0; step < 5; step++) {
            Set<String> characters = new HashSet<>();
            Matrix before = compiled.matrix();
            List<Object> beforeCells = cells(before);
            Study now = edited(study, random, characters);
            compiled = StudyCompiler.recompile(compiled, now, now.scoresByRow(), characters);
            CompiledStudy whole = StudyCompiler.compile(now);
            assertThat(cells(compiled.matrix())).isEqualTo(cells(whole.matrix()));
            assertThat(compiled.study()).isEqualTo(now);
            assertThat(cells(before)).as("the matrix before is not touched").isEqualTo(beforeCells);
            study = now;
        }
    }

    @ParameterizedTest(name = "seed {0}")
    @MethodSource("seeds")
    void changedCellsGiveTheSameFindings(long seed) {
        Random random = new Random(seed);
        Study study = checked(study(seed), random);
        StudyCheck kept = StudyCheck.of(StudyCompiler.compile(study));
        for (int step = 0; step < 5; step++) {
            study = edited(study, random, new HashSet<>());
            CompiledStudy now = StudyCompiler.compile(study);
            kept = kept.after(now);
            assertThat(kept.findings()).isEqualTo(StudyCheck.of(now).findings());
        }
        Study renamed = study.withRows(
                study.rows().stream().map(r -> r.withLabel(r.label() + " s.l.")).toList());
        CompiledStudy other = StudyCompiler.compile(renamed);
        assertThat(kept.after(other).findings()).isEqualTo(StudyCheck.of(other).findings());
    }

    private static List<Object> cells(Matrix matrix) {
        List<Object> cells = new ArrayList<>();
        for (int i = 0; i < matrix.rowCount(); i++) {
            for (int c = 0; c < matrix.characterCount(); c++) {
                cells.add(List.of(matrix.cell(i, c), matrix.isUsable(i, c), matrix.months(i, c)));
            }
        }
        return cells;
    }
}
