package org.polyclave.core.key;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.polyclave.core.key.Atoms.Interval;
import org.polyclave.core.key.Atoms.States;
import org.polyclave.core.key.Key.Couplet;
import org.polyclave.core.key.Key.Lead;
import org.polyclave.core.key.Key.Statement;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;

/**
 * What the rows that come by each lead of a key show there: a lead names what occurs in it ("2–5 mm" against "8–12 mm"), not
 * all that it would accept. Rows are followed one by one, each character by itself, so that what only excludes one another on
 * one individual may both be named. Time O(couplets on a path · rows · statements).
 */
public final class Occurring {
    private final Matrix matrix;
    private final Map<Integer, Couplet> couplets = new HashMap<>();
    private final IdentityHashMap<Statement, Shown> found = new IdentityHashMap<>();

    /**
     * What occurs in a statement.
     *
     * @param atoms what rows that come by its lead show, within what the statement accepts; empty where no such row is scored
     * @param rows those that come by its lead
     * @param lacking rows that come to its couplet, and to which its character does not apply
     */
    public record Shown(Optional<Atoms> atoms, List<Integer> rows, List<Integer> lacking) {
        public Shown {
            rows = List.copyOf(rows);
            lacking = List.copyOf(lacking);
        }
    }

    private Occurring(Matrix matrix) {
        this.matrix = matrix;
    }

    /** Statements are told apart by identity. Of couplets to which several leads go, the first way is followed. */
    public static Occurring of(Matrix matrix, Key key) {
        Occurring occurring = new Occurring(matrix);
        for (Couplet couplet : key.couplets()) {
            occurring.couplets.putIfAbsent(couplet.number(), couplet);
        }
        List<SupportBox> all = new ArrayList<>();
        for (int row = 0; row < matrix.rowCount(); row++) {
            all.add(new SupportBox(matrix, row));
        }
        if (!key.couplets().isEmpty()) {
            occurring.follow(key.couplets().get(0), all, new HashSet<>());
        }
        return occurring;
    }

    /** What occurs in a statement; nothing in one of another key, or at a couplet that cannot be reached. */
    public Shown in(Statement statement) {
        Shown shown = found.get(statement);
        return shown == null ? new Shown(Optional.empty(), List.of(), List.of()) : shown;
    }

    private void follow(Couplet couplet, List<SupportBox> boxes, Set<Integer> passed) {
        // A foreign key may lead in circles: its proof says so.
        if (!passed.add(couplet.number())) {
            return;
        }
        for (Lead lead : couplet.leads()) {
            List<SupportBox> coming = coming(lead, boxes);
            for (Statement statement : lead.statements()) {
                found.put(statement, shown(statement, coming, boxes));
            }
            if (lead.to() instanceof Key.ToCouplet next && couplets.containsKey(next.number())) {
                follow(couplets.get(next.number()), coming, passed);
            }
        }
    }

    /** Copies of the boxes that the deciding statements let in, narrowed to what these accept. */
    private static List<SupportBox> coming(Lead lead, List<SupportBox> boxes) {
        List<SupportBox> coming = new ArrayList<>();
        for (SupportBox box : boxes) {
            SupportBox left = box.copy();
            boolean agrees = true;
            for (Statement statement : lead.statements()) {
                if (statement.role() == Key.Role.DECIDING) {
                    agrees &= left.narrow(statement, new ArrayList<>());
                }
            }
            if (agrees) {
                coming.add(left);
            }
        }
        return coming;
    }

    private Shown shown(Statement statement, List<SupportBox> coming, List<SupportBox> arriving) {
        int c = statement.character();
        List<Integer> lacking = new ArrayList<>();
        for (SupportBox box : arriving) {
            if (box.existence(c) == SupportBox.Existence.IMPOSSIBLE) {
                lacking.add(box.row());
            }
        }
        List<Integer> rows = new ArrayList<>();
        Optional<Atoms> all = Optional.empty();
        for (SupportBox box : coming) {
            rows.add(box.row());
            if (box.isKnown(c) && box.existence(c) != SupportBox.Existence.IMPOSSIBLE) {
                Optional<Atoms> own = own(box, statement);
                all = all.isEmpty() ? own : own.isEmpty() ? all : Optional.of(joined(all.get(), own.get()));
            }
        }
        return new Shown(all, rows, lacking);
    }

    /**
     * What is left of a row's own score within a statement; with what reading it adds to a range only where nothing else is
     * left.
     */
    private Optional<Atoms> own(SupportBox box, Statement statement) {
        int c = statement.character();
        MatrixCharacter character = matrix.character(c);
        if (matrix.cell(box.row(), c) instanceof Cell.Numeric range) {
            boolean whole = character.type() == CharacterType.COUNT;
            Interval readable = ((Interval) box.atoms(c)).and((Interval) statement.atoms());
            Interval both = Interval.closed(range.min(), range.max()).and(readable);
            Interval left = both.isEmpty(whole) ? readable : both;
            return left.isEmpty(whole) ? Optional.empty() : Optional.of(left);
        }
        int mask = ((States) box.atoms(c)).mask() & ((States) statement.atoms()).mask();
        return mask == 0 ? Optional.empty() : Optional.of(new States(mask));
    }

    private static Atoms joined(Atoms first, Atoms second) {
        if (first instanceof States mine) {
            return new States(mine.mask() | ((States) second).mask());
        }
        Interval p = (Interval) first;
        Interval q = (Interval) second;
        Interval lower = p.min() < q.min() || (p.min() == q.min() && !p.minExclusive()) ? p : q;
        Interval upper = p.max() > q.max() || (p.max() == q.max() && !p.maxExclusive()) ? p : q;
        return new Interval(lower.min(), upper.max(), lower.minExclusive(), upper.maxExclusive());
    }
}
