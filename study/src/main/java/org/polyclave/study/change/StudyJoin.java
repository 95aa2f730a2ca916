package org.polyclave.study.change;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.model.Picture;
import org.polyclave.study.model.Reading;
import org.polyclave.study.model.RecordFields;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.Slug;
import org.polyclave.study.model.Specimen;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyCharacter.StudyState;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.notation.CellNotation;
import org.polyclave.study.notation.EditDistance;
import org.polyclave.study.notation.NotationPrinter;
import org.polyclave.study.rules.Problem;
import org.polyclave.study.rules.StudyRules;

/**
 * Joins what was read from a file to a study that exists. Taxa, characters and states are matched by identifier, then by
 * name without case and accents. What the file does not say stays as it is: absence never deletes, and neither does an
 * empty or usual value. Time linear in both, but for the names of new taxa, which are compared with all known ones.
 */
public final class StudyJoin {
    /** Letters by which a name may be a slip of another. */
    private static final int ALIKE = 2;
    /** In short names a letter or two make another name. */
    private static final int LETTERS_A_SLIP = 5;

    private final Study current;
    private final Study incoming;
    private final List<Problem> problems = new ArrayList<>();
    /** Identifiers here by those of the file. */
    private final Map<String, String> rowIds = new HashMap<>();

    private final Map<String, StudyCharacter> characterOf = new HashMap<>();
    private final Map<String, String> specimenIds = new HashMap<>();

    private StudyJoin(Study current, Study incoming) {
        this.current = current;
        this.incoming = incoming;
    }

    /**
     * A study with what a file adds to it.
     *
     * @param problems scores that the characters here cannot hold; and, not blocking, new names that are nearly known ones
     */
    public record JoinedStudy(Study study, List<Problem> problems) {}

    public static JoinedStudy of(Study current, Study incoming) {
        StudyJoin join = new StudyJoin(current, incoming);
        Study study = join.run();
        return new JoinedStudy(study, join.problems);
    }

    private Study run() {
        List<StudyRow> rows = rows();
        List<StudyCharacter> characters = characters();
        List<Specimen> specimens = specimens();
        List<StudyScore> scores = scores();
        return current.withRows(rows)
                .withCharacters(characters)
                .withScores(scores)
                .withGlossary(added(current.glossary(), incoming.glossary(), g -> StudyRules.folded(g.term())))
                .withReferences(
                        added(current.references(), incoming.references(), r -> StudyRules.folded(r.citation())))
                .withSpecimens(specimens)
                .withPictures(added(current.pictures(), Parts.mapped(incoming.pictures(), this::joined), Picture::id))
                .withReadings(added(current.readings(), readings(), Reading::id))
                .withScope(
                        current.scope(),
                        added(current.nearButOutside(), incoming.nearButOutside(), o -> StudyRules.folded(o.name())));
    }

    private static <T> List<T> added(List<T> here, List<T> there, Function<T, String> name) {
        Map<String, T> all = new LinkedHashMap<>();
        here.forEach(t -> all.put(name.apply(t), t));
        there.forEach(t -> all.putIfAbsent(name.apply(t), t));
        return List.copyOf(all.values());
    }

    private List<StudyRow> rows() {
        Map<String, StudyRow> byId = new LinkedHashMap<>();
        current.rows().forEach(r -> byId.put(r.id(), r));
        Map<String, String> byName = current.rows().stream()
                .collect(Collectors.toMap(
                        r -> StudyRules.folded(r.name()), StudyRow::id, (a, b) -> a, LinkedHashMap::new));
        for (StudyRow row : incoming.rows()) {
            rowIds.put(
                    row.id(),
                    byId.containsKey(row.id())
                            ? row.id()
                            : byName.getOrDefault(StudyRules.folded(row.name()), row.id()));
        }
        for (StudyRow row : incoming.rows()) {
            String id = rowIds.getOrDefault(row.id(), row.id());
            StudyRow here = byId.get(id);
            StudyRow moved = row.withId(id)
                    .withParent(row.parent() == null ? null : rowIds.getOrDefault(row.parent(), row.parent()))
                    .withHybridOf(Parts.mapped(row.hybridOf(), h -> rowIds.getOrDefault(h, h)));
            StudyRow usual = StudyRow.of(row.label());
            byId.put(id, here == null ? moved : merged(here, moved, usual, List.of("label")));
            // "male" and "female" are two letters apart, and meant.
            if (here == null && !row.isSemaphoront()) {
                noteAlike(row, byName);
            }
        }
        return List.copyOf(byId.values());
    }

    /** A name that is new but for a letter or two may be a slip: it would become a taxon of its own. */
    private void noteAlike(StudyRow added, Map<String, String> known) {
        String name = StudyRules.folded(added.name());
        int letters = Math.min(ALIKE, name.length() / LETTERS_A_SLIP);
        known.entrySet().stream()
                .filter(k -> Math.abs(k.getKey().length() - name.length()) <= letters
                        && EditDistance.between(k.getKey(), name) <= letters)
                .findFirst()
                .flatMap(k -> current.row(k.getValue()))
                .ifPresent(r -> problems.add(new Problem(
                        0,
                        0,
                        "",
                        "'" + added.name() + "' is not in the study and would be added as a taxon. Is it '" + r.name()
                                + "'?",
                        false)));
    }

    /** {@code here} with every part in which {@code there} says something else than {@code usual}. */
    private static <T extends Record> T merged(T here, T there, T usual, List<String> kept) {
        Map<String, @Nullable Object> nothing = RecordFields.of(usual);
        Map<String, Object> said = new HashMap<>();
        RecordFields.of(there).forEach((name, value) -> {
            if (value != null && !value.equals(nothing.get(name)) && !kept.contains(name)) {
                said.put(name, value);
            }
        });
        return RecordFields.with(here, said);
    }

    private List<StudyCharacter> characters() {
        Map<String, StudyCharacter> byId = new LinkedHashMap<>();
        current.characters().forEach(c -> byId.put(c.id(), c));
        Map<String, String> byName = current.characters().stream()
                .collect(Collectors.toMap(c -> StudyRules.folded(c.label()), StudyCharacter::id, (a, b) -> a));
        Map<String, String> ids = new HashMap<>();
        for (StudyCharacter character : incoming.characters()) {
            String id = byId.containsKey(character.id())
                    ? character.id()
                    : byName.getOrDefault(StudyRules.folded(character.label()), character.id());
            ids.put(character.id(), id);
        }
        for (StudyCharacter character : incoming.characters()) {
            String id = ids.getOrDefault(character.id(), character.id());
            StudyCharacter moved = character
                    .withId(id)
                    .withConditions(Parts.mapped(
                            character.appliesWhen(),
                            a -> new StudyCharacter.AppliesWhen(
                                    ids.getOrDefault(a.character(), a.character()), a.states())));
            moved = moved.withTrust(new StudyCharacter.Trust(
                    moved.trust().novice(),
                    moved.trust().origin(),
                    Parts.mapped(moved.trust().groups(), g -> g.withRow(rowIds.getOrDefault(g.row(), g.row())))));
            StudyCharacter here = byId.get(id);
            StudyCharacter joined = here == null ? moved : joined(here, moved);
            byId.put(id, joined);
            characterOf.put(character.id(), joined);
        }
        return List.copyOf(byId.values());
    }

    /** The type and the names here stay; states that are not here are added at the end. */
    private static StudyCharacter joined(StudyCharacter here, StudyCharacter there) {
        StudyCharacter usual = StudyCharacter.of(there.label(), there.type(), List.of());
        StudyCharacter merged = merged(
                here,
                there.withStates(List.of()),
                usual,
                List.of("id", "label", "type", "unit", "states", "appliesWhen"));
        List<StudyState> states = new ArrayList<>(here.states());
        boolean hasStates = here.type() == CharacterType.STATES || here.type() == CharacterType.ORDERED;
        for (StudyState state : hasStates ? there.states() : List.<StudyState>of()) {
            boolean known = states.stream()
                    .anyMatch(s -> s.id().equals(state.id())
                            || StudyRules.folded(s.label()).equals(StudyRules.folded(state.label())));
            if (!known) {
                states.add(state);
            }
        }
        boolean conditions = here.appliesWhen().isEmpty();
        return merged.withStates(states).withConditions(conditions ? there.appliesWhen() : here.appliesWhen());
    }

    /** Specimens are told by their codes; what is said here of one stays. */
    private List<Specimen> specimens() {
        Map<String, Specimen> byCode = new LinkedHashMap<>();
        Set<String> taken = new HashSet<>();
        for (Specimen specimen : current.specimens()) {
            byCode.put(StudyRules.folded(specimen.code()), specimen);
            taken.add(specimen.id());
        }
        for (Specimen specimen : incoming.specimens()) {
            String code = StudyRules.folded(specimen.code());
            Specimen here = byCode.get(code);
            if (here == null) {
                String id = Slug.unused(specimen.id(), i -> !taken.add(i));
                here = specimen.withId(id).determined(this::joined);
                byCode.put(code, here);
            }
            specimenIds.put(specimen.id(), here.id());
        }
        return List.copyOf(byCode.values());
    }

    private Specimen.Determination joined(Specimen.Determination there) {
        return there.withRow(rowIds.getOrDefault(there.row(), there.row()))
                .withCharacters(Parts.mapped(
                        there.characters(),
                        c -> characterOf.containsKey(c)
                                ? Objects.requireNonNull(characterOf.get(c)).id()
                                : c));
    }

    private Picture joined(Picture there) {
        return there.specimen().isEmpty()
                ? there
                : there.withSpecimen(specimenIds.getOrDefault(there.specimen(), there.specimen()));
    }

    /** Readings are told by their identifiers; those of characters that are of another type here are not readings of these. */
    private List<Reading> readings() {
        Map<String, StudyCharacter> theirs = new HashMap<>();
        incoming.characters().forEach(c -> theirs.put(c.id(), c));
        List<Reading> readings = new ArrayList<>();
        for (Reading reading : incoming.readings()) {
            StudyCharacter from = Objects.requireNonNull(theirs.get(reading.character()));
            StudyCharacter to = Objects.requireNonNull(characterOf.get(reading.character()));
            List<String> states = reading.states().stream()
                    .flatMap(s -> from.state(s).stream())
                    .flatMap(s -> to.states().stream()
                            .filter(t -> StudyRules.folded(t.label()).equals(StudyRules.folded(s.label()))))
                    .map(StudyState::id)
                    .toList();
            if (from.type() != to.type() || states.size() < reading.states().size()) {
                problems.add(Problem.file("The reading '" + reading.typed() + "' of '" + reading.specimen()
                        + "' does not fit '" + to.label() + "' as it is here."));
            } else {
                readings.add(
                        reading.of(specimenIds.getOrDefault(reading.specimen(), reading.specimen()), to.id(), states));
            }
        }
        return readings;
    }

    private List<StudyScore> scores() {
        Map<String, StudyScore> byCell = new LinkedHashMap<>();
        current.scores().forEach(s -> byCell.put(s.row() + '/' + s.character(), s));
        Map<String, StudyCharacter> theirs = new HashMap<>();
        incoming.characters().forEach(c -> theirs.put(c.id(), c));
        for (StudyScore score : incoming.scores()) {
            StudyCharacter from = Objects.requireNonNull(theirs.get(score.character()));
            StudyCharacter to = Objects.requireNonNull(characterOf.get(score.character()));
            String row = rowIds.getOrDefault(score.row(), score.row());
            CellNotation.ParseResult reading = CellNotation.parse(NotationPrinter.print(score.value(), from), to);
            boolean sameKind = from.type() == to.type() && from.type().isNumeric();
            if (reading instanceof CellNotation.Rejected rejected && !sameKind) {
                problems.add(Problem.file("'" + row + "' × '" + to.label() + "': " + rejected.reason()));
                continue;
            }
            // Numbers are kept in base units, so they need not go through a text.
            ScoreValue value = sameKind ? score.value() : ((CellNotation.Parsed) reading).value();
            StudyScore moved = moved(score, row, to, value);
            byCell.merge(row + '/' + to.id(), moved, StudyJoin::describedBy);
        }
        return List.copyOf(byCell.values());
    }

    private StudyScore moved(StudyScore score, String row, StudyCharacter to, ScoreValue value) {
        return new StudyScore(
                row,
                to.id(),
                value,
                NotationPrinter.print(value, to),
                score.basis(),
                score.source(),
                score.doubtful(),
                score.note(),
                score.months(),
                score.scorer(),
                score.date(),
                score.concept(),
                moved(score.sample()));
    }

    private StudyScore.@Nullable Sample moved(StudyScore.@Nullable Sample there) {
        return there == null
                ? null
                : new StudyScore.Sample(
                        there.items(),
                        there.individuals(),
                        there.collections(),
                        Parts.mapped(there.specimens(), s -> specimenIds.getOrDefault(s, s)),
                        there.mean(),
                        there.sd(),
                        there.provisional(),
                        there.readings());
    }

    /** A file that says the same as the study, and not where it comes from, changes nothing. */
    private static StudyScore describedBy(StudyScore here, StudyScore there) {
        boolean origin =
                there.basis() != StudyScore.Basis.IMPORT || !there.source().isEmpty();
        boolean same = here.value().equals(there.value());
        if (!same) {
            return there;
        }
        if (!origin) {
            return here;
        }
        StudyScore now = there.withValue(here.value(), here.typed());
        return there.sample() == null ? now.withSample(here.sample()) : now;
    }
}
