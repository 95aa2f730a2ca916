package org.polyclave.study.change;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.notation.NotationPrinter;

/** Makes two states of a character one: in the character, in its scores, and in what depends on it. */
public final class StateMerge {
    private final String character;
    private final String from;
    private final String into;

    /**
     * @param from id of the state that goes
     * @param into id of the state that takes its place
     */
    public StateMerge(String character, String from, String into) {
        this.character = character;
        this.from = from;
        this.into = into;
    }

    /** The character without the state. */
    public StudyCharacter merged(StudyCharacter of) {
        return of.withStates(of.states().stream()
                .filter(s -> !s.id().equals(from))
                .map(s -> s.withMistakenFor(s.mistakenFor().stream()
                        .map(id -> id.equals(from) ? into : id)
                        .filter(id -> !id.equals(s.id()))
                        .distinct()
                        .toList()))
                .toList());
    }

    /** Another character whose dependency names the state; empty if it does not. */
    public Optional<StudyCharacter> dependent(StudyCharacter other) {
        List<StudyCharacter.AppliesWhen> conditions = new ArrayList<>();
        boolean changed = false;
        for (StudyCharacter.AppliesWhen condition : other.appliesWhen()) {
            boolean named = condition.character().equals(character)
                    && condition.states().contains(from);
            changed |= named;
            conditions.add(
                    named
                            ? new StudyCharacter.AppliesWhen(
                                    character,
                                    condition.states().stream()
                                            .map(s -> s.equals(from) ? into : s)
                                            .distinct()
                                            .toList())
                            : condition);
        }
        return changed ? Optional.of(other.withConditions(conditions)) : Optional.empty();
    }

    /**
     * A score of the character; empty if it does not show the state. Where it shows both, the word for the more frequent
     * stays, and a state that is really shown outweighs one that readers only take it for.
     *
     * @param after the character as {@link #merged} gives it
     */
    public Optional<StudyScore> score(StudyScore score, StudyCharacter after) {
        if (!score.character().equals(character)
                || !(score.value() instanceof ScoreValue.States states)
                || states.shown().stream().noneMatch(s -> s.state().equals(from))) {
            return Optional.empty();
        }
        List<ScoreValue.Shown> shown = new ArrayList<>();
        for (ScoreValue.Shown one : states.shown()) {
            ScoreValue.Shown moved = one.state().equals(from) ? new ScoreValue.Shown(into, one.frequency()) : one;
            Optional<ScoreValue.Shown> same =
                    shown.stream().filter(s -> s.state().equals(moved.state())).findFirst();
            if (same.isEmpty()) {
                shown.add(moved);
            } else if (strength(moved) > strength(same.get())) {
                shown.set(shown.indexOf(same.get()), moved);
            }
        }
        ScoreValue value =
                new ScoreValue.States(shown, shown.size() == 1 ? ScoreValue.Combination.VARY : states.combination());
        return Optional.of(score.withValue(value, NotationPrinter.print(value, after)));
    }

    /** A state without a word counts as shown by all that the words leave over, so it outweighs every word. */
    private static double strength(ScoreValue.Shown shown) {
        return shown.frequency() == ScoreValue.Frequency.PLAIN
                ? 2
                : shown.frequency().weight();
    }
}
