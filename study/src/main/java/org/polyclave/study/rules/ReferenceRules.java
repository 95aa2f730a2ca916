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
                found.add(new Violation(
                        "scope",
                        "lookalikes",
                        "A group of lookalikes needs a name that no other has, not '" + group.name() + "'."));
            }
            if (Set.copyOf(group.rows()).size() < 2) {
                found.add(new Violation(
                        "scope", "lookalikes", "The lookalikes '" + group.name() + "' need two taxa or more."));
            }
            for (String row : group.rows()) {
                if (study.row(row).isEmpty()) {
                    found.add(new Violation(
                            "scope",
                            "lookalikes",
                            "Among the lookalikes '" + group.name() + "' is '" + row
                                    + "', which is not a taxon. Remove it from the group."));
                }
            }
        }
    }

    private static void checkLosses(Study study, List<Violation> found) {
        Set<String> pairs = new HashSet<>();
        for (StudyScope.Loss loss : study.scope().losses()) {
            for (String row : List.of(loss.row(), loss.named())) {
                if (study.row(row).isEmpty()) {
                    found.add(new Violation(
                            "scope",
                            "losses",
                            "It is said how bad a wrong name is for '" + row
                                    + "', which is not a taxon. Choose another, or remove it."));
                }
            }
            if (loss.row().equals(loss.named()) || !pairs.add(loss.row() + '/' + loss.named())) {
                found.add(new Violation(
                        "scope",
                        "losses",
                        "How bad it is to take '" + loss.row() + "' for '" + loss.named()
                                + "' needs two taxa, and can be given once for each pair."));
            }
            if (!(loss.times() > 0 && loss.times() <= MOST_TIMES)) {
                found.add(new Violation(
                        "scope",
                        "losses",
                        "A wrong name is more than 0 and up to 1,000 times as bad as another, not " + loss.times()
                                + " times."));
            }
        }
    }

    private static void checkSpecimens(Study study, List<Violation> found) {
        Map<String, Specimen> codes = new HashMap<>();
        Set<String> ids = new HashSet<>();
        for (Specimen specimen : study.specimens()) {
            String place = "specimen/" + specimen.id();
            if (specimen.code().isBlank()) {
                found.add(new Violation(place, "code", "A specimen needs the code that is written on its label."));
            } else if (codes.putIfAbsent(StudyRules.folded(specimen.code()), specimen) != null) {
                found.add(new Violation(
                        place,
                        "code",
                        "Two specimens have the code '" + specimen.code()
                                + "'. A handful picked together is several specimens: give each a code of its own."));
            }
            if (!ids.add(specimen.id())) {
                found.add(new Violation(place, "id", "The specimen '" + specimen.id() + "' occurs twice."));
            }
            specimen.determinations().forEach(d -> checkDetermination(study, specimen, d, found));
            checkEvent(specimen, found);
        }
        for (StudyScore score : study.scores()) {
            if (score.sample() != null) {
                sampleProblem(score)
                        .ifPresent(sentence -> found.add(new Violation(
                                "cell/" + score.row() + "/" + score.character(),
                                "sample",
                                "The score of '" + score.row() + "' in '" + score.character() + "': " + sentence)));
            }
            for (String specimen :
                    score.sample() == null ? List.<String>of() : score.sample().specimens()) {
                if (!ids.contains(specimen)) {
                    found.add(new Violation(
                            "cell/" + score.row() + "/" + score.character(),
                            "specimens",
                            "The score of '" + score.row() + "' in '" + score.character() + "' rests on the specimen '"
                                    + specimen + "', which is not in the study. Remove it from the score first."));
                }
            }
        }
    }

    /** What is wrong with the mean and the spread of a score. */
    public static Optional<String> sampleProblem(StudyScore score) {
        StudyScore.Sample sample = score.sample();
        Double mean = sample == null ? null : sample.mean();
        Double sd = sample == null ? null : sample.sd();
        if (mean == null && sd == null) {
            return Optional.empty();
        }
        if (mean == null || sd == null || sample == null || sample.individuals() == null) {
            return Optional.of("mean, standard deviation and the number of individuals say something only together.");
        }
        if (!(score.value() instanceof ScoreValue.Range range)) {
            return Optional.of("a mean belongs to a range.");
        }
        boolean within = mean >= range.min() && (range.max() == null || mean <= range.max());
        if (!within) {
            return Optional.of("the mean lies outside the range. Correct one of the two, or check the unit.");
        }
        return sd >= 0 && Double.isFinite(sd) ? Optional.empty() : Optional.of("a standard deviation is at least 0.");
    }

    private static void checkDetermination(
            Study study, Specimen specimen, Specimen.Determination determination, List<Violation> found) {
        String place = "specimen/" + specimen.id();
        String name = "'" + specimen.code() + "'";
        if (study.row(determination.row()).isEmpty()) {
            found.add(new Violation(
                    place, "row", name + " is determined as '" + determination.row() + "', which is not a row."));
        }
        if (!QUALIFIERS.contains(determination.qualifier())) {
            found.add(new Violation(
                    place,
                    "qualifier",
                    name + ": '" + determination.qualifier()
                            + "' is not a qualifier. Write 'cf.', 'aff.' or nothing."));
        }
        checkDate(specimen, "date", determination.date(), found);
        for (String character : determination.characters()) {
            if (study.character(character).isEmpty()) {
                found.add(new Violation(
                        place,
                        "characters",
                        name + " is determined by '" + character
                                + "', which is not a character. Remove it from the determination first."));
            }
        }
    }

    private static void checkTerms(Study study, List<Violation> found) {
        Map<String, GlossaryTerm> words = new HashMap<>();
        Set<String> ids = new HashSet<>();
        for (GlossaryTerm term : study.glossary()) {
            String place = "term/" + term.id();
            if (term.term().isBlank()) {
                found.add(new Violation(place, "term", "A term of the glossary needs a word."));
            }
            if (!ids.add(term.id())) {
                found.add(new Violation(place, "term", "The term '" + term.id() + "' occurs twice in the glossary."));
            }
            for (String word : GlossaryIndex.words(term)) {
                GlossaryTerm same = words.putIfAbsent(StudyRules.folded(word), term);
                if (same != null && !same.id().equals(term.id())) {
                    found.add(new Violation(
                            place,
                            "term",
                            "'" + word + "' already means '" + same.term() + "'. A word can explain one term only."));
                }
            }
        }
    }

    private static void checkReferences(Study study, List<Violation> found) {
        Set<String> ids = new HashSet<>();
        for (Reference reference : study.references()) {
            String place = "reference/" + reference.id();
            if (reference.citation().isBlank()) {
                found.add(new Violation(place, "citation", "A reference needs its citation."));
            }
            if (!ids.add(reference.id())) {
                found.add(new Violation(place, "citation", "The reference '" + reference.id() + "' occurs twice."));
            }
            if (!reference.doi().isEmpty() && !reference.doi().matches("10\\.\\d{4,9}/\\S+")) {
                found.add(new Violation(
                        place,
                        "doi",
                        "'" + reference.doi()
                                + "' is not a DOI. Write it as '10.', a number, a stroke and its suffix."));
            }
        }
    }

    private static void checkPictures(Study study, List<Violation> found) {
        Set<String> ids = new HashSet<>();
        for (Picture picture : study.pictures()) {
            String place = "picture/" + picture.id();
            if (!ids.add(picture.id())) {
                found.add(new Violation(place, "id", "The picture '" + picture.id() + "' occurs twice."));
            }
            if (picture.shows().isBlank()) {
                found.add(new Violation(
                        place, "shows", "Say what the picture shows: those who cannot see it read this instead."));
            }
            if (!picture.row().isEmpty() && study.row(picture.row()).isEmpty()) {
                found.add(new Violation(place, "row", "A picture is of '" + picture.row() + "', which is not a row."));
            }
        }
        for (GlossaryTerm term : study.glossary()) {
            if (!term.picture().isEmpty() && !ids.contains(term.picture())) {
                found.add(missing("term/" + term.id(), "The term '" + term.term() + "'", term.picture()));
            }
        }
        for (StudyCharacter character : study.characters()) {
            for (StudyCharacter.StudyState state : character.states()) {
                if (!state.picture().isEmpty() && !ids.contains(state.picture())) {
                    String what = "The state '" + state.label() + "' of '" + character.label() + "'";
                    found.add(missing("character/" + character.id(), what, state.picture()));
                }
            }
        }
    }

    private static Violation missing(String place, String what, String picture) {
        return new Violation(
                place,
                "picture",
                what + " shows the picture '" + picture + "', which is not in the study. Choose another.");
    }

    private static void checkClaim(Study study, Claim claim, List<Violation> found) {
        String place = "claim/" + claim.id();
        if (study.row(claim.row()).isEmpty()) {
            found.add(new Violation(place, "row", "A claim is about '" + claim.row() + "', which is not a row."));
        }
        var character = study.character(claim.character());
        boolean known = character.isPresent()
                && !claim.states().isEmpty()
                && claim.states().stream().allMatch(s -> character.get().indexOf(s) >= 0);
        if (!known) {
            found.add(
                    new Violation(
                            place,
                            "states",
                            "A claim is about states of a character of this study. Choose the character and at least one state."));
        }
    }

    private static void checkEvent(Specimen specimen, List<Violation> found) {
        String place = "specimen/" + specimen.id();
        String name = "'" + specimen.code() + "'";
        checkDate(specimen, "event.date", specimen.event().date(), found);
        specimen.treatments().forEach(t -> checkDate(specimen, "treatments.date", t.date(), found));
        String coordinates = specimen.event().coordinates();
        if (!coordinates.isBlank() && Coordinates.parse(coordinates) instanceof Coordinates.Rejected rejected) {
            found.add(new Violation(place, "event.coordinates", name + ": " + rejected.reason()));
        }
        Double uncertainty = specimen.event().uncertainty();
        if (uncertainty != null && !(uncertainty > 0 && Double.isFinite(uncertainty))) {
            found.add(new Violation(
                    place,
                    "event.uncertainty",
                    name + ": coordinates are known to some metres, more than 0, not to " + uncertainty + "."));
        }
    }

    private static void checkDate(Specimen specimen, String field, String date, List<Violation> found) {
        if (!StudyRules.isDate(date)) {
            found.add(new Violation(
                    "specimen/" + specimen.id(),
                    field,
                    "'" + specimen.code() + "': '" + date
                            + "' is not a date. Write year, month and day ('2031-05-04'), or the year alone."));
        }
    }
}
