package org.polyclave.study.change;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.polyclave.study.model.Slug;
import org.polyclave.study.model.Specimen;
import org.polyclave.study.model.Specimen.Determination;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScore;

/**
 * One taxon becomes several. The first keeps the identifier, the parts of the old one, and what points at it. Each score goes
 * to the taxa that it is assigned to; what is not assigned is copied to all of them and left doubtful.
 *
 * @param into names of the new taxa, at least two
 * @param assigned by character, the names that the score goes to
 * @param specimens by specimen, the name that it gets; one that nobody names is doubtfully the first taxon
 */
public record SplitTaxon(
        String row, List<String> into, Map<String, List<String>> assigned, Map<String, String> specimens)
        implements StudyOperation {
    public SplitTaxon {
        into = List.copyOf(into);
        assigned = Map.copyOf(assigned);
        specimens = specimens == null ? Map.of() : Map.copyOf(specimens);
    }

    @Override
    public Study apply(Study study) {
        StudyRow old = Parts.row(study, row);
        if (old.isSemaphoront()) {
            throw new Refused("Split the taxon, not one of its sexes or stages.");
        }
        Map<String, StudyRow> taxa = taxa(study, old);
        if (taxa.size() < 2) {
            throw new Refused("Name at least two taxa for '" + old.name() + "'.");
        }
        String first = taxa.values().iterator().next().label();
        List<StudyRow> rows = new ArrayList<>();
        for (StudyRow one : study.rows()) {
            if (one.id().equals(row)) {
                rows.addAll(taxa.values());
            } else {
                rows.add(one.isSemaphoront() && row.equals(one.parent()) ? one.withLabel(first) : one);
            }
        }
        List<StudyScore> scores = new ArrayList<>();
        for (StudyScore score : study.scores()) {
            if (score.row().equals(row)) {
                scores.addAll(shared(score, taxa));
            } else {
                scores.add(score);
            }
        }
        return study.withRows(rows)
                .withScores(scores)
                .withSpecimens(Parts.mapped(study.specimens(), s -> named(s, old, taxa)));
    }

    /** What was named after the old taxon is named again; the earlier name stays in its history. */
    private Specimen named(Specimen specimen, StudyRow old, Map<String, StudyRow> taxa) {
        if (specimen.present().filter(d -> d.row().equals(row)).isEmpty()) {
            return specimen;
        }
        String name = specimens.getOrDefault(specimen.id(), "").strip();
        StudyRow taxon = name.isEmpty() ? taxa.values().iterator().next() : taxa.get(name);
        if (taxon == null) {
            throw new Refused("'" + name + "' is not one of the new taxa.");
        }
        Determination last = specimen.present().orElseThrow();
        if (taxon.id().equals(row) && !name.isEmpty()) {
            return specimen;
        }
        String qualifier = name.isEmpty() ? "cf." : last.qualifier();
        return specimen.with(new Determination(
                taxon.id(),
                qualifier,
                Specimen.Kind.DETERMINED,
                "",
                "",
                "'" + old.name() + "' was split",
                last.characters()));
    }

    private Map<String, StudyRow> taxa(Study study, StudyRow old) {
        Map<String, StudyRow> taxa = new LinkedHashMap<>();
        Set<String> taken = study.rows().stream().map(StudyRow::id).collect(Collectors.toSet());
        for (String text : into) {
            String label = Parts.label(text, "A taxon");
            String id = taxa.isEmpty() ? old.id() : Slug.unused(Slug.of(label, "taxon"), i -> !taken.add(i));
            if (taxa.putIfAbsent(label, old.withId(id).withLabel(label)) != null) {
                throw new Refused("'" + label + "' is named twice.");
            }
        }
        return taxa;
    }

    private List<StudyScore> shared(StudyScore score, Map<String, StudyRow> taxa) {
        List<String> to = assigned.getOrDefault(score.character(), List.of());
        if (to.isEmpty()) {
            return taxa.values().stream()
                    .map(t -> score.withRow(t.id()).withDoubt(true))
                    .toList();
        }
        List<StudyScore> scores = new ArrayList<>();
        for (String name : to) {
            StudyRow taxon = taxa.get(name.strip());
            if (taxon == null) {
                throw new Refused("'" + name + "' is not one of the new taxa.");
            }
            scores.add(score.withRow(taxon.id()));
        }
        return scores;
    }
}
