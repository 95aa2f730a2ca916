package org.polyclave.study.checks;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.model.RowTree;
import org.polyclave.study.model.Specimen;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;

/**
 * Tests whether specimens can be evidence for a score: not if the character gave them their name, for then the score only
 * says what was put into it, and not if they have been identified as something else since.
 */
final class SpecimenCheck {
    private final CompiledStudy compiled;
    private final RowTree tree;
    private final Map<String, Specimen> specimens = new HashMap<>();

    SpecimenCheck(CompiledStudy compiled) {
        this.compiled = compiled;
        tree = new RowTree(compiled.study().rows());
        compiled.study().specimens().forEach(s -> specimens.put(s.id(), s));
    }

    void of(StudyRow row, StudyCharacter character, List<String> evidence, List<StudyFinding> found) {
        List<String> circular = new ArrayList<>();
        List<Map<String, Object>> elsewhere = new ArrayList<>();
        for (String id : evidence) {
            Specimen specimen = specimens.get(id);
            if (specimen == null) {
                continue;
            }
            if (specimen.isDeterminedBy(character.id())) {
                circular.add(specimen.code());
            }
            if (specimen.present().filter(d -> belongs(d.row(), row)).isEmpty()) {
                elsewhere.add(Map.of(
                        "specimen",
                        specimen.code(),
                        "name",
                        specimen.present().map(this::name).orElse("")));
            }
        }
        if (!circular.isEmpty()) {
            found.add(StudyFinding.of(FindingKind.CIRCULAR_EVIDENCE, row.id(), character.id())
                    .with("row", row.name())
                    .with("character", character.label())
                    .with("specimens", circular));
        }
        if (!elsewhere.isEmpty()) {
            found.add(StudyFinding.of(FindingKind.EVIDENCE_ELSEWHERE, row.id(), character.id())
                    .with("row", row.name())
                    .withEach("specimens", elsewhere));
        }
    }

    private String name(Specimen.Determination determination) {
        String name =
                compiled.study().row(determination.row()).map(StudyRow::name).orElse(determination.row());
        return determination.qualifier().isEmpty() ? name : determination.qualifier() + " " + name;
    }

    /** Whether what is identified as {@code determined} shows what {@code scored} shows: itself, what belongs to it, or its taxon. */
    private boolean belongs(String determined, StudyRow scored) {
        return tree.belongs(determined, scored.id()) || (scored.isSemaphoront() && determined.equals(scored.parent()));
    }
}
