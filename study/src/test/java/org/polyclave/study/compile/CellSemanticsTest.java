package org.polyclave.study.compile;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.LongStream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.polyclave.core.evidence.Certainty;
import org.polyclave.core.evidence.Observation;
import org.polyclave.core.identify.Answer;
import org.polyclave.core.identify.AnyOrderIdentifier;
import org.polyclave.core.identify.Identification;
import org.polyclave.core.identify.IdentifyOptions;
import org.polyclave.core.key.Atoms;
import org.polyclave.core.key.Key;
import org.polyclave.core.key.KeyGenerator;
import org.polyclave.core.key.KeyOptions;
import org.polyclave.core.key.KeyOutcome;
import org.polyclave.core.key.KeyResult;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.run.CancelSignal;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyCharacter.StudyState;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScope;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.notation.CellNotation;

/**
 * What cells mean (several states by individual, on one individual, or not known which; what is mistaken; months of a
 * cell's own) reaches key, proof and any-order key: the meaning is worked out here a second time, from the words alone.
 */
class CellSemanticsTest {
    private static final int STATES = 3;

    /** A cell in words, with what a reader may record of it: the oracle. */
    private record Meant(String text, Set<Integer> recordable, Set<Integer> months) {
        boolean readableIn(int month) {
            return month == 0 || months.isEmpty() || months.contains(month);
        }

        /** Out of its months nothing is known of a cell. */
        Set<Integer> recordableIn(int month) {
            return readableIn(month) ? recordable : Set.of(0, 1, 2);
        }
    }

    private record Case(Study study, Meant[][] cells) {}

    static LongStream seeds() {
        return LongStream.rangeClosed(1, 150);
    }

    private static Meant meant(Random random) {
        int a = random.nextInt(STATES);
        int b = (a + 1 + random.nextInt(2)) % STATES;
        int other = 3 - a - b;
        Set<Integer> months = random.nextInt(3) == 0
                ? new TreeSet<>(List.of(1 + random.nextInt(3), 3 + random.nextInt(3)))
                : Set.of();
        return switch (random.nextInt(10)) {
            case 0 -> new Meant("s" + a + ", s" + b, Set.of(a, b), months);
            case 1 -> new Meant("s" + a + " + s" + b, Set.of(a, b), months);
            case 2 -> new Meant("s" + a + " / s" + b, Set.of(a, b), months);
            case 3 -> new Meant("s" + a + ", mistaken s" + b, Set.of(a, b), months);
            case 4 -> new Meant("usually s" + a + ", rarely s" + other, Set.of(a, other), months);
            case 5 -> new Meant("sometimes s" + a, Set.of(0, 1, 2), months);
            case 6 -> new Meant("?", Set.of(0, 1, 2), months);
            default -> new Meant("s" + a, Set.of(a), months);
        };
    }

    private static Case random(long seed) {
        Random random = new Random(seed);
        List<StudyCharacter> characters = new ArrayList<>();
        for (int c = 0; c < 4; c++) {
            characters.add(StudyCharacter.of(
                    "c" + c,
                    CharacterType.STATES,
                    List.of(StudyState.of("s0"), StudyState.of("s1"), StudyState.of("s2"))));
        }
        List<StudyRow> rows = new ArrayList<>();
        List<StudyScore> scores = new ArrayList<>();
        Meant[][] cells = new Meant[5][4];
        for (int i = 0; i < cells.length; i++) {
            rows.add(StudyRow.of("r" + i));
            for (int c = 0; c < 4; c++) {
                Meant meant = meant(random);
                cells[i][c] = meant;
                CellNotation.Parsed parsed = (CellNotation.Parsed) CellNotation.parse(meant.text(), characters.get(c));
                scores.add(new StudyScore(
                                "r" + i,
                                "c" + c,
                                parsed.value(),
                                meant.text(),
                                StudyScore.Basis.JUDGEMENT,
                                "",
                                false,
                                "")
                        .withMonths(List.copyOf(meant.months())));
            }
        }
        return new Case(new Study("s", "S", StudyScope.EMPTY, rows, List.of(), characters, scores), cells);
    }

    @ParameterizedTest(name = "seed {0}")
    @MethodSource("seeds")
    void keysLeadEveryRecordingToItsRowAndPartWhatCanBeParted(long seed) {
        Case example = random(seed);
        for (int month : new int[] {0, 1, 4}) {
            KeyContext context = new KeyContext(month == 0 ? Set.of() : Set.of(month), Set.of(), Set.of());
            CompiledStudy compiled = context.apply(StudyCompiler.compile(example.study()));
            KeyOutcome outcome = new KeyGenerator()
                    .generate(compiled.matrix(), KeyOptions.DEFAULT.withNodeBudget(400), CancelSignal.NEVER);
            KeyResult result = ((KeyOutcome.Generated) outcome).result();
            assertThat(result.proof().proven()).isTrue();
            for (int row = 0; row < example.cells().length; row++) {
                walk(example, month, compiled, result.key(), row, new int[0]);
            }
            terminals(result.key()).forEach(terminal -> assertNothingParts(example, month, terminal.rows()));
        }
    }

    /** Tries every combination of states that a reader may record of a row. */
    private static void walk(Case example, int month, CompiledStudy compiled, Key key, int row, int[] recorded) {
        if (recorded.length == 4) {
            assertThat(arrival(compiled, key, recorded))
                    .as("row %s recorded as %s in month %s", row, recorded, month)
                    .contains(row);
            return;
        }
        for (int state : example.cells()[row][recorded.length].recordableIn(month)) {
            int[] more = java.util.Arrays.copyOf(recorded, recorded.length + 1);
            more[recorded.length] = state;
            walk(example, month, compiled, key, row, more);
        }
    }

    private static List<Integer> arrival(CompiledStudy compiled, Key key, int[] recorded) {
        if (key.couplets().isEmpty()) {
            return key.whole().rows();
        }
        Key.Couplet at = key.couplets().get(0);
        while (true) {
            List<Key.Lead> accepting = new ArrayList<>();
            for (Key.Lead lead : at.leads()) {
                boolean accepts = lead.statements().stream()
                        .filter(s -> s.role() == Key.Role.DECIDING)
                        .allMatch(s -> (((Atoms.States) s.atoms()).mask() & (1 << recorded[state(compiled, s)])) != 0);
                if (accepts) {
                    accepting.add(lead);
                }
            }
            assertThat(accepting).hasSize(1);
            if (accepting.get(0).to() instanceof Key.ToRows rows) {
                return rows.rows();
            }
            int next = ((Key.ToCouplet) accepting.get(0).to()).number();
            at = key.couplets().stream()
                    .filter(c -> c.number() == next)
                    .findFirst()
                    .orElseThrow();
        }
    }

    /** Characters out of season are left out of the matrix, so their numbers differ from the study's. */
    private static int state(CompiledStudy compiled, Key.Statement statement) {
        return Integer.parseInt(
                compiled.characters().get(statement.character()).id().substring(1));
    }

    private static List<Key.ToRows> terminals(Key key) {
        List<Key.ToRows> found = new ArrayList<>();
        key.couplets()
                .forEach(c -> c.leads().forEach(l -> {
                    if (l.to() instanceof Key.ToRows rows) {
                        found.add(rows);
                    }
                }));
        return key.couplets().isEmpty() ? List.of(key.whole()) : found;
    }

    private static void assertNothingParts(Case example, int month, List<Integer> together) {
        for (int i : together) {
            for (int j : together) {
                for (int c = 0; c < 4 && i < j; c++) {
                    Set<Integer> common = new HashSet<>(example.cells()[i][c].recordableIn(month));
                    common.retainAll(example.cells()[j][c].recordableIn(month));
                    assertThat(common)
                            .as("rows %s and %s end together, but c%s parts them", i, j, c)
                            .isNotEmpty();
                }
            }
        }
    }

    @ParameterizedTest(name = "seed {0}")
    @MethodSource("seeds")
    void anyOrderKeysStrikeOutExactlyWhatCannotBeRecorded(long seed) {
        Case example = random(seed);
        AnyOrderIdentifier identifier =
                new AnyOrderIdentifier(StudyCompiler.compile(example.study()).matrix());
        for (int month : new int[] {0, 2}) {
            int mask = month == 0 ? 0xFFF : 1 << (month - 1);
            for (int c = 0; c < 4; c++) {
                for (int state = 0; state < STATES; state++) {
                    Answer answer = new Answer(c, new Observation.Seen(1 << state), Certainty.SURE);
                    Identification found =
                            identifier.identify(List.of(answer), new IdentifyOptions(true, 0, mask, new boolean[0]));
                    for (Identification.Standing standing : found.standings()) {
                        Meant cell = example.cells()[standing.row()][c];
                        assertThat(standing.struckOut())
                                .as("%s in month %s, seen s%s", cell, month, state)
                                .isEqualTo(!cell.recordableIn(month).contains(state));
                        assertThat(standing.compared())
                                .isEqualTo(cell.text().equals("?") || !cell.readableIn(month) ? 0 : 1);
                    }
                }
            }
        }
    }
}
