package org.polyclave.formats.study;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.polyclave.formats.study.StudyRules.Violation;

/** What must hold of glossary, references and claims. */
final class StudyApparatusRules {
    private StudyApparatusRules() {}

    static void check(Study study, List<Violation> found) {
        checkTerms(study, found);
        checkReferences(study, found);
        checkPictures(study, found);
        for (Claim claim : study.claims()) {
            checkClaim(study, claim, found);
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
                found.add(new Violation(place, "term", "The term '" + term.id() + "' stands twice in the glossary."));
            }
            for (String word : GlossaryIndex.words(term)) {
                GlossaryTerm same = words.putIfAbsent(StudyRules.folded(word), term);
                if (same != null && !same.id().equals(term.id())) {
                    found.add(new Violation(
                            place,
                            "term",
                            "'" + word + "' stands for '" + same.term() + "' already. A word explains one term only."));
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
                found.add(new Violation(place, "citation", "The reference '" + reference.id() + "' stands twice."));
            }
            if (!reference.doi().isEmpty() && !reference.doi().matches("10\\.\\d{4,9}/\\S+")) {
                found.add(new Violation(
                        place,
                        "doi",
                        "'" + reference.doi() + "' is no DOI. Write it as '10.', a number, a stroke and its suffix."));
            }
        }
    }

    private static void checkPictures(Study study, List<Violation> found) {
        Set<String> ids = new HashSet<>();
        for (Picture picture : study.pictures()) {
            String place = "picture/" + picture.id();
            if (!ids.add(picture.id())) {
                found.add(new Violation(place, "id", "The picture '" + picture.id() + "' stands twice."));
            }
            if (picture.shows().isBlank()) {
                found.add(new Violation(
                        place, "shows", "Say what the picture shows: those who cannot see it read this instead."));
            }
            if (!picture.row().isEmpty() && study.row(picture.row()).isEmpty()) {
                found.add(new Violation(place, "row", "A picture is of '" + picture.row() + "', which is no row."));
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
            found.add(new Violation(place, "row", "A claim is about '" + claim.row() + "', which is no row."));
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
}
