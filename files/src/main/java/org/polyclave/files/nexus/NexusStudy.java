package org.polyclave.files.nexus;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.files.nexus.NexusMatrix.Entry;
import org.polyclave.files.nexus.NexusMatrix.Kind;
import org.polyclave.files.source.ImportedStudy;
import org.polyclave.files.source.ReadingWatch;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.Slug;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyCharacter.StudyState;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScope;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.model.Units;
import org.polyclave.study.notation.MonthNotation;
import org.polyclave.study.notation.NotationPrinter;
import org.polyclave.study.notation.UnitHeading;

/** Makes a study of what stands in NEXUS blocks. */
final class NexusStudy {
    private final List<StudyRow> rows;
    private final List<StudyCharacter> characters = new ArrayList<>();
    private final List<Boolean> guessed = new ArrayList<>();
    private final List<StudyScore> scores = new ArrayList<>();
    /** By character, its number in the file, from 1, and how many taxa are scored for it. */
    private final List<Integer> numbers = new ArrayList<>();

    private final List<Integer> scored = new ArrayList<>();

    NexusStudy(List<StudyRow> rows) {
        this.rows = rows;
    }

    Study study(String slug, String title) {
        return new Study(slug, title, StudyScope.EMPTY, rows, List.of(), characters, scores);
    }

    ImportedStudy.Column column(int c) {
        StudyCharacter character = characters.get(c);
        List<String> states = character.states().stream().map(StudyState::label).toList();
        return new ImportedStudy.Column(
                numbers.get(c),
                character.label(),
                character.type(),
                character.unit(),
                "",
                states,
                scored.get(c),
                guessed.get(c),
                false);
    }

    /** @param ordered characters of the file, from 0, that are a graded series */
    void add(NexusMatrix matrix, BitSet ordered, ReadingWatch watch) {
        for (int c = 0; c < matrix.count(); c++) {
            watch.at(c, matrix.count());
            if (!matrix.isKept(c)) {
                continue;
            }
            int before = scores.size();
            boolean isOrdered = ordered.get(matrix.number(c) - 1);
            StudyCharacter character =
                    matrix.format().continuous ? continuous(matrix, c) : standard(matrix, c, isOrdered);
            characters.add(character);
            numbers.add(matrix.number(c));
            for (int i = 0; i < rows.size(); i++) {
                Optional<ScoreValue> value = value(matrix.entry(i, c), matrix.format(), character);
                if (value.isPresent()) {
                    scores.add(new StudyScore(
                            rows.get(i).id(),
                            character.id(),
                            value.get(),
                            NotationPrinter.print(value.get(), character),
                            StudyScore.Basis.IMPORT,
                            "",
                            false,
                            ""));
                }
            }
            scored.add(scores.size() - before);
        }
    }

    private String label(NexusMatrix matrix, int c) {
        return matrix.label(c).isBlank() ? "character " + matrix.number(c) : matrix.label(c);
    }

    private StudyCharacter standard(NexusMatrix matrix, int c, boolean ordered) {
        int used = 0;
        for (int i = 0; i < rows.size(); i++) {
            for (int state : matrix.entry(i, c).states()) {
                used = Math.max(used, state + 1);
            }
        }
        List<String> names = matrix.states(c);
        List<String> months = IntStream.rangeClosed(1, 12)
                .mapToObj(m -> MonthNotation.print(List.of(m)))
                .toList();
        guessed.add(names.isEmpty());
        if (names.equals(months)) {
            return StudyCharacter.of(label(matrix, c), CharacterType.MONTHS, List.of());
        }
        List<StudyState> states = new ArrayList<>();
        for (int s = 0; s < Math.max(used, names.size()); s++) {
            String name = s < names.size() && !Slug.of(names.get(s)).isEmpty() ? names.get(s) : "state " + s;
            states.add(StudyState.of(name));
        }
        CharacterType type = ordered ? CharacterType.ORDERED : CharacterType.STATES;
        return StudyCharacter.of(label(matrix, c), type, states);
    }

    /** A unit in the name tells what is measured; otherwise whole numbers are counts, and others ratios. */
    private StudyCharacter continuous(NexusMatrix matrix, int c) {
        Optional<UnitHeading> heading = UnitHeading.parse(label(matrix, c));
        guessed.add(heading.isEmpty());
        if (heading.isPresent()) {
            return StudyCharacter.of(heading.get().label(), heading.get().type(), List.of())
                    .withType(heading.get().type(), heading.get().unit());
        }
        boolean whole = IntStream.range(0, rows.size())
                .allMatch(i -> matrix.entry(i, c).numbers().stream().allMatch(x -> x % 1 == 0));
        return StudyCharacter.of(label(matrix, c), whole ? CharacterType.COUNT : CharacterType.RATIO, List.of());
    }

    private static Optional<ScoreValue> value(Entry entry, NexusFormat format, StudyCharacter character) {
        if (entry.kind() == Kind.MISSING) {
            return Optional.empty();
        }
        if (entry.kind() == Kind.GAP) {
            return Optional.of(new ScoreValue.NotApplicable());
        }
        if (format.continuous) {
            return range(entry.numbers(), format, character);
        }
        if (character.type() == CharacterType.MONTHS) {
            return Optional.of(new ScoreValue.Months(
                    entry.states().stream().map(s -> s + 1).sorted().toList()));
        }
        int all = character.states().size();
        if (entry.kind() == Kind.EITHER && all > 1 && entry.states().size() == all) {
            return Optional.of(new ScoreValue.Any());
        }
        List<ScoreValue.Shown> shown = entry.states().stream()
                .map(s -> new ScoreValue.Shown(character.states().get(s).id(), ScoreValue.Frequency.PLAIN))
                .toList();
        ScoreValue.Combination combination = entry.kind() == Kind.EITHER && shown.size() > 1
                ? ScoreValue.Combination.EITHER
                : ScoreValue.Combination.VARY;
        return Optional.of(new ScoreValue.States(shown, combination));
    }

    private static Optional<ScoreValue> range(List<Double> numbers, NexusFormat format, StudyCharacter character) {
        double factor = Units.factor(character.type(), character.unit()).orElse(1.0);
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        for (int k = 0; k < numbers.size(); k++) {
            String item = k < format.items.size() ? format.items.get(k) : "AVERAGE";
            if (List.of("MIN", "MAX", "AVERAGE", "MEDIAN", "STATES").contains(item)) {
                low = Math.min(low, numbers.get(k));
                high = Math.max(high, numbers.get(k));
            }
        }
        if (low > high) {
            return Optional.empty();
        }
        double min = Units.scaled(low, factor);
        double max = Units.scaled(high, factor);
        return Optional.of(new ScoreValue.Range(min, min, max, max));
    }
}
