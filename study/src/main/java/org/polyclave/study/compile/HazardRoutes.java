package org.polyclave.study.compile;

import java.util.List;
import java.util.Locale;
import org.polyclave.core.matrix.Harm;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.study.model.StudyRow;

/** By which ways a taxon harms, from its recorded hazards. */
final class HazardRoutes {
    private HazardRoutes() {}

    static Harm of(StudyRow row) {
        Harm harm = Harm.NONE;
        for (StudyRow.HazardRecord record : row.hazards()) {
            harm = harm.and(of(record));
        }
        // The severity of a row may be worse than its records say, and then its ways are not known.
        Hazard worst = row.hazards().stream()
                .map(StudyRow.HazardRecord::severity)
                .max(Hazard::compareTo)
                .orElse(Hazard.NOT_ASSESSED);
        return row.hazards().isEmpty() || row.hazard().compareTo(worst) > 0 ? harm.and(Harm.of(row.hazard())) : harm;
    }

    private static Harm of(StudyRow.HazardRecord record) {
        if (record.severity() == Hazard.NONE_KNOWN) {
            return Harm.NONE;
        }
        String kind = record.kind().toLowerCase(Locale.ROOT);
        boolean attacks = kind.matches(".*\\b(venom\\w*|bites?|stings?)\\b.*");
        int routes = record.routes().isEmpty() ? Harm.ALL : routes(record.routes());
        return record.severity() == Hazard.CAUTION ? new Harm(attacks, 0, routes) : new Harm(attacks, routes, 0);
    }

    private static int routes(List<String> named) {
        int routes = 0;
        for (String name : named) {
            routes |= switch (name.strip().toLowerCase(Locale.ROOT)) {
                case "eating" -> Harm.EATING;
                case "skin", "eyes" -> Harm.SKIN;
                case "breathing" -> Harm.BREATHING;
                default -> Harm.ALL;
            };
        }
        return routes;
    }
}
