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
        for (int h = 0; h < matrix.rowCount(); h++) {
            if (matrix.row(h).hazard().isDangerous()) {
                List<Integer> used = used(h, end, path);
                if (evidence.features(used) < UsableEvidence.NEEDED) {
                    open.putIfAbsent(matrix.row(h).name(), new NotRuledOut(h, signs(h, end, used)));
                }
            }
        }
    }

    /** Characters of the path by which the danger cannot come here, and that count against it. */
    private List<Integer> used(int danger, Key.ToRows end, List<Key.Statement> path) {
        return path.stream()
                .filter(s -> excludes(s, danger) && separates(danger, end, s.character()))
                .map(Key.Statement::character)
                .distinct()
                .toList();
    }

    private boolean separates(int danger, Key.ToRows end, int character) {
        return end.rows().stream().allMatch(j -> evidence.separates(danger, j, character));
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

    private List<Integer> signs(int danger, Key.ToRows end, List<Integer> used) {
        return IntStream.range(0, matrix.characterCount())
                .filter(c -> !used.contains(c) && separates(danger, end, c))
                .filter(c -> end.rows().stream()
                        .allMatch(j -> matrix.character(c)
                                        .handling()
                                        .advice(matrix.row(danger)
                                                .harm()
                                                .and(matrix.row(j).harm()))
                                != Handling.Advice.NEVER))
                .boxed()
                .sorted(Comparator.comparing((Integer c) -> !isOfAnotherPart(c, used))
                        .thenComparing(c -> matrix.character(c).misreading().novice()))
                .limit(SIGNS)
                .toList();
    }

    private boolean isOfAnotherPart(int character, List<Integer> used) {
        return used.stream().allMatch(u -> matrix.character(character).isApartFrom(matrix.character(u)));
    }
}
