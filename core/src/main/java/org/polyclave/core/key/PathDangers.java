package org.polyclave.core.key;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.IntStream;
import org.polyclave.core.evidence.UsableEvidence;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Handling;
import org.polyclave.core.matrix.Harm;
import org.polyclave.core.matrix.Matrix;

/**
 * The dangers that a reader of a couplet key has not ruled out at its end. On the way there, two usable features on two parts
 * must separate a dangerous name from every row of the end; tendencies do not count. Ends that are dangerous themselves say so
 * already. It takes O(couplets on a path · ends · dangers) time.
 */
public final class PathDangers {
    private static final int SIGNS = 3;

    private final Matrix matrix;
    private final UsableEvidence evidence;
    private final int[] dangerous;
    /** By danger, what could count against it. */
    private final Map<Integer, List<Integer>> usable = new HashMap<>();
    /** By end itself: two that name the same may be reached on different ways. */
    private final IdentityHashMap<Key.ToRows, Map<Integer, NotRuledOut>> found = new IdentityHashMap<>();

    /**
     * A dangerous row that is still open.
     *
     * @param signs what else would separate it from all rows of the end, other parts than were seen first; at most three
     */
    public record NotRuledOut(int danger, List<Integer> signs) {}

    private PathDangers(Matrix matrix) {
        this.matrix = matrix;
        evidence = new UsableEvidence(matrix);
        dangerous = IntStream.range(0, matrix.rowCount())
                .filter(h -> matrix.row(h).hazard().isDangerous())
                .toArray();
    }

    /** For each end of a key, by identity: each dangerous name once. */
    public static IdentityHashMap<Key.ToRows, List<NotRuledOut>> of(Matrix matrix, Key key) {
        PathDangers dangers = new PathDangers(matrix);
        Map<Integer, Key.Couplet> couplets = new HashMap<>();
        key.couplets().forEach(c -> couplets.putIfAbsent(c.number(), c));
        if (key.couplets().isEmpty()) {
            dangers.end(key.whole(), List.of());
        } else {
            dangers.follow(key.couplets().get(0), couplets, new ArrayList<>(), new HashSet<>());
        }
        IdentityHashMap<Key.ToRows, List<NotRuledOut>> all = new IdentityHashMap<>();
        dangers.found.forEach((end, of) -> all.put(end, List.copyOf(of.values())));
        return all;
    }

    private void follow(
            Key.Couplet couplet, Map<Integer, Key.Couplet> couplets, List<Key.Statement> path, Set<Integer> passed) {
        // A foreign key may lead in circles: its proof says so.
        if (!passed.add(couplet.number())) {
            return;
        }
        for (Key.Lead lead : couplet.leads()) {
            List<Key.Statement> further = new ArrayList<>(path);
            lead.statements().stream()
                    .filter(s -> s.role() != Key.Role.TENDENCY)
                    .forEach(further::add);
            if (lead.to() instanceof Key.ToRows end) {
                end(end, further);
            } else if (lead.to() instanceof Key.ToCouplet next && couplets.containsKey(next.number())) {
                follow(couplets.get(next.number()), couplets, further, passed);
            }
        }
        passed.remove(couplet.number());
    }

    private void end(Key.ToRows end, List<Key.Statement> path) {
        Map<Integer, NotRuledOut> open = found.computeIfAbsent(end, e -> new LinkedHashMap<>());
        if (end.rows().stream()
                .anyMatch(j -> matrix.isDangerousName(matrix.row(j).name()))) {
            return;
        }
        for (int h : dangerous) {
            List<Integer> used = used(h, end, path);
            if (evidence.features(used) < UsableEvidence.NEEDED) {
                open.putIfAbsent(matrix.row(h).name(), new NotRuledOut(h, signs(h, end, used)));
            }
        }
    }

    /** Characters of the path by which the danger cannot come here, and that count against it. */
    private List<Integer> used(int danger, Key.ToRows end, List<Key.Statement> path) {
        List<Integer> used = new ArrayList<>();
        for (Key.Statement statement : path) {
            int c = statement.character();
            if (!used.contains(c) && excludes(statement, danger) && separates(danger, end, c)) {
                used.add(c);
            }
        }
        return used;
    }

    private boolean separates(int danger, Key.ToRows end, int character) {
        for (int row : end.rows()) {
            if (!evidence.separates(danger, row, character)) {
                return false;
            }
        }
        return true;
    }

    private boolean excludes(Key.Statement statement, int row) {
        Cell cell = matrix.cell(row, statement.character());
        if (cell instanceof Cell.Categorical shown && statement.atoms() instanceof Atoms.States wanted) {
            return (shown.readable() & wanted.mask()) == 0;
        }
        boolean whole = matrix.character(statement.character()).type() == CharacterType.COUNT;
        return cell instanceof Cell.Numeric range
                && statement.atoms() instanceof Atoms.Interval wanted
                && wanted.and(Atoms.Interval.closed(range.min(), range.max())).isEmpty(whole);
    }

    /** Those of other parts first, in each the ones that novices misread least. */
    private List<Integer> signs(int danger, Key.ToRows end, List<Integer> used) {
        List<Integer> elsewhere = new ArrayList<>();
        List<Integer> there = new ArrayList<>();
        for (int c : usable.computeIfAbsent(danger, this::leastMisreadFirst)) {
            List<Integer> alike = isOfAnotherPart(c, used) ? elsewhere : there;
            if (alike.size() < SIGNS && !used.contains(c) && mayBeDone(danger, end, c) && separates(danger, end, c)) {
                alike.add(c);
            }
            if (elsewhere.size() == SIGNS) {
                break;
            }
        }
        elsewhere.addAll(there);
        return List.copyOf(elsewhere.subList(0, Math.min(SIGNS, elsewhere.size())));
    }

    /** The characters that could count against a danger, whatever the other row is. */
    private List<Integer> leastMisreadFirst(int danger) {
        return IntStream.range(0, matrix.characterCount())
                .filter(c -> evidence.isUsable(danger, danger, c))
                .boxed()
                .sorted(Comparator.comparing(
                        c -> matrix.character(c).misreading().novice()))
                .toList();
    }

    private boolean mayBeDone(int danger, Key.ToRows end, int character) {
        Handling handling = matrix.character(character).handling();
        for (int row : end.rows()) {
            Harm harm = matrix.row(danger).harm().and(matrix.row(row).harm());
            if (handling.advice(harm) == Handling.Advice.NEVER) {
                return false;
            }
        }
        return true;
    }

    private boolean isOfAnotherPart(int character, List<Integer> used) {
        return used.stream().allMatch(u -> matrix.character(character).isApartFrom(matrix.character(u)));
    }
}
