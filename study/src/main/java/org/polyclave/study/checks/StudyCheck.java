package org.polyclave.study.checks;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import org.polyclave.core.check.Finding;
import org.polyclave.core.check.MatrixCheck;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyScore;

/**
 * All checks of a study: those of its compiled matrix, by name, and those that need its tree and texts. The same
 * findings in the same order for the same study. Those that compare characters with one another are kept by what they depend
 * on, so that after changed scores only the characters concerned are looked at again, in time linear in rows × characters
 * instead of rows × characters²; sizes, copies and prose are looked at each time.
 */
public final class StudyCheck {
    private final CompiledStudy compiled;
    private final MatrixCheck matrix;
    private final List<StudyFinding> ofTexts;
    /** By character of the compiled study. */
    private final List<List<StudyFinding>> ofColumns;

    private StudyCheck(
            CompiledStudy compiled,
            MatrixCheck matrix,
            List<StudyFinding> ofTexts,
            List<List<StudyFinding>> ofColumns) {
        this.compiled = compiled;
        this.matrix = matrix;
        this.ofTexts = ofTexts;
        this.ofColumns = ofColumns;
    }

    public static StudyCheck of(CompiledStudy compiled) {
        ColumnCheck columns = new ColumnCheck(compiled);
        List<List<StudyFinding>> ofColumns = new ArrayList<>();
        for (int c = 0; c < compiled.characters().size(); c++) {
            ofColumns.add(columns.of(c));
        }
        return new StudyCheck(compiled, MatrixCheck.of(compiled.matrix()), TextCheck.of(compiled), ofColumns);
    }

    /** The check of the same study at another time, from this one where only scores differ. This one stays as it is. */
    public StudyCheck after(CompiledStudy now) {
        boolean alike = compiled.targets().equals(now.targets()) && sameButForScores(compiled.study(), now.study());
        if (!alike) {
            return of(now);
        }
        Set<String> changed = changedCharacters(compiled.scores(), now.scores());
        Set<Integer> scored = changed.stream().map(now::characterIndex).collect(Collectors.toSet());
        ColumnCheck columns = new ColumnCheck(now);
        List<List<StudyFinding>> after = new ArrayList<>(ofColumns);
        for (int c = 0; c < after.size(); c++) {
            StudyCharacter character = now.characters().get(c);
            if (changed.contains(character.id()) || character.ratioOf().stream().anyMatch(changed::contains)) {
                after.set(c, columns.of(c));
            }
        }
        return new StudyCheck(now, matrix.after(now.matrix(), scored), ofTexts, after);
    }

    private static boolean sameButForScores(Study before, Study now) {
        return before.rows().equals(now.rows())
                && before.characters().equals(now.characters())
                && before.glossary().equals(now.glossary())
                && before.claims().equals(now.claims())
                && before.specimens().equals(now.specimens());
    }

    private static Set<String> changedCharacters(
            Map<String, Map<String, StudyScore>> before, Map<String, Map<String, StudyScore>> now) {
        Set<String> rows = new HashSet<>(before.keySet());
        rows.addAll(now.keySet());
        Set<String> changed = new HashSet<>();
        for (String row : rows) {
            Map<String, StudyScore> old = before.getOrDefault(row, Map.of());
            Map<String, StudyScore> current = now.getOrDefault(row, Map.of());
            // Rows that nobody touched are the same object, which is found out at once.
            if (!old.equals(current)) {
                Set<String> characters = new HashSet<>(old.keySet());
                characters.addAll(current.keySet());
                characters.removeIf(c -> Objects.equals(old.get(c), current.get(c)));
                changed.addAll(characters);
            }
        }
        return changed;
    }

    /** All findings, each once; those that do most harm first. */
    public List<StudyFinding> findings() {
        List<StudyFinding> all = new ArrayList<>(DangerCheck.of(compiled));
        all.addAll(ofTexts);
        MatrixNames names = new MatrixNames(compiled);
        for (Finding finding : matrix.findings()) {
            // Of a row of which nothing is known that is said, and not that all of it is unknown.
            boolean said = finding.kind() == Finding.Kind.UNKNOWN_ROW
                    && !compiled.targets().get(finding.row()).scored();
            if (!said) {
                all.add(names.named(finding));
            }
        }
        ofColumns.forEach(all::addAll);
        all.addAll(CoverageCheck.of(compiled));
        all.addAll(GapCheck.of(compiled));
        all.addAll(ReadingCheck.of(compiled));
        all.addAll(SizeCheck.of(compiled));
        all.addAll(CopyCheck.of(compiled));
        all.addAll(ProseCheck.of(compiled));
        Set<String> told = new HashSet<>();
        return all.stream()
                .filter(f -> told.add(f.key()))
                .sorted(Comparator.comparing(StudyFinding::kind))
                .toList();
    }
}
