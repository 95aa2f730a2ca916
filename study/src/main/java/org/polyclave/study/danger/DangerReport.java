package org.polyclave.study.danger;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.WeakHashMap;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.polyclave.core.evidence.UsableEvidence;
import org.polyclave.core.gate.SafetyGate;
import org.polyclave.core.matrix.Handling;
import org.polyclave.core.matrix.Harm;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.separation.StrictSeparation;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.compile.HazardTree;
import org.polyclave.study.compile.Inheritance;
import org.polyclave.study.compile.Targets;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScope;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.notation.NotationPrinter;

/** How each dangerous row stands against the names that are not dangerous, in the months that a study claims to serve. */
public final class DangerReport {
    private static final int YEAR = 0xFFF;
    /** With three characters a novice rules a danger out far oftener than with two. */
    private static final int ENOUGH = 3;
    /** Cells to confirm of one danger at a time: more are listed once these are done. */
    private static final int MOST_CELLS = 60;

    /** Compiled studies never change; those that nobody holds any more are forgotten. */
    private static final Map<CompiledStudy, List<Danger>> KNOWN = Collections.synchronizedMap(new WeakHashMap<>());

    private final CompiledStudy compiled;
    private final Matrix matrix;
    private final UsableEvidence evidence;
    private final StrictSeparation separation;
    private final Inheritance inheritance;

    /** How a danger fails. */
    public enum Kind {
        /** It is scored in part only: what else there is of it is in no key. */
        NOT_IN_KEY,
        JOINED,
        TOO_FEW,
        OUT_OF_REACH,
        HARD
    }

    /**
     * One way in which a danger fails in the same months, against all names alike.
     *
     * @param months numbers 1 to 12
     * @param features usable characters on different parts in the worst case: 0, 1 or 2
     */
    public record Failing(
            Kind kind,
            boolean blocking,
            List<String> others,
            List<String> otherNames,
            List<Integer> months,
            int features) {}

    /** Why a cell is not evidence against a danger yet. */
    public enum Why {
        IMPORTED,
        /** A sex, stage or part shows what its taxon does, as far as anybody knows. */
        INHERITED,
        DOUBTFUL
    }

    /**
     * A cell that somebody has to vouch for.
     *
     * @param text what it says
     * @param source where it comes from
     */
    public record CellToConfirm(
            String row, String rowName, String character, String label, String text, String source, Why why) {}

    /** What would help most. */
    public enum Remedy {
        NONE,
        /** Somebody vouches for cells. */
        CONFIRM,
        /** What separates it lies on no part that is told: then it counts as on one. */
        NAME_PARTS,
        /** More is scored. */
        SCORE
    }

    /**
     * A dangerous row.
     *
     * @param name its label with its sex or stage
     * @param cells the fewest cells, found greedily, after whose confirmation more can be ruled out
     */
    public record Danger(
            String row,
            String name,
            String label,
            String stage,
            Hazard severity,
            List<Failing> failing,
            List<CellToConfirm> cells,
            Remedy remedy) {
        public boolean isBlocked() {
            return failing.stream().anyMatch(Failing::blocking);
        }
    }

    private DangerReport(CompiledStudy compiled) {
        this.compiled = compiled;
        matrix = compiled.matrix();
        evidence = new UsableEvidence(matrix);
        separation = new StrictSeparation(matrix);
        inheritance = new Inheritance(compiled.study().rows(), compiled.scores());
    }

    /** The months that a study claims to serve, as a bit set. */
    public static int claimedMonths(StudyScope scope) {
        int months = scope.months().stream().mapToInt(m -> 1 << (m - 1)).reduce(0, (a, b) -> a | b);
        return months == 0 ? YEAR : months;
    }

    /** Every dangerous row, those that fail in nothing too. Rows of which nothing is known are in no key, and so not here. */
    public static List<Danger> of(CompiledStudy compiled) {
        // Gate, findings, next best step and the screen of dangers ask for the same.
        List<Danger> known = KNOWN.get(compiled);
        if (known == null) {
            known = List.copyOf(new DangerReport(compiled.scoredOnly()).dangers());
            KNOWN.put(compiled, known);
        }
        return known;
    }

    private List<Danger> dangers() {
        List<SafetyGate.Unmet> unmet =
                SafetyGate.unmet(matrix, claimedMonths(compiled.study().scope()));
        Map<Integer, List<SafetyGate.Unmet>> ofDanger =
                unmet.stream().collect(Collectors.groupingBy(SafetyGate.Unmet::danger));
        List<Danger> dangers = new ArrayList<>();
        for (int h = 0; h < matrix.rowCount(); h++) {
            if (matrix.row(h).hazard().isDangerous()) {
                List<SafetyGate.Unmet> own = ofDanger.getOrDefault(h, List.of());
                List<CellToConfirm> cells = cells(h, own);
                dangers.add(new Danger(
                        compiled.rows().get(h).id(),
                        compiled.rows().get(h).name(),
                        compiled.rows().get(h).label(),
                        compiled.rows().get(h).stage(),
                        matrix.row(h).hazard(),
                        failing(own),
                        cells,
                        remedy(h, own, cells)));
            }
        }
        dangers.addAll(notInKey());
        return dangers;
    }

    private List<Danger> notInKey() {
        List<Danger> found = new ArrayList<>();
        HazardTree hazards = new HazardTree(compiled.study().rows());
        for (StudyRow row : Targets.leftOut(compiled.study().rows(), compiled.scores())) {
            Hazard severity =
                    hazards.of(compiled.study().row(row.id()).orElse(row)).severity();
            if (severity.isDangerous()) {
                Failing failing = new Failing(Kind.NOT_IN_KEY, true, List.of(), List.of(), numbers(YEAR), 0);
                found.add(new Danger(
                        row.id(),
                        row.name(),
                        row.label(),
                        row.stage(),
                        severity,
                        List.of(failing),
                        List.of(),
                        Remedy.SCORE));
            }
        }
        return found;
    }

    private List<Failing> failing(List<SafetyGate.Unmet> unmet) {
        record Alike(SafetyGate.Kind kind, int months) {}
        Map<Alike, List<SafetyGate.Unmet>> groups = new LinkedHashMap<>();
        unmet.forEach(u -> groups.computeIfAbsent(new Alike(u.kind(), u.months()), k -> new ArrayList<>())
                .add(u));
        List<Failing> failing = new ArrayList<>();
        groups.forEach((alike, of) -> failing.add(new Failing(
                Kind.valueOf(alike.kind().name()),
                alike.kind().isBlocking(),
                of.stream().map(u -> compiled.rows().get(u.other()).id()).toList(),
                of.stream().map(u -> compiled.rows().get(u.other()).name()).toList(),
                numbers(alike.months()),
                of.stream().mapToInt(SafetyGate.Unmet::features).min().orElse(0))));
        failing.sort(Comparator.comparing(Failing::kind)
                .thenComparing(f -> f.months().size(), Comparator.reverseOrder()));
        return failing;
    }

    private static List<Integer> numbers(int months) {
        return IntStream.rangeClosed(1, 12)
                .filter(m -> (months & (1 << (m - 1))) != 0)
                .boxed()
                .toList();
    }

    private List<CellToConfirm> cells(int h, List<SafetyGate.Unmet> unmet) {
        Set<Integer> chosen = new TreeSet<>();
        Set<List<Integer>> cells = new LinkedHashSet<>();
        for (SafetyGate.Unmet pair : unmet) {
            boolean liftable = pair.kind() == SafetyGate.Kind.TOO_FEW || pair.kind() == SafetyGate.Kind.OUT_OF_REACH;
            if (liftable && cells.size() < MOST_CELLS) {
                Set<Integer> wanted = toConfirm(pair, chosen);
                chosen.addAll(wanted);
                for (int c : wanted) {
                    Stream.of(h, pair.other())
                            .filter(row -> !matrix.isUsable(row, c))
                            .forEach(row -> cells.add(List.of(row, c)));
                }
            }
        }
        return cells.stream()
                .flatMap(cell -> cell(cell.get(0), cell.get(1)).stream())
                .toList();
    }

    private Remedy remedy(int h, List<SafetyGate.Unmet> unmet, List<CellToConfirm> cells) {
        if (unmet.stream().noneMatch(u -> u.kind().isBlocking())) {
            return Remedy.NONE;
        }
        if (!cells.isEmpty()) {
            return Remedy.CONFIRM;
        }
        boolean parts = unmet.stream().anyMatch(u -> {
            List<Integer> separating = wouldSeparate(h, u.other());
            boolean untold = separating.stream()
                    .anyMatch(c -> compiled.characters().get(c).organ().isBlank());
            return separating.size() >= UsableEvidence.NEEDED && untold && !evidence.areOfTwoParts(separating);
        });
        return parts ? Remedy.NAME_PARTS : Remedy.SCORE;
    }

    /** Characters that would count if somebody vouched for their cells. */
    private List<Integer> wouldSeparate(int h, int other) {
        Harm harm = matrix.row(h).harm().and(matrix.row(other).harm());
        return IntStream.range(0, matrix.characterCount())
                .filter(c -> evidence.wouldSeparate(h, other, c) && separation.separates(h, other, c))
                .filter(c -> matrix.character(c).handling().advice(harm) != Handling.Advice.NEVER)
                .filter(c -> SafetyGate.isReadReliably(matrix.character(c)))
                .boxed()
                .toList();
    }

    /** What would lift a pair in some of the months in which it fails. */
    private Set<Integer> toConfirm(SafetyGate.Unmet pair, Set<Integer> chosen) {
        List<Integer> would = wouldSeparate(pair.danger(), pair.other());
        Set<List<Integer>> seasons = new LinkedHashSet<>();
        for (int month : numbers(pair.months())) {
            int bit = 1 << (month - 1);
            seasons.add(would.stream()
                    .filter(c -> (matrix.months(pair.danger(), c) & matrix.months(pair.other(), c) & bit) != 0)
                    .toList());
        }
        Set<Integer> wanted = new TreeSet<>();
        for (List<Integer> now : seasons) {
            Set<Integer> first = new TreeSet<>(chosen);
            first.addAll(wanted);
            wanted.addAll(toConfirm(pair, now, first));
        }
        return wanted;
    }

    /** Those of some characters that suffice, those that are chosen already first; none if all of them do not. */
    private List<Integer> toConfirm(SafetyGate.Unmet pair, List<Integer> now, Set<Integer> chosen) {
        List<Integer> usable = now.stream()
                .filter(c -> evidence.isUsable(pair.danger(), pair.other(), c))
                .toList();
        List<Integer> candidates = new ArrayList<>(now);
        candidates.removeAll(usable);
        List<Integer> all = new ArrayList<>(usable);
        List<Integer> wanted = new ArrayList<>();
        while (!candidates.isEmpty() && (all.size() < ENOUGH || !evidence.areOfTwoParts(all))) {
            int next = Collections.min(
                    candidates,
                    Comparator.comparing((Integer c) -> !chosen.contains(c))
                            .thenComparing(c -> !isApartFromAll(all, c))
                            .thenComparing(c -> matrix.character(c).misreading().novice()));
            candidates.remove(Integer.valueOf(next));
            if (all.size() < UsableEvidence.NEEDED || evidence.areOfTwoParts(all) || isOnAnotherPart(all, next)) {
                all.add(next);
                wanted.add(next);
            }
        }
        return evidence.areOfTwoParts(all) ? wanted : List.of();
    }

    private boolean isApartFromAll(List<Integer> characters, int c) {
        return characters.stream().allMatch(d -> matrix.character(c).isApartFrom(matrix.character(d)));
    }

    private boolean isOnAnotherPart(List<Integer> characters, int c) {
        return characters.stream().anyMatch(d -> matrix.character(c).isApartFrom(matrix.character(d)));
    }

    private Optional<CellToConfirm> cell(int row, int c) {
        StudyRow of = compiled.rows().get(row);
        StudyCharacter character = compiled.characters().get(c);
        return inheritance.effective(of.id(), character.id()).map(effective -> {
            StudyScore score = effective.score();
            Why why = score.doubtful() ? Why.DOUBTFUL : effective.inherited() ? Why.INHERITED : Why.IMPORTED;
            return new CellToConfirm(
                    of.id(),
                    of.name(),
                    character.id(),
                    character.label(),
                    NotationPrinter.print(score.value(), character),
                    score.source(),
                    why);
        });
    }
}
