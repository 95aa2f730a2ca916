package org.polyclave.study.change;

import org.polyclave.study.model.Study;

/**
 * A change of many objects of a study at once, as a pure function: what it would do can be shown before it is done. Objects
 * that it adds get an identifier of their label; it is the caller's task to keep identifiers that were used before out.
 */
public sealed interface StudyOperation
        permits AddTaxa,
                AddCharacters,
                AssessHazards,
                ChangeType,
                ChangeUnit,
                EditCharacters,
                MergeStates,
                SplitState,
                MergeTaxa,
                SplitTaxon,
                ReplaceScores {
    /** The study after the change. Throws {@link Refused} if it cannot be made. */
    Study apply(Study study);
}
