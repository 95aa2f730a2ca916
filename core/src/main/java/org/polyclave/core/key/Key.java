package org.polyclave.core.key;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import org.polyclave.core.measuring.RuleOfThumb;

/**
 * A dichotomous key as it is read: numbered couplets. Couplets stand in reading order; the first is where readers start.
 *
 * @param couplets may be empty when there is only one thing to name; then {@link #whole} tells it
 * @param whole the terminal of a key without couplets
 */
public record Key(List<Couplet> couplets, ToRows whole) {
    public Key {
        couplets = List.copyOf(couplets);
    }

    public static Key of(List<Couplet> couplets) {
        return new Key(couplets, new ToRows(List.of(), Reason.NONE));
    }

    /**
     * A numbered choice.
     *
     * @param from number of the couplet that leads here, empty for the first
     */
    public record Couplet(int number, OptionalInt from, List<Lead> leads) {
        public Couplet {
            leads = List.copyOf(leads);
        }
    }

    /** One of the contrasting statements of a couplet; its statements are joined by "and". */
    public record Lead(List<Statement> statements, Target to) {
        public Lead {
            statements = List.copyOf(statements);
        }
    }

    /** How far a statement can be relied on. */
    public enum Role {
        /** Decides by itself where a specimen goes. */
        DECIDING,
        /** Parts the rows of the couplet the same way by itself. */
        SUFFICIENT,
        /** Usually true; never enough alone. */
        TENDENCY
    }

    /**
     * What a reader checks: one character, and the observations that agree with the lead.
     *
     * @param doubt of its limit, where individuals that were measured leave one; never if it is about states
     * @param handy its limit in sizes that people carry with them, where that parts the same rows in nearly everybody's
     *     hands and none of them is dangerous
     */
    public record Statement(int character, Atoms atoms, Role role, Optional<Doubt> doubt, Optional<Handy> handy) {
        public Statement(int character, Atoms atoms, Role role) {
            this(character, atoms, role, Optional.empty(), Optional.empty());
        }
    }

    /** So many times a size that people carry with them. */
    public record Handy(RuleOfThumb rule, double times) {}

    /**
     * How far a limit between measured rows can be relied on.
     *
     * @param from from here to {@code to} a reading should not decide: both leads' rows may have it, or neither is known to
     * @param wrong share of new individuals of the measured rows that is expected beyond the limit
     */
    public record Doubt(double from, double to, double wrong) {}

    /** Where a lead goes. */
    public sealed interface Target {}

    public record ToCouplet(int number) implements Target {}

    /**
     * The rows at which the key stops.
     *
     * @param rows indices of rows, ascending
     */
    public record ToRows(List<Integer> rows, Reason reason) implements Target {
        public ToRows {
            rows = List.copyOf(rows);
        }
    }

    /** Why a terminal names more than one row. */
    public enum Reason {
        /** It names one row. */
        NONE,
        /** Sexes or stages of one taxon, or members of an aggregate: nobody needs to go further. */
        ONE_TAXON,
        /** Nothing in the matrix and context separates them. */
        INSEPARABLE
    }
}
