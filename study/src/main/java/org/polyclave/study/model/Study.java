package org.polyclave.study.model;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * One group of lookalikes with its scope, rows, characters and accepted scores.
 *
 * @param glossary terms that its texts use
 * @param references what its scores cite
 * @param claims statements that its authors make of rows, tested against the matrix
 * @param pictures what states, terms and taxa look like
 * @param opinions scores of further scorers, kept beside the accepted ones; no key reads them
 * @param specimens individuals on which scores rest
 * @param readings what was read of them
 */
@RecordBuilder
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
        List<Opinion> opinions,
        List<Specimen> specimens,
        List<Reading> readings)
        implements StudyBuilder.With {
    public Study {
        rows = List.copyOf(rows);
        nearButOutside = List.copyOf(nearButOutside);
        characters = List.copyOf(characters);
        scores = List.copyOf(scores);
        glossary = Defaults.list(glossary);
        references = Defaults.list(references);
        claims = Defaults.list(claims);
        pictures = Defaults.list(pictures);
        opinions = Defaults.list(opinions);
        specimens = Defaults.list(specimens);
        readings = Defaults.list(readings);
    }

    /** A study of a matrix and nothing else. */
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

    /** The study with another score in one cell, or none. */
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

    /**
     * What may leave the installation: pictures of protected, regulated and quarantine taxa, and those that name no taxon
     * of a study that has such, do not tell where they were taken, nor do notes of their specimens.
     */
    public Study withoutSensitivePlaces() {
        RowTree tree = new RowTree(rows);
        Set<String> sensitive = rows.stream()
                .map(StudyRow::id)
                .filter(id -> tree.upward(id).stream().anyMatch(StudyRow::isSensitive))
                .collect(Collectors.toSet());
        return withPictures(pictures.stream()
                        .map(p -> sensitive.contains(p.row()) || (p.row().isEmpty() && !sensitive.isEmpty())
                                ? p.withoutPlace()
                                : p)
                        .toList())
                .withSpecimens(specimens.stream()
                        .map(s -> mayTellPlace(s, sensitive) ? s.withoutPlace() : s)
                        .toList())
                .withReadings(withoutNotes(specimens.stream()
                        .filter(s -> mayTellPlace(s, sensitive))
                        .map(Specimen::id)
                        .collect(Collectors.toSet())));
    }

    private List<Reading> withoutNotes(Set<String> of) {
        return readings.stream()
                .map(r -> of.contains(r.specimen()) ? r.standing(r.standing(), "") : r)
                .toList();
    }

    /** Whether a specimen is identified as a sensitive taxon, once was, or might be one. */
    private static boolean mayTellPlace(Specimen specimen, Set<String> sensitive) {
        return !sensitive.isEmpty()
                && (specimen.determinations().isEmpty()
                        || specimen.determinations().stream().anyMatch(d -> sensitive.contains(d.row())));
    }

    /** What readers of an edition get: no specimens, whose labels tell of people and places, nor what was read of them. */
    public Study withoutSpecimens() {
        return withSpecimens(List.of())
                .withReadings(List.of())
                .withPictures(pictures.stream()
                        .filter(p -> p.specimen().isEmpty() || isShown(p.id()))
                        .map(Picture::withoutSpecimen)
                        .toList())
                .withScores(scores.stream()
                        .map(s -> s.sample() == null || s.sample().specimens().isEmpty()
                                ? s
                                : s.withSample(s.sample().withoutSpecimens()))
                        .toList());
    }

    /** Whether a state or a term shows a picture. */
    private boolean isShown(String picture) {
        return glossary.stream().anyMatch(t -> t.picture().equals(picture))
                || characters.stream()
                        .flatMap(c -> c.states().stream())
                        .anyMatch(s -> s.picture().equals(picture));
    }

    /** The same matrix for another purpose. */
    public Study withScope(StudyScope newScope, List<OutsideTaxon> newOutside) {
        return with().scope(newScope).nearButOutside(newOutside).build();
    }

    /** The same study under another name. */
    public Study named(String newSlug, String newTitle) {
        return with().slug(newSlug).title(newTitle).build();
    }
}
