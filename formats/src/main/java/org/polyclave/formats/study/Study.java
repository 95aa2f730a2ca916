package org.polyclave.formats.study;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * One group of lookalikes with its scope, rows, characters and accepted scores.
 *
 * @param glossary terms that its texts use
 * @param references what its scores cite
 * @param claims statements that its authors make of rows, tested against the matrix
 * @param pictures what states, terms and taxa look like
 * @param opinions scores of further scorers, kept beside the accepted ones; no key reads them
 */
public record Study(
        String slug,
        String title,
        StudyScope scope,
        List<StudyRow> rows,
        List<OutsideTaxon> nearButOutside,
        List<StudyCharacter> characters,
        List<StudyScore> scores,
        List<GlossaryTerm> glossary,
        List<Reference> references,
        List<Claim> claims,
        List<Picture> pictures,
        List<Opinion> opinions) {
    public Study {
        rows = List.copyOf(rows);
        nearButOutside = List.copyOf(nearButOutside);
        characters = List.copyOf(characters);
        scores = List.copyOf(scores);
        glossary = Missing.list(glossary);
        references = Missing.list(references);
        claims = Missing.list(claims);
        pictures = Missing.list(pictures);
        opinions = Missing.list(opinions);
    }

    /** A study without glossary, references, claims, pictures and opinions. */
    public Study(
            String slug,
            String title,
            StudyScope scope,
            List<StudyRow> rows,
            List<OutsideTaxon> nearButOutside,
            List<StudyCharacter> characters,
            List<StudyScore> scores) {
        this(
                slug,
                title,
                scope,
                rows,
                nearButOutside,
                characters,
                scores,
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                List.of());
    }

    public Optional<StudyRow> row(String id) {
        return rows.stream().filter(r -> r.id().equals(id)).findFirst();
    }

    public Optional<StudyCharacter> character(String id) {
        return characters.stream().filter(c -> c.id().equals(id)).findFirst();
    }

    /** Scores by row, then by character. */
    public Map<String, Map<String, StudyScore>> scoresByRow() {
        Map<String, Map<String, StudyScore>> byRow = new LinkedHashMap<>();
        for (StudyScore score : scores) {
            byRow.computeIfAbsent(score.row(), r -> new LinkedHashMap<>()).put(score.character(), score);
        }
        return byRow;
    }

    public Study withRows(List<StudyRow> newRows) {
        return with(newRows, characters, scores, glossary, references, claims, pictures, opinions);
    }

    public Study withCharacters(List<StudyCharacter> newCharacters) {
        return with(rows, newCharacters, scores, glossary, references, claims, pictures, opinions);
    }

    public Study withScores(List<StudyScore> newScores) {
        return with(rows, characters, newScores, glossary, references, claims, pictures, opinions);
    }

    /** The study with one cell scored anew, or emptied. */
    public Study withScore(String row, String character, Optional<StudyScore> score) {
        List<StudyScore> changed = new ArrayList<>();
        for (StudyScore old : scores) {
            if (!(old.row().equals(row) && old.character().equals(character))) {
                changed.add(old);
            }
        }
        score.ifPresent(changed::add);
        return withScores(changed);
    }

    public Study withClaims(List<Claim> newClaims) {
        return withApparatus(glossary, references, newClaims);
    }

    /** The same matrix with other terms, references and claims. */
    public Study withApparatus(List<GlossaryTerm> newGlossary, List<Reference> newReferences, List<Claim> newClaims) {
        return with(rows, characters, scores, newGlossary, newReferences, newClaims, pictures, opinions);
    }

    public Study withPictures(List<Picture> newPictures) {
        return with(rows, characters, scores, glossary, references, claims, newPictures, opinions);
    }

    public Study withOpinions(List<Opinion> newOpinions) {
        return with(rows, characters, scores, glossary, references, claims, pictures, newOpinions);
    }

    /**
     * What may leave the installation: pictures of protected, regulated and quarantine taxa, and those that name no taxon
     * of a study that has such, do not tell where they were taken.
     */
    public Study withoutSensitivePlaces() {
        Set<String> sensitive = new HashSet<>();
        for (int before = -1; before < sensitive.size(); ) {
            before = sensitive.size();
            rows.stream()
                    .filter(r -> r.isSensitive() || (r.parent() != null && sensitive.contains(r.parent())))
                    .forEach(r -> sensitive.add(r.id()));
        }
        return withPictures(pictures.stream()
                .map(p -> sensitive.contains(p.row()) || (p.row().isEmpty() && !sensitive.isEmpty())
                        ? p.withoutPlace()
                        : p)
                .toList());
    }

    private Study with(
            List<StudyRow> newRows,
            List<StudyCharacter> newCharacters,
            List<StudyScore> newScores,
            List<GlossaryTerm> newGlossary,
            List<Reference> newReferences,
            List<Claim> newClaims,
            List<Picture> newPictures,
            List<Opinion> newOpinions) {
        return new Study(
                slug,
                title,
                scope,
                newRows,
                nearButOutside,
                newCharacters,
                newScores,
                newGlossary,
                newReferences,
                newClaims,
                newPictures,
                newOpinions);
    }

    /** The same matrix for another purpose. */
    public Study withScope(StudyScope newScope, List<OutsideTaxon> newOutside) {
        return new Study(
                slug,
                title,
                newScope,
                rows,
                newOutside,
                characters,
                scores,
                glossary,
                references,
                claims,
                pictures,
                opinions);
    }

    /** The same study under another name. */
    public Study named(String newSlug, String newTitle) {
        return new Study(
                newSlug,
                newTitle,
                scope,
                rows,
                nearButOutside,
                characters,
                scores,
                glossary,
                references,
                claims,
                pictures,
                opinions);
    }
}
