package org.polyclave.study.rules;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.Specimen;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.notation.Coordinates;
import org.polyclave.study.rules.StudyRules.Violation;

/** What must hold of specimens, and of what scores say they rest on. */
public final class SpecimenRules {
    private SpecimenRules() {}

    private static final Set<String> QUALIFIERS = Set.of("", "cf.", "aff.");

    static void check(Study study, List<Violation> found) {
        Map<String, Specimen> codes = new HashMap<>();
        Set<String> ids = new HashSet<>();
        for (Specimen specimen : study.specimens()) {
            String place = "specimen/" + specimen.id();
            if (specimen.code().isBlank()) {
                found.add(Violation.of(place, "code", Rule.SPECIMEN_WITHOUT_CODE));
            } else if (codes.putIfAbsent(StudyRules.folded(specimen.code()), specimen) != null) {
                found.add(Violation.of(place, "code", Rule.SPECIMENS_OF_ONE_CODE, "code", specimen.code()));
            }
            if (!ids.add(specimen.id())) {
                found.add(Violation.of(place, "id", Rule.SPECIMEN_TWICE, "specimen", specimen.id()));
            }
            specimen.determinations().forEach(d -> checkDetermination(study, specimen, d, found));
            checkEvent(specimen, found);
        }
        for (StudyScore score : study.scores()) {
            sampleProblem(score).ifPresent(found::add);
            for (String specimen :
                    score.sample() == null ? List.<String>of() : score.sample().specimens()) {
                if (!ids.contains(specimen)) {
                    found.add(Violation.of(
                            "cell/" + score.row() + "/" + score.character(),
                            "specimens",
                            Rule.SCORE_OF_UNKNOWN_SPECIMEN,
                            "row",
                            score.row(),
                            "character",
                            score.character(),
                            "specimen",
                            specimen));
                }
            }
        }
    }

    /** What is wrong with the mean and the spread of a score. */
    public static Optional<Violation> sampleProblem(StudyScore score) {
        return brokenSample(score)
                .map(rule -> Violation.of(
                        "cell/" + score.row() + "/" + score.character(),
                        "sample",
                        rule,
                        "row",
                        score.row(),
                        "character",
                        score.character()));
    }

    private static Optional<Rule> brokenSample(StudyScore score) {
        StudyScore.Sample sample = score.sample();
        Double mean = sample == null ? null : sample.mean();
        Double sd = sample == null ? null : sample.sd();
        if (mean == null && sd == null) {
            return Optional.empty();
        }
        if (mean == null || sd == null || sample == null || sample.individuals() == null) {
            return Optional.of(Rule.SAMPLE_INCOMPLETE);
        }
        if (!(score.value() instanceof ScoreValue.Range range)) {
            return Optional.of(Rule.SAMPLE_OF_NO_RANGE);
        }
        boolean within = mean >= range.min() && (range.max() == null || mean <= range.max());
        if (!within) {
            return Optional.of(Rule.SAMPLE_MEAN);
        }
        return sd >= 0 && Double.isFinite(sd) ? Optional.empty() : Optional.of(Rule.SAMPLE_SD);
    }

    private static void checkDetermination(
            Study study, Specimen specimen, Specimen.Determination determination, List<Violation> found) {
        String place = "specimen/" + specimen.id();
        if (study.row(determination.row()).isEmpty()) {
            found.add(Violation.of(
                    place, "row", Rule.DETERMINED_AS_NOTHING, "code", specimen.code(), "row", determination.row()));
        }
        if (!QUALIFIERS.contains(determination.qualifier())) {
            found.add(Violation.of(
                    place,
                    "qualifier",
                    Rule.QUALIFIER,
                    "code",
                    specimen.code(),
                    "qualifier",
                    determination.qualifier()));
        }
        checkDate(specimen, "date", determination.date(), found);
        for (String character : determination.characters()) {
            if (study.character(character).isEmpty()) {
                found.add(Violation.of(
                        place,
                        "characters",
                        Rule.DETERMINED_BY_NOTHING,
                        "code",
                        specimen.code(),
                        "character",
                        character));
            }
        }
    }

    private static void checkEvent(Specimen specimen, List<Violation> found) {
        String place = "specimen/" + specimen.id();
        checkDate(specimen, "event.date", specimen.event().date(), found);
        specimen.treatments().forEach(t -> checkDate(specimen, "treatments.date", t.date(), found));
        String coordinates = specimen.event().coordinates();
        if (!coordinates.isBlank() && Coordinates.parse(coordinates) instanceof Coordinates.Rejected rejected) {
            found.add(Violation.of(
                    place,
                    "event.coordinates",
                    Rule.COORDINATES,
                    "code",
                    specimen.code(),
                    "reason",
                    rejected.reason()));
        }
        Double uncertainty = specimen.event().uncertainty();
        if (uncertainty != null && !(uncertainty > 0 && Double.isFinite(uncertainty))) {
            found.add(Violation.of(
                    place,
                    "event.uncertainty",
                    Rule.COORDINATE_UNCERTAINTY,
                    "code",
                    specimen.code(),
                    "uncertainty",
                    uncertainty));
        }
    }

    private static void checkDate(Specimen specimen, String field, String date, List<Violation> found) {
        if (!StudyRules.isDate(date)) {
            found.add(Violation.of(
                    "specimen/" + specimen.id(), field, Rule.SPECIMEN_DATE, "code", specimen.code(), "date", date));
        }
    }
}
