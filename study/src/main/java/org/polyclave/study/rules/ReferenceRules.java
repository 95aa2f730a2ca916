package org.polyclave.study.rules;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.polyclave.study.model.Claim;
import org.polyclave.study.model.GlossaryTerm;
import org.polyclave.study.model.Picture;
import org.polyclave.study.model.Reference;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.Specimen;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyScope;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.notation.Coordinates;
import org.polyclave.study.rules.StudyRules.Violation;

/** What must hold of glossary, references, claims, pictures, specimens, losses and groups of lookalikes. */
public final class ReferenceRules {
    private static final Set<String> QUALIFIERS = Set.of("", "cf.", "aff.");

    private static final double MOST_TIMES = 1000;

    private ReferenceRules() {}

    static void check(Study study, List<Violation> found) {
        checkTerms(study, found);
        checkReferences(study, found);
        checkPictures(study, found);
        for (Claim claim : study.claims()) {
            checkClaim(study, claim, found);
        }
        checkSpecimens(study, found);
        checkLosses(study, found);
        checkLookalikes(study, found);
    }

    private static void checkLookalikes(Study study, List<Violation> found) {
        Set<String> names = new HashSet<>();
        for (StudyScope.Lookalikes group : study.scope().lookalikes()) {
            if (group.name().isBlank() || !names.add(group.name())) {
                found.add(Violation.of("scope", "lookalikes", Rule.LOOKALIKES_WITHOUT_NAME, "group", group.name()));
            }
            if (Set.copyOf(group.rows()).size() < 2) {
                found.add(Violation.of("scope", "lookalikes", Rule.LOOKALIKES_OF_ONE, "group", group.name()));
            }
            for (String row : group.rows()) {
                if (study.row(row).isEmpty()) {
                    found.add(Violation.of(
                            "scope", "lookalikes", Rule.LOOKALIKE_UNKNOWN, "group", group.name(), "row", row));
                }
            }
        }
    }

    private static void checkLosses(Study study, List<Violation> found) {
        Set<String> pairs = new HashSet<>();
        for (StudyScope.Loss loss : study.scope().losses()) {
            for (String row : List.of(loss.row(), loss.named())) {
                if (study.row(row).isEmpty()) {
                    found.add(Violation.of("scope", "losses", Rule.LOSS_UNKNOWN, "row", row));
                }
            }
            if (loss.row().equals(loss.named()) || !pairs.add(loss.row() + '/' + loss.named())) {
                found.add(Violation.of("scope", "losses", Rule.LOSS_PAIR, "row", loss.row(), "named", loss.named()));
            }
            if (!(loss.times() > 0 && loss.times() <= MOST_TIMES)) {
                found.add(Violation.of("scope", "losses", Rule.LOSS_TIMES, "times", loss.times()));
            }
        }
    }

    private static void checkSpecimens(Study study, List<Violation> found) {
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

    private static void checkTerms(Study study, List<Violation> found) {
        Map<String, GlossaryTerm> words = new HashMap<>();
        Set<String> ids = new HashSet<>();
        for (GlossaryTerm term : study.glossary()) {
            String place = "term/" + term.id();
            if (term.term().isBlank()) {
                found.add(Violation.of(place, "term", Rule.TERM_WITHOUT_WORD));
            }
            if (!ids.add(term.id())) {
                found.add(Violation.of(place, "term", Rule.TERM_TWICE, "term", term.id()));
            }
            for (String word : GlossaryIndex.words(term)) {
                GlossaryTerm same = words.putIfAbsent(StudyRules.folded(word), term);
                if (same != null && !same.id().equals(term.id())) {
                    found.add(Violation.of(place, "term", Rule.WORD_TWICE, "word", word, "term", same.term()));
                }
            }
        }
    }

    private static void checkReferences(Study study, List<Violation> found) {
        Set<String> ids = new HashSet<>();
        for (Reference reference : study.references()) {
            String place = "reference/" + reference.id();
            if (reference.citation().isBlank()) {
                found.add(Violation.of(place, "citation", Rule.REFERENCE_WITHOUT_CITATION));
            }
            if (!ids.add(reference.id())) {
                found.add(Violation.of(place, "citation", Rule.REFERENCE_TWICE, "reference", reference.id()));
            }
            if (!reference.doi().isEmpty() && !reference.doi().matches("10\\.\\d{4,9}/\\S+")) {
                found.add(Violation.of(place, "doi", Rule.DOI, "doi", reference.doi()));
            }
        }
    }

    private static void checkPictures(Study study, List<Violation> found) {
        Set<String> ids = new HashSet<>();
        for (Picture picture : study.pictures()) {
            String place = "picture/" + picture.id();
            if (!ids.add(picture.id())) {
                found.add(Violation.of(place, "id", Rule.PICTURE_TWICE, "picture", picture.id()));
            }
            if (picture.shows().isBlank()) {
                found.add(Violation.of(place, "shows", Rule.PICTURE_WITHOUT_WORDS));
            }
            if (!picture.row().isEmpty() && study.row(picture.row()).isEmpty()) {
                found.add(Violation.of(place, "row", Rule.PICTURE_OF_NOTHING, "row", picture.row()));
            }
        }
        for (GlossaryTerm term : study.glossary()) {
            if (!term.picture().isEmpty() && !ids.contains(term.picture())) {
                found.add(Violation.of(
                        "term/" + term.id(),
                        "picture",
                        Rule.TERM_PICTURE,
                        "term",
                        term.term(),
                        "picture",
                        term.picture()));
            }
        }
        for (StudyCharacter character : study.characters()) {
            for (StudyCharacter.StudyState state : character.states()) {
                if (!state.picture().isEmpty() && !ids.contains(state.picture())) {
                    found.add(Violation.of(
                            "character/" + character.id(),
                            "picture",
                            Rule.STATE_PICTURE,
                            "state",
                            state.label(),
                            "character",
                            character.label(),
                            "picture",
                            state.picture()));
                }
            }
        }
    }

    private static void checkClaim(Study study, Claim claim, List<Violation> found) {
        String place = "claim/" + claim.id();
        if (study.row(claim.row()).isEmpty()) {
            found.add(Violation.of(place, "row", Rule.CLAIM_OF_NOTHING, "row", claim.row()));
        }
        var character = study.character(claim.character());
        boolean known = character.isPresent()
                && !claim.states().isEmpty()
                && claim.states().stream().allMatch(s -> character.get().indexOf(s) >= 0);
        if (!known) {
            found.add(Violation.of(place, "states", Rule.CLAIM_WITHOUT_STATES));
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
