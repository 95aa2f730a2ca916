package org.polyclave.server.operations.web;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.util.Map;
import org.polyclave.server.platform.JsonShapes;
import org.polyclave.study.change.AddCharacters;
import org.polyclave.study.change.AddTaxa;
import org.polyclave.study.change.AssessHazards;
import org.polyclave.study.change.ChangeType;
import org.polyclave.study.change.ChangeUnit;
import org.polyclave.study.change.EditCharacters;
import org.polyclave.study.change.MergeStates;
import org.polyclave.study.change.MergeTaxa;
import org.polyclave.study.change.ReplaceScores;
import org.polyclave.study.change.SplitState;
import org.polyclave.study.change.SplitTaxon;
import org.polyclave.study.change.StudyOperation;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** Requests name the operation that they want. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "operation")
@JsonSubTypes({
    @JsonSubTypes.Type(value = AddTaxa.class, name = "AddTaxa"),
    @JsonSubTypes.Type(value = AddCharacters.class, name = "AddCharacters"),
    @JsonSubTypes.Type(value = AssessHazards.class, name = "AssessHazards"),
    @JsonSubTypes.Type(value = ChangeType.class, name = "ChangeType"),
    @JsonSubTypes.Type(value = EditCharacters.class, name = "EditCharacters"),
    @JsonSubTypes.Type(value = MergeStates.class, name = "MergeStates"),
    @JsonSubTypes.Type(value = SplitState.class, name = "SplitState"),
    @JsonSubTypes.Type(value = MergeTaxa.class, name = "MergeTaxa"),
    @JsonSubTypes.Type(value = SplitTaxon.class, name = "SplitTaxon"),
    @JsonSubTypes.Type(value = ChangeUnit.class, name = "ChangeUnit"),
    @JsonSubTypes.Type(value = ReplaceScores.class, name = "ReplaceScores")
})
interface OperationShape {
    /** Registers it. */
    @Configuration
    class Registration {
        @Bean
        JsonShapes operationShape() {
            return new JsonShapes(Map.of(StudyOperation.class, OperationShape.class));
        }
    }
}
