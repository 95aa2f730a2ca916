package org.polyclave.core.key;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;

/**
 * The outcome of checking a key against a matrix.
 *
 * @param failures empty when the key is proven; in reading order
 * @param observations how many (row, couplet, observation) triples were checked
 * @param complete false when the check gave up because the key was too complex; then nothing is proven
 */
public record Proof(List<Failure> failures, long observations, boolean complete) {
    public Proof {
        failures = List.copyOf(failures);
    }

    public boolean proven() {
        return complete && failures.isEmpty();
    }

    /** What can be wrong with a key. */
    public enum Kind {
        /** A specimen of the row shows something that no lead accepts. */
        NO_LEAD,
        /** A specimen of the row shows something that several leads accept. */
        SEVERAL_LEADS,
        /** A specimen of the row ends at a terminal that does not name the row. */
        WRONG_NAME,
        /** No specimen of any row ever comes to this couplet. */
        UNREACHED_COUPLET,
        /** No specimen of any row ever ends at this lead. */
        UNREACHED_TERMINAL,
        /** The row is named nowhere. */
        ROW_MISSING,
        /** Following this lead comes back to a couplet that was already passed. */
        LOOP,
        /** The lead goes to a couplet that does not exist. */
        DANGLING_TARGET,
        /** A statement that is called sufficient fails for a specimen of its lead, or holds for one of another. */
        NOT_SUFFICIENT,
        /** A tendency is true of fewer specimens of its lead than of the others. */
        CONTRARY_TENDENCY,
        /** A terminal names a row of which no specimen comes there. */
        NAMED_IN_VAIN,
        /** A terminal names several that a character would still separate. */
        COULD_BE_SEPARATED,
        /** A couplet has fewer than two leads. */
        TOO_FEW_LEADS,
        /** Two couplets have one number. */
        DUPLICATE_NUMBER,
        /** The back-reference names a couplet that does not lead here. */
        WRONG_BACK_REFERENCE
    }

    /**
     * One failure with its place.
     *
     * @param couplet number of the couplet, empty for a failure of the whole key
     * @param lead 1-based position of the lead in the couplet
     * @param row index of the row
     * @param character index of the character that was read
     * @param observed what the specimen shows there
     */
    public record Failure(
            Kind kind,
            OptionalInt couplet,
            OptionalInt lead,
            OptionalInt row,
            OptionalInt character,
            Optional<Atoms> observed) {
        static Failure at(Kind kind, int couplet) {
            return new Failure(
                    kind,
                    OptionalInt.of(couplet),
                    OptionalInt.empty(),
                    OptionalInt.empty(),
                    OptionalInt.empty(),
                    Optional.empty());
        }

        static Failure lead(Kind kind, int couplet, int lead) {
            return new Failure(
                    kind,
                    OptionalInt.of(couplet),
                    OptionalInt.of(lead + 1),
                    OptionalInt.empty(),
                    OptionalInt.empty(),
                    Optional.empty());
        }

        static Failure row(Kind kind, int row) {
            return new Failure(
                    kind,
                    OptionalInt.empty(),
                    OptionalInt.empty(),
                    OptionalInt.of(row),
                    OptionalInt.empty(),
                    Optional.empty());
        }
    }
}
