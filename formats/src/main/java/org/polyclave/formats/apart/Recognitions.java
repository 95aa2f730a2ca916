package org.polyclave.formats.apart;

import java.util.List;
import org.polyclave.core.separation.Diagnoses;
import org.polyclave.core.separation.Diagnosis;
import org.polyclave.formats.study.CompiledStudy;

/** Recognises rows of one study in one hand. */
public final class Recognitions {
    private final CompiledStudy compiled;
    private final Hand hand;
    private final ContrastCards cards;
    private final Diagnoses diagnoses;

    public Recognitions(CompiledStudy compiled, Hand hand, ContrastCards cards) {
        this.compiled = compiled;
        this.hand = hand;
        this.cards = cards;
        diagnoses = new Diagnoses(compiled.matrix(), hand.recognising(compiled), hand.observer(), Diagnoses.NODES);
    }

    /** Dangerous rows by two independent groups, others by one. */
    public Recognition of(int row) {
        int fold = compiled.matrix().row(row).hazard().isDangerous() ? 2 : 1;
        Diagnosis found = diagnoses.of(row, fold);
        List<Recognition.SignView> points =
                found.characters().stream().map(c -> cards.told(row, c)).toList();
        return Recognition.of(compiled, hand, found, fold, points);
    }
}
