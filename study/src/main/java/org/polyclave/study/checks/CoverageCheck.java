package org.polyclave.study.checks;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.compile.Targets;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyRow.Covers;
import org.polyclave.study.model.StudyRow.Describes;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.notation.NotationPrinter;

/**
 * Finds what the author has not yet said of taxa with parts, sexes or stages: whether these are all there is, what the
 * taxon's own scores describe, and what of it is in no key.
 */
final class CoverageCheck {
    private final CompiledStudy compiled;
    private final Map<String, List<StudyRow>> children = new HashMap<>();
    private final List<StudyFinding> found = new ArrayList<>();

    private CoverageCheck(CompiledStudy compiled) {
        this.compiled = compiled;
        for (StudyRow row : compiled.study().rows()) {
            if (row.parent() != null) {
                children.computeIfAbsent(row.parent(), p -> new ArrayList<>()).add(row);
            }
        }
    }

    static List<StudyFinding> of(CompiledStudy compiled) {
        CoverageCheck check = new CoverageCheck(compiled);
        check.rests();
        check.wholes();
        check.leftOut();
        return check.found;
    }

    private List<StudyRow> childrenOf(StudyRow row) {
        return children.getOrDefault(row.id(), List.of());
    }

    /** Whether its own scores describe the whole taxon, and not only what its children leave of it. */
    static boolean describesWhole(StudyRow row, List<StudyRow> itsChildren) {
        return row.coverage().describes() == Describes.WHOLE
                || (row.coverage().describes() == Describes.BY_KIND
                        && itsChildren.stream().anyMatch(c -> !c.isSemaphoront()));
    }

    private void rests() {
        Set<String> targets = compiled.rows().stream().map(StudyRow::id).collect(Collectors.toCollection(HashSet::new));
        for (StudyRow called : compiled.rows()) {
            StudyRow row = compiled.study().row(called.id()).orElseThrow();
            List<StudyRow> beside = childrenOf(row).stream()
                    .filter(c -> targets.contains(c.id()))
                    .toList();
            if (!beside.isEmpty() && row.coverage().covers() == Covers.BY_RULE) {
                found.add(StudyFinding.of(FindingKind.REST_NOT_CONFIRMED, row.id(), "")
                        .with("row", row.name())
                        .with("children", names(beside))
                        .with("called", called.name()));
            }
        }
    }

    private static List<String> names(List<StudyRow> rows) {
        return rows.stream().map(r -> r.isSemaphoront() ? r.stage() : r.label()).toList();
    }

    /** Of a whole taxon: a state that a child shows, and the rest may not. */
    private void wholes() {
        for (StudyRow called : compiled.rows()) {
            StudyRow row = compiled.study().row(called.id()).orElseThrow();
            if (!childrenOf(row).isEmpty() && describesWhole(row, childrenOf(row))) {
                for (StudyCharacter character : compiled.characters()) {
                    whole(row, called, character);
                }
            }
        }
    }

    private void whole(StudyRow row, StudyRow called, StudyCharacter character) {
        Set<String> own = shown(row, character);
        for (StudyRow child : own.size() < 2 ? List.<StudyRow>of() : childrenOf(row)) {
            Set<String> its = shown(child, character);
            if (!its.isEmpty() && own.containsAll(its) && own.size() > its.size()) {
                found.add(StudyFinding.of(FindingKind.WHOLE_OR_REST, row.id(), character.id(), child.id())
                        .with("row", row.name())
                        .with("value", printed(row, character))
                        .with("character", character.label())
                        .with("child", child.name())
                        .with("childValue", printed(child, character))
                        .with("called", called.name()));
            }
        }
    }

    private Set<String> shown(StudyRow row, StudyCharacter character) {
        StudyScore score = compiled.scores().getOrDefault(row.id(), Map.of()).get(character.id());
        return score != null && score.value() instanceof ScoreValue.States states
                ? states.shown().stream()
                        .filter(s -> s.frequency() != ScoreValue.Frequency.MISTAKEN)
                        .map(ScoreValue.Shown::state)
                        .collect(Collectors.toSet())
                : Set.of();
    }

    private String printed(StudyRow row, StudyCharacter character) {
        StudyScore score = compiled.scores().getOrDefault(row.id(), Map.of()).get(character.id());
        return score == null ? "" : NotationPrinter.print(score.value(), character);
    }

    private void leftOut() {
        for (StudyRow row : Targets.leftOut(compiled.study().rows(), compiled.scores())) {
            found.add(StudyFinding.of(FindingKind.REST_NOT_SCORED, row.id(), "")
                    .with("taxon", row.label())
                    .with("row", row.name()));
        }
        for (StudyRow row : compiled.unscored()) {
            found.add(StudyFinding.of(FindingKind.NOT_SCORED, row.id(), "").with("row", row.name()));
        }
    }
}
