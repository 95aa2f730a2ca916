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
 * says what was put into it, and not if they are held to be something else by now.
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
        List<String> elsewhere = new ArrayList<>();
        for (String id : evidence) {
            Specimen specimen = specimens.get(id);
            if (specimen == null) {
                continue;
            }
            if (specimen.isDeterminedBy(character.id())) {
                circular.add("'" + specimen.code() + "'");
            }
            if (specimen.present().filter(d -> belongs(d.row(), row)).isEmpty()) {
                elsewhere.add("'" + specimen.code() + "' ("
                        + specimen.present().map(this::name).orElse("not determined") + ")");
            }
        }
        if (!circular.isEmpty()) {
            found.add(new StudyFinding(
                    "circular-evidence",
                    row.id(),
                    character.id(),
                    "",
                    "'" + character.label() + "' was used to name " + String.join(", ", circular) + ": "
                            + (circular.size() == 1 ? "it is" : "they are") + " no evidence for what '" + row.name()
                            + "' shows in it. Name them by other features, or rest the score on other specimens."));
        }
        if (!elsewhere.isEmpty()) {
            found.add(new StudyFinding(
                    "evidence-elsewhere",
                    row.id(),
                    character.id(),
                    "",
                    "This score of '" + row.name() + "' rests on specimens that are not held to be it: "
                            + String.join(", ", elsewhere) + ". Look at the score again without them."));
        }
    }

    private String name(Specimen.Determination determination) {
        String name =
                compiled.study().row(determination.row()).map(StudyRow::name).orElse(determination.row());
        return determination.qualifier().isEmpty() ? name : determination.qualifier() + " " + name;
    }

    /** Whether what is held to be {@code determined} shows what {@code scored} shows: itself, what belongs to it, or its taxon. */
    private boolean belongs(String determined, StudyRow scored) {
        return tree.belongs(determined, scored.id()) || (scored.isSemaphoront() && determined.equals(scored.parent()));
    }
}
