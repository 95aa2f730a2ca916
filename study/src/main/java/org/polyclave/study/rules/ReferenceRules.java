package org.polyclave.study.rules;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.polyclave.study.model.Claim;
import org.polyclave.study.model.GlossaryTerm;
import org.polyclave.study.model.Picture;
import org.polyclave.study.model.Reference;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.rules.StudyRules.Violation;

/** What must hold of glossary, references, claims and pictures. */
final class ReferenceRules {
    private ReferenceRules() {}

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
}
