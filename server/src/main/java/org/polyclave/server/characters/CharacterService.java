package org.polyclave.server.characters;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.history.ChangeLog;
import org.polyclave.server.history.StudyWriter;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.store.StudyObject;
import org.polyclave.study.model.Slug;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.rules.StudyRules;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Characters of a study with their states; each change is one undoable change set, with the scores that follow it. */
@Service
public class CharacterService {
    private static final int MOST_NAMED = 5;

    private final StudyWriter writer;

    CharacterService(StudyWriter writer) {
        this.writer = writer;
    }

    /** Adds a character behind the others; its identifier and those of its states are made of their names. */
    @Transactional
    public StudyWriter.Written addCharacter(OpenStudy open, StudyCharacter draft) {
        StudyWriter.Locked locked = writer.lock(open);
        StudyCharacter character =
                named(draft.withId(writer.mint(open, "character/", Slug.of(draft.label()), "character")));
        StudyWriter.refuse(StudyRules.checkWording(character));
        StudyWriter.refuseBroken(
                locked.study(),
                locked.study().withCharacters(with(locked.study().characters(), character)));
        double position = writer.characters(open).last(character.id());
        return writer.write(
                open,
                character.id(),
                List.of(writer.edit(StudyObject.character(character.id()), character, position, 0)));
    }

    /** Replaces a character. States without an identifier are new; a state that scores use does not go this way. */
    @Transactional
    public StudyWriter.Written putCharacter(OpenStudy open, StudyCharacter draft, long baseRevision) {
        StudyWriter.Locked locked = writer.lock(open);
        StudyCharacter old = locked.study().character(draft.id()).orElseThrow(Problems::notFound);
        StudyCharacter character = named(draft);
        List<StudyScore> scores = locked.study().scores().stream()
                .filter(s -> s.character().equals(old.id()))
                .toList();
        refuseLostStates(old, character, scores);
        refuseLostType(old, character, scores);
        StudyWriter.refuse(StudyRules.checkWording(character));
        StudyWriter.refuseBroken(
                locked.study(),
                locked.study().withCharacters(replaced(locked.study().characters(), character)));
        double position = writer.characters(open).of(old.id());
        return writer.write(
                open,
                old.id(),
                List.of(writer.edit(StudyObject.character(old.id()), character, position, baseRevision)));
    }

    /** @param before the character it comes before; null: behind all others */
    @Transactional
    public StudyWriter.Written moveCharacter(OpenStudy open, String id, @Nullable String before, long baseRevision) {
        StudyWriter.Locked locked = writer.lock(open);
        StudyCharacter character = locked.study().character(id).orElseThrow(Problems::notFound);
        double position = writer.characters(open).before(before, id);
        return writer.write(
                open, id, List.of(writer.edit(StudyObject.character(id), character, position, baseRevision)));
    }

    /** Takes a character out with all its scores; one that others depend on stays. */
    @Transactional
    public StudyWriter.Written removeCharacter(OpenStudy open, String id, long baseRevision) {
        StudyWriter.Locked locked = writer.lock(open);
        StudyCharacter gone = locked.study().character(id).orElseThrow(Problems::notFound);
        StudyWriter.refuseBroken(
                locked.study(),
                locked.study()
                        .withCharacters(locked.study().characters().stream()
                                .filter(c -> !c.equals(gone))
                                .toList()));
        List<ChangeLog.Edit> edits = new ArrayList<>();
        edits.add(new ChangeLog.Edit(StudyObject.character(id), null, baseRevision));
        for (StudyScore score : locked.study().scores()) {
            if (score.character().equals(id)) {
                edits.add(StudyWriter.removal(locked, StudyObject.cell(score.row(), id)));
            }
        }
        return writer.write(open, id, edits);
    }

    /** New states get identifiers of their own. */
    private static StudyCharacter named(StudyCharacter draft) {
        Set<String> taken = new HashSet<>();
        draft.states().forEach(s -> taken.add(s.id()));
        List<StudyCharacter.StudyState> states = new ArrayList<>();
        for (StudyCharacter.StudyState state : draft.states()) {
            String id = state.id();
            if (id.isEmpty()) {
                id = Slug.unused(Slug.of(state.label(), "state"), i -> !taken.add(i));
            }
            states.add(state.withId(id).withLabel(state.label().strip()));
        }
        return draft.withStates(states);
    }

    private static void refuseLostStates(StudyCharacter old, StudyCharacter now, List<StudyScore> scores) {
        for (StudyCharacter.StudyState state : old.states()) {
            if (now.state(state.id()).isPresent()) {
                continue;
            }
            List<String> users = scores.stream()
                    .filter(s -> s.value() instanceof org.polyclave.study.model.ScoreValue.States shown
                            && shown.shown().stream().anyMatch(x -> x.state().equals(state.id())))
                    .map(StudyScore::row)
                    .toList();
            if (!users.isEmpty()) {
                String more = users.size() > MOST_NAMED ? " and " + (users.size() - MOST_NAMED) + " more" : "";
                throw Problems.unprocessable(
                        ProblemCode.STATE_USED,
                        "The state '" + state.label() + "' is scored for "
                                + String.join(", ", users.subList(0, Math.min(MOST_NAMED, users.size()))) + more
                                + ". Merge it into another state, or change these scores first.",
                        Map.of("state", state.id(), "rows", users));
            }
        }
    }

    private static void refuseLostType(StudyCharacter old, StudyCharacter now, List<StudyScore> scores) {
        boolean alike = old.type() == now.type() || (hasStates(old.type()) && hasStates(now.type()));
        if (!alike && !scores.isEmpty()) {
            throw Problems.unprocessable(
                    ProblemCode.TYPE_USED,
                    "'" + old.label() + "' has " + scores.size()
                            + " scores that another type cannot hold. Empty them first, or add a new character.",
                    Map.of("scores", scores.size()));
        }
    }

    private static boolean hasStates(CharacterType type) {
        return type == CharacterType.STATES || type == CharacterType.ORDERED;
    }

    private static <T> List<T> with(List<T> all, T added) {
        List<T> more = new ArrayList<>(all);
        more.add(added);
        return more;
    }

    private static List<StudyCharacter> replaced(List<StudyCharacter> characters, StudyCharacter character) {
        return characters.stream()
                .map(c -> c.id().equals(character.id()) ? character : c)
                .toList();
    }
}
