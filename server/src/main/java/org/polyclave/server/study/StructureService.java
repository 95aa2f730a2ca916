package org.polyclave.server.study;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.study.persistence.ChangeMapper;
import org.polyclave.server.study.persistence.StudyMapper;
import org.polyclave.study.model.OutsideTaxon;
import org.polyclave.study.model.Slug;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScope;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.rules.StudyRules;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/**
 * Changes of what a study is made of: taxa, sexes and stages, characters with their states, scope. Each is one undoable
 * change set, with the scores that follow it. A change after which a rule of {@link StudyRules} is broken that held
 * before is refused with its sentence.
 */
@Service
public class StructureService {
    private static final int MOST_NAMED = 5;

    private final StudyWriter writer;
    private final ChangeMapper changes;
    private final StudyMapper studies;
    private final JsonMapper json;

    StructureService(StudyWriter writer, ChangeMapper changes, StudyMapper studies, JsonMapper json) {
        this.writer = writer;
        this.changes = changes;
        this.studies = studies;
        this.json = json;
    }

    @Transactional
    public StudyWriter.Written putScope(StudyAccess.Open open, String title, StudyScope scope, long seen) {
        if (title.isBlank()) {
            throw Problems.badRequest("title", "A study needs a title.");
        }
        String content = json.writeValueAsString(new StudyWriter.Scope(title.strip(), scope));
        return writer.write(open, "", List.of(new ChangeLog.Edit(StudyObject.SCOPE, content, seen)));
    }

    @Transactional
    public StudyWriter.Written putOutside(StudyAccess.Open open, List<OutsideTaxon> taxa, long seen) {
        if (taxa.stream().anyMatch(t -> t.name().isBlank())) {
            throw Problems.unprocessable("rules", "A taxon near but outside needs a name.", Map.of());
        }
        return writer.write(
                open, "", List.of(new ChangeLog.Edit(StudyObject.OUTSIDE, json.writeValueAsString(taxa), seen)));
    }

    /** Adds a taxon, or a sex or stage, behind the others of its parent; its identifier is made of its name. */
    @Transactional
    public StudyWriter.Written addRow(StudyAccess.Open open, StudyRow draft) {
        StudyWriter.Locked locked = writer.lock(open);
        StudyRow row = settled(draft.withId(writer.mint(open, "row/", Slug.of(draft.name()), "taxon")));
        StudyWriter.refuseBroken(
                locked.study(), locked.study().withRows(with(locked.study().rows(), row)));
        double position = StudyWriter.between(changes.rowPlaces(open.id()), null, row.id());
        return writer.write(open, row.id(), List.of(writer.edit(StudyObject.row(row.id()), row, position, 0)));
    }

    /** Writes a taxon anew; it stays where it stands. Its sexes and stages go by its name. */
    @Transactional
    public StudyWriter.Written putRow(StudyAccess.Open open, StudyRow draft, long seen) {
        StudyWriter.Locked locked = writer.lock(open);
        StudyRow old = locked.study().row(draft.id()).orElseThrow(Problems::notFound);
        StudyRow row = withReason(old, settled(draft));
        List<StudyRow> rows = mapped(locked.study().rows(), r -> {
            boolean stage = row.id().equals(r.parent()) && r.isSemaphoront();
            return r.equals(old) ? row : stage ? r.withLabel(row.label()) : r;
        });
        StudyWriter.refuseBroken(locked.study(), locked.study().withRows(rows));
        List<ChangeMapper.Placed> places = changes.rowPlaces(open.id());
        List<ChangeLog.Edit> edits = new ArrayList<>();
        edits.add(writer.edit(StudyObject.row(row.id()), row, StudyWriter.position(places, row.id()), seen));
        for (StudyRow other : rows) {
            StudyObject object = StudyObject.row(other.id());
            if (!other.equals(row) && !locked.study().rows().contains(other)) {
                edits.add(writer.edit(
                        object,
                        other,
                        StudyWriter.position(places, other.id()),
                        locked.snapshot().revision(object)));
            }
        }
        return writer.write(open, row.id(), edits);
    }

    /**
     * Moves a taxon, with all that belongs to it, under a parent.
     *
     * @param parent null: to the top
     * @param before the row it comes before; null: behind all others
     */
    @Transactional
    public StudyWriter.Written moveRow(
            StudyAccess.Open open, String id, @Nullable String parent, @Nullable String before, long seen) {
        StudyWriter.Locked locked = writer.lock(open);
        StudyRow moved = locked.study().row(id).orElseThrow(Problems::notFound).withParent(parent);
        StudyWriter.refuseBroken(
                locked.study(), locked.study().withRows(replaced(locked.study().rows(), moved)));
        double position = StudyWriter.between(changes.rowPlaces(open.id()), before, id);
        return writer.write(open, id, List.of(writer.edit(StudyObject.row(id), moved, position, seen)));
    }

    /** Takes a row out with its sexes and stages and all their scores; its subtaxa move up to its parent. */
    @Transactional
    public StudyWriter.Written removeRow(StudyAccess.Open open, String id, long seen) {
        StudyWriter.Locked locked = writer.lock(open);
        StudyRow row = locked.study().row(id).orElseThrow(Problems::notFound);
        Set<String> gone = new HashSet<>(Set.of(id));
        List<ChangeLog.Edit> edits = new ArrayList<>();
        List<ChangeMapper.Placed> places = changes.rowPlaces(open.id());
        List<StudyRow> stay = new ArrayList<>();
        for (StudyRow other : locked.study().rows()) {
            boolean child = id.equals(other.parent());
            if (child && other.isSemaphoront()) {
                gone.add(other.id());
                edits.add(StudyWriter.removal(locked, StudyObject.row(other.id())));
            } else if (child) {
                StudyRow raised = other.withParent(row.parent());
                StudyObject object = StudyObject.row(other.id());
                edits.add(writer.edit(
                        object,
                        raised,
                        StudyWriter.position(places, other.id()),
                        locked.snapshot().revision(object)));
                stay.add(raised);
            } else if (!other.id().equals(id)) {
                stay.add(other);
            }
        }
        StudyWriter.refuseBroken(locked.study(), locked.study().withRows(stay));
        edits.add(new ChangeLog.Edit(StudyObject.row(id), null, seen));
        for (StudyScore score : locked.study().scores()) {
            if (gone.contains(score.row())) {
                edits.add(StudyWriter.removal(locked, StudyObject.cell(score.row(), score.character())));
            }
        }
        return writer.write(open, id, edits);
    }

    /** Adds a character behind the others; its identifier and those of its states are made of their names. */
    @Transactional
    public StudyWriter.Written addCharacter(StudyAccess.Open open, StudyCharacter draft) {
        StudyWriter.Locked locked = writer.lock(open);
        StudyCharacter character =
                named(draft.withId(writer.mint(open, "character/", Slug.of(draft.label()), "character")));
        StudyWriter.refuse(StudyRules.checkWording(character));
        StudyWriter.refuseBroken(
                locked.study(),
                locked.study().withCharacters(with(locked.study().characters(), character)));
        double position = StudyWriter.between(changes.characterPlaces(open.id()), null, character.id());
        return writer.write(
                open,
                character.id(),
                List.of(writer.edit(StudyObject.character(character.id()), character, position, 0)));
    }

    /** Writes a character anew. States without an identifier are new; a state that scores use does not go this way. */
    @Transactional
    public StudyWriter.Written putCharacter(StudyAccess.Open open, StudyCharacter draft, long seen) {
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
        double position = StudyWriter.position(changes.characterPlaces(open.id()), old.id());
        return writer.write(
                open, old.id(), List.of(writer.edit(StudyObject.character(old.id()), character, position, seen)));
    }

    /** @param before the character it comes before; null: behind all others */
    @Transactional
    public StudyWriter.Written moveCharacter(StudyAccess.Open open, String id, @Nullable String before, long seen) {
        StudyWriter.Locked locked = writer.lock(open);
        StudyCharacter character = locked.study().character(id).orElseThrow(Problems::notFound);
        double position = StudyWriter.between(changes.characterPlaces(open.id()), before, id);
        return writer.write(open, id, List.of(writer.edit(StudyObject.character(id), character, position, seen)));
    }

    /** Takes a character out with all its scores; one that others depend on stays. */
    @Transactional
    public StudyWriter.Written removeCharacter(StudyAccess.Open open, String id, long seen) {
        StudyWriter.Locked locked = writer.lock(open);
        StudyCharacter gone = locked.study().character(id).orElseThrow(Problems::notFound);
        StudyWriter.refuseBroken(
                locked.study(),
                locked.study()
                        .withCharacters(locked.study().characters().stream()
                                .filter(c -> !c.equals(gone))
                                .toList()));
        List<ChangeLog.Edit> edits = new ArrayList<>();
        edits.add(new ChangeLog.Edit(StudyObject.character(id), null, seen));
        for (StudyScore score : locked.study().scores()) {
            if (score.character().equals(id)) {
                edits.add(StudyWriter.removal(locked, StudyObject.cell(score.row(), id)));
            }
        }
        return writer.write(open, id, edits);
    }

    /** Recorded hazards say how severe the worst is; none makes a taxon less severe than its own assessment. */
    private static StudyRow settled(StudyRow row) {
        return row.hazards().stream()
                .map(StudyRow.HazardRecord::severity)
                .filter(worst -> worst.compareTo(row.hazard()) > 0)
                .max(Hazard::compareTo)
                .map(row::withHazard)
                .orElse(row);
    }

    /** Who lowers a severity at their desk says why and by what; it stands until somebody else confirms. */
    private static StudyRow withReason(StudyRow old, StudyRow row) {
        boolean lowered = LoweredHazards.standing(row).compareTo(LoweredHazards.standing(old)) < 0
                || row.hazard().compareTo(old.hazard()) < 0;
        StudyRow.Lowering told = row.assessment().lowering();
        boolean said =
                told != null && !told.reason().isBlank() && !told.source().isBlank();
        if (lowered && old.hazard().compareTo(Hazard.CAUTION) >= 0 && !said) {
            throw Problems.unprocessable(
                    "hazard-lowered",
                    "'" + old.name()
                            + "' was recorded as more dangerous. Say why it is less so and by what source; until"
                            + " a second person confirms, the higher severity stands.",
                    Map.of());
        }
        // Nobody takes away by this way what somebody else has to confirm.
        StudyRow.Lowering pending = old.assessment().lowering();
        return !lowered && told == null && pending != null && row.hazard().compareTo(pending.hazard()) < 0
                ? row.withAssessment(new StudyRow.Assessment(row.assessment().source(), pending))
                : row;
    }

    /** A second person agrees that a taxon is less dangerous than was recorded. */
    @Transactional
    public StudyWriter.Written confirmHazard(StudyAccess.Open open, String id, long seen) {
        StudyWriter.Locked locked = writer.lock(open);
        StudyRow row = locked.study().row(id).orElseThrow(Problems::notFound);
        StudyRow.Lowering lowering = row.assessment().lowering();
        if (lowering == null) {
            throw Problems.badRequest("nothing-lowered", "Nothing of this taxon's hazard waits for confirmation.");
        }
        if (lowering.by().equals(studies.displayName(open.account()))) {
            throw Problems.unprocessable(
                    "second-person", "You lowered this severity yourself. Somebody else must confirm it.", Map.of());
        }
        StudyRow confirmed = row.withAssessment(new StudyRow.Assessment(lowering.source(), null));
        double position = StudyWriter.position(changes.rowPlaces(open.id()), id);
        return writer.write(open, id, List.of(writer.edit(StudyObject.row(id), confirmed, position, seen)));
    }

    /** New states get identifiers of their own. */
    private static StudyCharacter named(StudyCharacter draft) {
        Set<String> taken = new HashSet<>();
        draft.states().forEach(s -> taken.add(s.id()));
        List<StudyCharacter.StudyState> states = new ArrayList<>();
        for (StudyCharacter.StudyState state : draft.states()) {
            String id = state.id();
            if (id.isEmpty()) {
                String wanted = Slug.of(state.label()).isEmpty() ? "state" : Slug.of(state.label());
                id = wanted;
                for (int n = 2; !taken.add(id); n++) {
                    id = wanted + "-" + n;
                }
            }
            states.add(new StudyCharacter.StudyState(
                    id,
                    state.label().strip(),
                    state.plain(),
                    state.definition(),
                    state.mistakenFor(),
                    state.swatch(),
                    state.comparedWith(),
                    state.picture(),
                    state.absent()));
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
                        "state-used",
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
                    "type-used",
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

    private static List<StudyRow> replaced(List<StudyRow> rows, StudyRow row) {
        return mapped(rows, r -> r.id().equals(row.id()) ? row : r);
    }

    private static List<StudyCharacter> replaced(List<StudyCharacter> characters, StudyCharacter character) {
        return mapped(characters, c -> c.id().equals(character.id()) ? character : c);
    }

    private static <T> List<T> mapped(List<T> all, UnaryOperator<T> change) {
        return all.stream().map(change).toList();
    }
}
