package org.polyclave.wording.comparison;

import java.util.List;
import org.polyclave.core.diagnosis.Diagnoses;
import org.polyclave.core.diagnosis.Diagnosis;
import org.polyclave.study.comparison.ViewingConditions;
import org.polyclave.study.compile.CompiledStudy;

/** Recognises rows of one study in one hand. */
public final class Recognitions {
    private final CompiledStudy compiled;
    private final ViewingConditions conditions;
    private final ContrastCards cards;
    private final Diagnoses diagnoses;

    public Recognitions(CompiledStudy compiled, ViewingConditions conditions, ContrastCards cards) {
        this.compiled = compiled;
        this.conditions = conditions;
        this.cards = cards;
        diagnoses = new Diagnoses(
                compiled.matrix(), conditions.recognising(compiled), conditions.observer(), Diagnoses.NODES);
    }

    /** By two independent groups where the row or its rival is dangerous, else by one. */
    public Recognition of(int row) {
        Diagnosis found = diagnoses.ofSafely(row);
        List<Recognition.SignView> points =
                found.characters().stream().map(c -> cards.told(row, c)).toList();
        return Recognition.of(compiled, conditions, found, points);
    }
}
