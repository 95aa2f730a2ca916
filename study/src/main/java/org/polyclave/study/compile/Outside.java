package org.polyclave.study.compile;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.polyclave.study.model.OutsideTaxon;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScore;

/**
 * What readers may meet and no key names: what the author lists, the rest of taxa of which only some sexes, stages or parts are
 * scored, and taxa that are not scored at all.
 */
public final class Outside {
    private Outside() {}

    /** Each once, by name. */
    public static List<OutsideTaxon> of(Study study) {
        return of(study, study.scoresByRow());
    }

    /** @param scores of the study, by row and character */
    static List<OutsideTaxon> of(Study study, Map<String, Map<String, StudyScore>> scores) {
        Map<String, OutsideTaxon> found = new LinkedHashMap<>();
        study.nearButOutside().forEach(taxon -> found.put(taxon.name(), taxon));
        HazardTree hazards = new HazardTree(study.rows());
        for (StudyRow row : Targets.leftOut(study.rows(), scores)) {
            found.putIfAbsent(
                    row.name(),
                    new OutsideTaxon(
                            row.name(),
                            "Only some of its sexes, stages or parts are in this key.",
                            hazards.of(study.row(row.id()).orElse(row)).severity()));
        }
        for (Targets.Target target : Targets.of(study.rows(), scores)) {
            if (!target.scored()) {
                String name = target.row().name();
                found.putIfAbsent(
                        name,
                        new OutsideTaxon(
                                name,
                                "It is not scored yet, so it is not in this key.",
                                hazards.of(target.row()).severity()));
            }
        }
        return List.copyOf(found.values());
    }
}
