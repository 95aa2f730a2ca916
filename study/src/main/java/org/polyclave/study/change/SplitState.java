package org.polyclave.study.change;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.ScoreValue.Combination;
import org.polyclave.study.model.ScoreValue.Shown;
import org.polyclave.study.model.Slug;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyCharacter.AppliesWhen;
import org.polyclave.study.model.StudyCharacter.StudyState;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.notation.NotationPrinter;

/**
 * One state becomes several. The first keeps the identifier, so that what points at it still does; dependencies name all of
 * them. A score follows where its row is assigned; one that is not assigned could be any of them, and becomes doubtful.
 *
 * @param into labels of the new states, at least two
 * @param assigned by row, the labels that its score goes to
 */
public record SplitState(String character, String state, List<String> into, Map<String, List<String>> assigned)
        implements StudyOperation {
    public SplitState {
        into = List.copyOf(into);
        assigned = Map.copyOf(assigned);
    }

    @Override
    public Study apply(Study study) {
        StudyCharacter old = Parts.character(study, character);
        StudyState split = Parts.state(old, state);
        Map<String, String> ids = identifiers(old, split);
        if (ids.size() < 2) {
            throw new Refused("Name at least two different states for '" + split.label() + "'.");
        }
        StudyCharacter now = old.withStates(states(old, split, ids));
        return study.withCharacters(Parts.mapped(
                        study.characters(),
                        c -> c.id().equals(character)
                                ? now
                                : c.withConditions(Parts.mapped(c.appliesWhen(), a -> condition(a, ids)))))
                .withScores(Parts.mapped(study.scores(), s -> score(s, ids, now)));
    }

    /** By label, the identifier of each new state. */
    private Map<String, String> identifiers(StudyCharacter old, StudyState split) {
        Map<String, String> ids = new LinkedHashMap<>();
        Set<String> taken = new LinkedHashSet<>();
        old.states().forEach(s -> taken.add(s.id()));
        for (String text : into) {
            String label = Parts.label(text, "A state");
            String id = ids.isEmpty() ? split.id() : Slug.unused(Slug.of(label, "state"), i -> !taken.add(i));
            if (ids.putIfAbsent(label, id) != null) {
                throw new Refused("'" + label + "' is named twice.");
            }
        }
        return ids;
    }

    private static List<StudyState> states(StudyCharacter old, StudyState split, Map<String, String> ids) {
        List<StudyState> states = new ArrayList<>();
        for (StudyState one : old.states()) {
            if (!one.id().equals(split.id())) {
                states.add(one);
                continue;
            }
            ids.forEach((label, id) -> states.add(
                    id.equals(split.id())
                            ? new StudyState(
                                    id,
                                    label,
                                    "",
                                    "",
                                    split.mistakenFor(),
                                    split.swatch(),
                                    split.comparedWith(),
                                    split.picture())
                            : new StudyState(id, label, "", "")));
        }
        return states;
    }

    private AppliesWhen condition(AppliesWhen condition, Map<String, String> ids) {
        if (!condition.character().equals(character) || !condition.states().contains(state)) {
            return condition;
        }
        Set<String> states = new LinkedHashSet<>(condition.states());
        states.addAll(ids.values());
        return new AppliesWhen(character, List.copyOf(states));
    }

    private StudyScore score(StudyScore score, Map<String, String> ids, StudyCharacter now) {
        boolean shows = score.character().equals(character)
                && score.value() instanceof ScoreValue.States states
                && states.shown().stream().anyMatch(s -> s.state().equals(state));
        if (!shows) {
            return score;
        }
        ScoreValue.States states = (ScoreValue.States) score.value();
        List<String> labels = assigned.getOrDefault(score.row(), List.of());
        List<String> to = labels.stream().map(l -> target(l, ids)).distinct().toList();
        boolean open = to.isEmpty();
        List<Shown> shown = new ArrayList<>();
        for (Shown one : states.shown()) {
            if (one.state().equals(state)) {
                (open ? List.copyOf(ids.values()) : to).forEach(id -> shown.add(new Shown(id, one.frequency())));
            } else {
                shown.add(one);
            }
        }
        boolean alone = states.shown().size() == 1;
        Combination combination = open && alone ? Combination.EITHER : alone ? Combination.VARY : states.combination();
        ScoreValue value = new ScoreValue.States(shown, combination);
        StudyScore changed = score.withValue(value, NotationPrinter.print(value, now));
        return open ? changed.withDoubt(true) : changed;
    }

    private static String target(String label, Map<String, String> ids) {
        String id = ids.get(label.strip());
        if (id == null) {
            throw new Refused("'" + label + "' is not one of the new states.");
        }
        return id;
    }
}
