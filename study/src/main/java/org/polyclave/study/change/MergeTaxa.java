package org.polyclave.study.change;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.polyclave.study.model.RowTree;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.ScoreValue.Combination;
import org.polyclave.study.model.ScoreValue.Shown;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyRow.Names;
import org.polyclave.study.model.StudyRow.Synonym;
import org.polyclave.study.model.StudyScope;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.notation.NotationPrinter;

/**
 * A taxon becomes part of another: its name a synonym, its children, hybrids, claims and specimens the other's. Where both are scored,
 * the score admits what either shows, and is doubtful unless both said the same.
 */
public record MergeTaxa(String from, String into) implements StudyOperation {
    @Override
    public Study apply(Study study) {
        StudyRow gone = Parts.row(study, from);
        StudyRow kept = Parts.row(study, into);
        if (from.equals(into)) {
            throw new Refused("Choose two different taxa.");
        }
        if (gone.isSemaphoront() != kept.isSemaphoront()) {
            throw new Refused("A taxon cannot be merged with a sex or stage.");
        }
        if (new RowTree(study.rows()).belongs(into, from)) {
            throw new Refused("'" + kept.name() + "' belongs to '" + gone.name()
                    + "'. Merge the other way round, or move it first.");
        }
        List<StudyRow> rows = new ArrayList<>();
        for (StudyRow row : study.rows()) {
            if (row.id().equals(into)) {
                rows.add(withName(row, gone));
            } else if (!row.id().equals(from)) {
                StudyRow moved = from.equals(row.parent()) ? row.withParent(into) : row;
                moved = moved.isSemaphoront() && into.equals(moved.parent()) ? moved.withLabel(kept.label()) : moved;
                rows.add(moved.withHybridOf(Parts.mapped(moved.hybridOf(), h -> h.equals(from) ? into : h)));
            }
        }
        return study.withRows(rows)
                .withScope(study.scope().withPairs(losses(study), lookalikes(study)), study.nearButOutside())
                .withCharacters(Parts.mapped(study.characters(), this::trusted))
                .withScores(scores(study))
                .withClaims(Parts.mapped(study.claims(), c -> c.row().equals(from) ? c.withRow(into) : c))
                .withSpecimens(Parts.mapped(
                        study.specimens(), s -> s.determined(d -> d.row().equals(from) ? d.withRow(into) : d)));
    }

    private List<StudyScope.Loss> losses(Study study) {
        Map<String, StudyScope.Loss> byPair = new LinkedHashMap<>();
        for (StudyScope.Loss loss : study.scope().losses()) {
            String row = loss.row().equals(from) ? into : loss.row();
            String named = loss.named().equals(from) ? into : loss.named();
            if (!row.equals(named)) {
                byPair.merge(
                        row + '/' + named,
                        new StudyScope.Loss(row, named, loss.times(), loss.why()),
                        (a, b) -> a.times() >= b.times() ? a : b);
            }
        }
        return List.copyOf(byPair.values());
    }

    /** A group that only the two were in is none any more. */
    private List<StudyScope.Lookalikes> lookalikes(Study study) {
        return study.scope().lookalikes().stream()
                .map(g -> new StudyScope.Lookalikes(
                        g.name(),
                        g.rows().stream()
                                .map(r -> r.equals(from) ? into : r)
                                .distinct()
                                .toList(),
                        g.note()))
                .filter(g -> g.rows().size() > 1)
                .toList();
    }

    /** Rates of the taxon that is gone become the other's, unless that has its own. */
    private StudyCharacter trusted(StudyCharacter character) {
        StudyCharacter.Trust trust = character.trust();
        boolean own = trust.groups().stream().anyMatch(g -> g.row().equals(into));
        List<StudyCharacter.InGroup> groups = new ArrayList<>();
        for (StudyCharacter.InGroup group : trust.groups()) {
            if (!group.row().equals(from)) {
                groups.add(group);
            } else if (!own) {
                groups.add(group.withRow(into));
            }
        }
        return groups.equals(trust.groups())
                ? character
                : character.withTrust(new StudyCharacter.Trust(trust.novice(), trust.origin(), groups));
    }

    private static StudyRow withName(StudyRow kept, StudyRow gone) {
        if (kept.isSemaphoront()) {
            return kept;
        }
        List<Synonym> synonyms = new ArrayList<>(kept.names().synonyms());
        synonyms.add(new Synonym(gone.label(), gone.names().authorship(), false, ""));
        synonyms.addAll(gone.names().synonyms());
        List<StudyRow.Vernacular> vernacular = new ArrayList<>(kept.names().vernacular());
        gone.names().vernacular().stream().filter(v -> !vernacular.contains(v)).forEach(vernacular::add);
        StudyRow named = kept.withNames(new Names(kept.names().authorship(), synonyms, vernacular));
        boolean worse = gone.hazard().compareTo(kept.hazard()) > 0;
        List<StudyRow.HazardRecord> hazards = new ArrayList<>(kept.hazards());
        gone.hazards().stream().filter(h -> !hazards.contains(h)).forEach(hazards::add);
        return named.withHazards(worse ? gone.hazard() : kept.hazard(), hazards);
    }

    private List<StudyScore> scores(Study study) {
        Map<String, StudyCharacter> characters = new HashMap<>();
        study.characters().forEach(c -> characters.put(c.id(), c));
        Map<String, StudyScore> ofGone = new LinkedHashMap<>();
        study.scores().stream().filter(s -> s.row().equals(from)).forEach(s -> ofGone.put(s.character(), s));
        List<StudyScore> scores = new ArrayList<>();
        for (StudyScore score : study.scores()) {
            if (score.row().equals(into)) {
                StudyScore other = ofGone.remove(score.character());
                StudyCharacter character = java.util.Objects.requireNonNull(characters.get(score.character()));
                scores.add(other == null ? score : both(score, other, character));
            } else if (!score.row().equals(from)) {
                scores.add(score);
            }
        }
        ofGone.values().forEach(s -> scores.add(s.withRow(into)));
        return scores;
    }

    private static StudyScore both(StudyScore kept, StudyScore gone, StudyCharacter character) {
        if (kept.value().equals(gone.value())) {
            return kept;
        }
        ScoreValue value = union(kept.value(), gone.value());
        return kept.withValue(value, NotationPrinter.print(value, character)).withDoubt(true);
    }

    /** What either says; a special score says less than any other. */
    static ScoreValue union(ScoreValue a, ScoreValue b) {
        if (a instanceof ScoreValue.Range p && b instanceof ScoreValue.Range q) {
            boolean open = p.high() == null || q.high() == null || p.max() == null || q.max() == null;
            return new ScoreValue.Range(
                    Math.min(p.min(), q.min()),
                    Math.min(p.low(), q.low()),
                    open ? null : Math.max(or0(p.high()), or0(q.high())),
                    open ? null : Math.max(or0(p.max()), or0(q.max())));
        }
        if (a instanceof ScoreValue.Months p && b instanceof ScoreValue.Months q) {
            var months = new java.util.TreeSet<>(p.months());
            months.addAll(q.months());
            return new ScoreValue.Months(List.copyOf(months));
        }
        if (a instanceof ScoreValue.States p && b instanceof ScoreValue.States q) {
            List<Shown> shown = new ArrayList<>(p.shown());
            for (Shown one : q.shown()) {
                if (shown.stream().noneMatch(s -> s.state().equals(one.state()))) {
                    shown.add(one);
                }
            }
            return new ScoreValue.States(shown, Combination.VARY);
        }
        return a instanceof ScoreValue.Unknown || a instanceof ScoreValue.Any ? b : a;
    }

    private static double or0(@org.jspecify.annotations.Nullable Double number) {
        return number == null ? 0 : number;
    }
}
