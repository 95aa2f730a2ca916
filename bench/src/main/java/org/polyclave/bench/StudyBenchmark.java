package org.polyclave.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.stream.IntStream;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Level;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.testkit.SyntheticMatrix;
import org.polyclave.files.convert.MatrixFiles;
import org.polyclave.files.convert.MatrixFiles.Format;
import org.polyclave.files.source.ImportedStudy;
import org.polyclave.files.table.TableWriter.Layout;
import org.polyclave.study.checks.StudyCheck;
import org.polyclave.study.checks.StudyFinding;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.compile.StudyCompiler;
import org.polyclave.study.danger.DangerReport;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScope;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.notation.NotationPrinter;

/** Reading a workbook, checking and compiling a whole study and one changed cell, in 1 GB of memory. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SingleShotTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(
        value = 1,
        jvmArgsAppend = {"-Xmx1g"})
@Warmup(iterations = 1)
@Measurement(iterations = 3)
public class StudyBenchmark {
    private static final int PARTS = 12;

    @Param({"200x100", "600x40", "2000x500"})
    private String size = "200x100";

    private Study study = new Study("s", "S", StudyScope.EMPTY, List.of(), List.of(), List.of(), List.of());
    private CompiledStudy compiled = StudyCompiler.compile(study);
    private Map<String, Map<String, StudyScore>> scores = Map.of();
    private StudyCheck checked = StudyCheck.of(compiled);
    private CompiledStudy changed = compiled;
    private byte[] workbook = new byte[0];

    @Setup
    public void prepare() {
        String[] sides = size.split("x", 2);
        study = study(SyntheticMatrix.benchmark(Integer.parseInt(sides[0]), Integer.parseInt(sides[1]))
                .generate(42));
        compiled = StudyCompiler.compile(study);
        scores = study.scoresByRow();
        checked = StudyCheck.of(compiled);
        workbook = MatrixFiles.write(study, Format.XLSX, Layout.WIDE);
    }

    /** Anew for each shot: what follows from a compiled study is kept as long as the study is. */
    @Setup(Level.Invocation)
    public void change() {
        changed = StudyCompiler.compile(study.withScore("row-0", "c0", Optional.empty()));
    }

    /** The study whose compiled matrix is like the synthetic one. */
    private static Study study(Matrix matrix) {
        List<StudyCharacter> characters = new ArrayList<>();
        for (int c = 0; c < matrix.characterCount(); c++) {
            List<StudyCharacter.StudyState> states = IntStream.range(
                            0, matrix.character(c).stateCount())
                    .mapToObj(s -> StudyCharacter.StudyState.of("state " + s))
                    .toList();
            characters.add(StudyCharacter.of("c" + c, matrix.character(c).type(), states)
                    .withOrgan("part " + c % PARTS));
        }
        List<StudyRow> rows = new ArrayList<>();
        List<StudyScore> scores = new ArrayList<>();
        for (int i = 0; i < matrix.rowCount(); i++) {
            rows.add(StudyRow.of("Row " + i).withHazard(matrix.row(i).hazard()));
            for (int c = 0; c < matrix.characterCount(); c++) {
                ScoreValue value = value(matrix.cell(i, c), characters.get(c));
                scores.add(new StudyScore(
                        rows.get(i).id(),
                        characters.get(c).id(),
                        value,
                        NotationPrinter.print(value, characters.get(c)),
                        StudyScore.Basis.JUDGEMENT,
                        "",
                        false,
                        ""));
            }
        }
        return new Study("large", "Large", StudyScope.EMPTY, rows, List.of(), characters, scores);
    }

    private static ScoreValue value(Cell cell, StudyCharacter character) {
        if (cell instanceof Cell.Numeric range) {
            return new ScoreValue.Range(range.min(), range.low(), range.high(), range.max());
        }
        if (!(cell instanceof Cell.Categorical shown)) {
            return new ScoreValue.Unknown();
        }
        List<ScoreValue.Shown> states = new ArrayList<>();
        for (int s = 0; s < character.states().size(); s++) {
            if ((shown.support() & (1 << s)) != 0) {
                states.add(new ScoreValue.Shown(character.states().get(s).id(), ScoreValue.Frequency.PLAIN));
            }
        }
        return new ScoreValue.States(states, ScoreValue.Combination.VARY);
    }

    @Benchmark
    public ImportedStudy readWorkbook() {
        return MatrixFiles.read(workbook, "large.xlsx");
    }

    @Benchmark
    public List<StudyFinding> allChecks() {
        return StudyCheck.of(changed).findings();
    }

    @Benchmark
    public List<StudyFinding> checksAfterOneCell() {
        return checked.after(changed).findings();
    }

    @Benchmark
    public List<DangerReport.Danger> dangers() {
        return DangerReport.of(changed);
    }

    @Benchmark
    public CompiledStudy compileWhole() {
        return StudyCompiler.compile(study);
    }

    @Benchmark
    public CompiledStudy compileOneCell() {
        return StudyCompiler.recompile(compiled, study, scores, Set.of("c0"));
    }
}
