package org.polyclave.study.change;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import org.polyclave.study.model.Study;

/**
 * A change of many objects of a study at once, as a pure function: what it would do can be shown before it is done. Objects
 * that it adds get an identifier of their label; it is the caller's task to keep identifiers that were used before out.
 */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "operation")
@JsonSubTypes({
    @JsonSubTypes.Type(value = MergeStates.class, name = "MergeStates"),
    @JsonSubTypes.Type(value = SplitState.class, name = "SplitState"),
    @JsonSubTypes.Type(value = MergeTaxa.class, name = "MergeTaxa"),
    @JsonSubTypes.Type(value = SplitTaxon.class, name = "SplitTaxon"),
    @JsonSubTypes.Type(value = ChangeUnit.class, name = "ChangeUnit"),
    @JsonSubTypes.Type(value = ReplaceScores.class, name = "ReplaceScores")
})
public sealed interface StudyOperation
        permits MergeStates, SplitState, MergeTaxa, SplitTaxon, ChangeUnit, ReplaceScores {
    /** The study after the change. Throws {@link Refused} if it cannot be made. */
    Study apply(Study study);
}
