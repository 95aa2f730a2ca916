package org.polyclave.core.identify;

import java.util.List;
import org.polyclave.core.matrix.Handling;
import org.polyclave.core.run.PortableMath;

/**
 * The state of an any-order identification after some answers.
 *
 * @param standings every row: the likeliest name first, the rows of a name together, ties in row order
 * @param outside posterior of something that is not in the matrix
 * @param questions what to look at next, best first
 * @param margins one for each dangerous row: is it ruled out?
 * @param conclusion what can be said now
 */
public record Identification(
        List<Standing> standings,
        double outside,
        List<Question> questions,
        List<Margin> margins,
        Conclusion conclusion) {

    /**
     * Where a row stands and why.
     *
     * @param prior log2 of its share before any answer
     * @param score {@code prior} plus all contributions, in bits
     * @param posterior share after the answers
     * @param namePosterior what the rows of its name have together
     * @param struckOut whether it fell away (strike-out school)
     * @param outOfSeason whether it is not met in the months in question; it is the less likely for it, unless that is
     *     switched off, but no answer speaks against it
     * @param compared how many of the answers it is scored for
     */
    public record Standing(
            int row,
            double prior,
            double score,
            double posterior,
            double namePosterior,
            int mismatches,
            boolean struckOut,
            boolean outOfSeason,
            int compared,
            List<Contribution> contributions) {
        private static final double RIVAL = 0.002;

        /** Whether it is not yet negligible beside the likeliest. */
        boolean isRivalOf(Standing leader) {
            return firmShare(leader) >= RIVAL;
        }

        /** What it would have without the answers that must not be the only basis of a name, if that is more. */
        private double firmShare(Standing leader) {
            double beside = leader.posterior > 0 ? posterior / leader.posterior : 1;
            double firm = beside * PortableMath.exp2(leader.roughBits() - roughBits());
            double share = firm / (1 + firm);
            return share > posterior ? share : posterior;
        }

        private double roughBits() {
            double bits = 0;
            for (int k = 0; k < contributions.size(); k++) {
                bits += contributions.get(k).rough() ? contributions.get(k).bits() : 0;
            }
            return bits;
        }
    }

    /**
     * What one answer says about one row: {@code bits} for it (negative: against), relative to a chance specimen.
     *
     * @param implied whether the answer follows from an answer to a dependent character
     * @param contradicts whether the row cannot show what was seen, unless misread
     * @param known whether the row is scored for the character
     * @param rough whether the answer was told by a rule of thumb
     */
    public record Contribution(
            int character, double bits, boolean implied, boolean contradicts, boolean known, boolean rough) {}

    /**
     * A character to look at next: expected bits, bits per minute. They are of the names; once one leads by far, they are of
     * that name and those that still stand against it, at even odds.
     *
     * @param advice what to say of it while this may be in the hand
     */
    public record Question(int character, double bits, double bitsPerMinute, Handling.Advice advice) {}

    /**
     * Whether a dangerous row is ruled out by the safety rule ({@link org.polyclave.core.margin.SafetyMargin}).
     *
     * @param support S, which must reach {@code needed}
     * @param agreeing looks that speak against it so far
     * @param features usable characters on different parts that separate it from the leader, whatever the month: 0, 1 or 2
     *     and more; with fewer than two nothing here ever rules it out
     * @param safeQuestions characters that would help now without danger, best first; empty if there is none
     * @param looks what to look at, one entry a look, until it is ruled out if all agree; empty if that is not enough now
     * @param later characters that would help, but cannot be seen now
     */
    public record Margin(
            int row,
            boolean ruledOut,
            double support,
            double needed,
            int agreeing,
            int features,
            List<Integer> safeQuestions,
            List<Integer> looks,
            List<Integer> later) {
        public Margin {
            safeQuestions = List.copyOf(safeQuestions);
            looks = List.copyOf(looks);
            later = List.copyOf(later);
        }
    }

    /** What can be said. */
    public enum Kind {
        /** Questions remain that would tell more. */
        OPEN,
        /** One name: every rival is contradicted firmly, no dangerous row is left, and no sign that it must show is unseen. */
        SETTLED,
        /** Nothing more to ask that would help: these rows remain. */
        REMAINING,
        /** Perhaps something outside this key. */
        OUTSIDE,
        /** Every row was struck out. */
        NONE_LEFT
    }

    /**
     * @param rows the smallest set with posterior of at least 0.95, likeliest first
     * @param notRuledOut dangerous rows to be named with the result
     * @param notCompared rows scored for under half of the answers
     * @param mustShow characters that the likeliest row must show, and that nobody has looked at
     */
    public record Conclusion(
            Kind kind,
            List<Integer> rows,
            List<Integer> notRuledOut,
            List<Integer> notCompared,
            List<Integer> mustShow) {}

    public Identification {
        standings = List.copyOf(standings);
        questions = List.copyOf(questions);
        margins = List.copyOf(margins);
    }
}
