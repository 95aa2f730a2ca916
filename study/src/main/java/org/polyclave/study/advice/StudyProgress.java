package org.polyclave.study.advice;

import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixRow;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.compile.Inheritance;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyRow;

/**
 * Honest numbers of how far a study is.
 *
 * @param taxa names; the sexes and stages of a taxon have one
 * @param notAssessed rows of which it is not known whether they harm
 * @param withoutQuestion characters that readers could not be asked about
 * @param scored cells that say something, inherited or not; what a hybrid gets from its parents is nobody's score
 * @param cells all there are
 * @param taxaInKeys names that a key can end at
 */
public record StudyProgress(
        int taxa,
        int notAssessed,
        int characters,
        int withoutQuestion,
        int scored,
        int cells,
        int taxaInKeys,
        int editions) {

    /** Time and memory O(rows × characters). */
    public static StudyProgress of(CompiledStudy compiled, int editions) {
        Study study = compiled.study();
        Inheritance inheritance = new Inheritance(study.rows(), compiled.scores());
        int notAssessed = 0;
        int scored = 0;
        Matrix matrix = compiled.matrix();
        for (int i = 0; i < matrix.rowCount(); i++) {
            StudyRow row = compiled.rows().get(i);
            notAssessed += row.hazard() == Hazard.NOT_ASSESSED ? 1 : 0;
            for (int c = 0; c < matrix.characterCount(); c++) {
                boolean known = !(matrix.cell(i, c) instanceof Cell.Unknown);
                boolean own = row.hybridOf().isEmpty()
                        || inheritance
                                .effective(row.id(), study.characters().get(c).id())
                                .isPresent();
                scored += known && own ? 1 : 0;
            }
        }
        int withoutQuestion = (int) study.characters().stream()
                .filter(c -> c.question().isBlank() && c.type() != CharacterType.MONTHS)
                .count();
        return new StudyProgress(
                names(compiled),
                notAssessed,
                study.characters().size(),
                withoutQuestion,
                scored,
                compiled.rows().size() * study.characters().size(),
                names(compiled.scoredOnly()),
                editions);
    }

    private static int names(CompiledStudy compiled) {
        return (int) compiled.matrix().rows().stream()
                .mapToInt(MatrixRow::name)
                .distinct()
                .count();
    }

    public StudyProgress withEditions(int count) {
        return new StudyProgress(taxa, notAssessed, characters, withoutQuestion, scored, cells, taxaInKeys, count);
    }

    /** The same for who scores blind: nothing of what others scored, not even how much. */
    public StudyProgress withoutScores() {
        return new StudyProgress(taxa, notAssessed, characters, withoutQuestion, 0, 0, taxa, editions);
    }
}
