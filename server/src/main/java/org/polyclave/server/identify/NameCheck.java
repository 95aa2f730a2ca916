package org.polyclave.server.identify;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.diagnosis.Diagnoses;
import org.polyclave.core.evidence.UsableEvidence;
import org.polyclave.core.identify.Identification;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.Observer;
import org.polyclave.core.reading.DescriptionCheck;
import org.polyclave.study.comparison.ViewingConditions;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.wording.key.KeyView;
import org.polyclave.wording.key.KeyWording;
import org.polyclave.wording.taxon.Description;

/** A name held against its whole description, in words: what recognises it first. */
final class NameCheck {
    private static final int MOST_NAMED = 3;

    /**
     * @param outOfSeason whether it is not met in the month of the question
     * @param points what it must show first, then what recognises it, then the rest in the order of characters
     */
    public record CheckView(KeyView.NameView name, boolean outOfSeason, List<CheckPointView> points) {}

    /**
     * A point of a description.
     *
     * @param text what it shows, as a clause
     * @param recognises whether it is one of the characters that together separate it from all others
     * @param separates some names that show something else, those most like it first
     * @param others how many names do
     * @param states ids of what it shows or is taken for, which is what somebody sees who says that it agrees
     * @param value the middle of what it shows, in the character's unit; null of states
     * @param spread from there to its ends
     */
    public record CheckPointView(
            String character,
            String organ,
            String text,
            String plain,
            DescriptionCheck.Verdict verdict,
            boolean mustShow,
            boolean implied,
            boolean recognises,
            List<String> separates,
            int others,
            List<String> states,
            @Schema(nullable = true) @Nullable Double value,
            @Schema(nullable = true) @Nullable Double spread) {}

    private final int row;
    private final Map<String, Description.Line> lines;
    private final List<Integer> recognising;
    private final Lookalikes lookalikes;

    /** What does not depend on answers, which is worked out once; the study is not kept. */
    NameCheck(CompiledStudy compiled, int row) {
        this.row = row;
        lines = Description.of(
                        compiled,
                        compiled.study().row(compiled.rows().get(row).id()).orElseThrow())
                .stream()
                .collect(Collectors.toMap(Description.Line::character, Function.identity()));
        ViewingConditions all = ViewingConditions.EVERYTHING;
        recognising = new Diagnoses(compiled.matrix(), all.recognising(compiled), Observer.NOVICE, Diagnoses.NODES)
                .ofSafely(row)
                .characters();
        lookalikes = new Lookalikes(compiled, row);
    }

    CheckView against(CompiledStudy compiled, Identification found) {
        List<CheckPointView> points = DescriptionCheck.of(compiled.matrix(), row, found).stream()
                .flatMap(p -> Optional.ofNullable(
                        lines.get(compiled.characters().get(p.character()).id()))
                        .map(line -> point(compiled, p, line))
                        .stream())
                .sorted(Comparator.comparing((CheckPointView p) -> !p.mustShow())
                        .thenComparing(p -> !p.recognises()))
                .toList();
        boolean outOfSeason = found.standings().stream().anyMatch(s -> s.row() == row && s.outOfSeason());
        return new CheckView(KeyWording.name(compiled, row), outOfSeason, points);
    }

    private CheckPointView point(CompiledStudy compiled, DescriptionCheck.Point point, Description.Line line) {
        StudyCharacter character = compiled.characters().get(point.character());
        Cell cell = compiled.matrix().cell(row, point.character());
        List<String> separated = lookalikes.separatedBy(point.character());
        double factor = ReadersAnswers.factor(character);
        return new CheckPointView(
                character.id(),
                line.organ(),
                line.technical(),
                line.plain(),
                point.verdict(),
                point.mustShow(),
                point.implied(),
                recognising.contains(point.character()),
                separated.stream().limit(MOST_NAMED).toList(),
                separated.size(),
                states(character, cell),
                cell instanceof Cell.Numeric range ? (Double) ((range.min() + range.max()) / 2 / factor) : null,
                cell instanceof Cell.Numeric range ? (Double) ((range.max() - range.min()) / 2 / factor) : null);
    }

    private static List<String> states(StudyCharacter character, Cell cell) {
        if (!(cell instanceof Cell.Categorical shown)) {
            return List.of();
        }
        boolean months = character.type() == CharacterType.MONTHS;
        return IntStream.range(0, shown.shares().length)
                .filter(s -> (shown.readable() & 1 << s) != 0)
                .mapToObj(s -> months
                        ? Integer.toString(s + 1)
                        : character.states().get(s).id())
                .toList();
    }

    /** The other names, those that fewest characters separate from a row first. */
    private static final class Lookalikes {
        private final List<List<String>> separated = new ArrayList<>();

        Lookalikes(CompiledStudy compiled, int row) {
            Matrix matrix = compiled.matrix();
            Map<Integer, List<Integer>> names = IntStream.range(0, matrix.rowCount())
                    .filter(r -> !matrix.sharesName(r, row))
                    .boxed()
                    .collect(Collectors.groupingBy(r -> matrix.row(r).name()));
            List<Other> nearest = names.values().stream()
                    .map(rows -> new Other(
                            KeyWording.taxon(compiled, rows).called(), rows.get(0), differences(matrix, row, rows)))
                    .sorted(Comparator.comparing((Other o) -> o.differing().cardinality())
                            .thenComparing(Other::first))
                    .toList();
            for (int c = 0; c < matrix.characterCount(); c++) {
                int character = c;
                separated.add(nearest.stream()
                        .filter(o -> o.differing().get(character))
                        .map(Other::name)
                        .toList());
            }
        }

        /** @param differing characters in which none of its rows can show what the row shows */
        private record Other(String name, int first, BitSet differing) {}

        private static BitSet differences(Matrix matrix, int row, List<Integer> others) {
            UsableEvidence evidence = new UsableEvidence(matrix);
            BitSet differing = new BitSet();
            for (int c = 0; c < matrix.characterCount(); c++) {
                int character = c;
                differing.set(
                        c,
                        others.stream()
                                .allMatch(r -> evidence.isCompared(row, r, character)
                                        && evidence.isDisjoint(row, r, character)));
            }
            return differing;
        }

        List<String> separatedBy(int character) {
            return separated.get(character);
        }
    }
}
