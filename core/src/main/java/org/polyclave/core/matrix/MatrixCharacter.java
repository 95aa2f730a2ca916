package org.polyclave.core.matrix;

import java.util.List;
import java.util.function.Consumer;

/**
 * A character as algorithms see it. Texts stay in the study model.
 *
 * @param id stable identifier (slug)
 * @param stateCount number of states (12 for months, 0 for numbers)
 * @param appliesWhen conditions, all of which must hold
 * @param organ index of the organ it is seen on; equal numbers are the same organ
 * @param method index of the method of observation
 * @param group index of the correlation group: agreeing answers within one group are one piece of evidence
 * @param effort minutes it takes to observe
 * @param uncertainty reading uncertainty in the base unit, 0 for categorical characters
 * @param misreading how often readers misread it
 * @param months bit set of the months in which it can be seen at all
 * @param handling what observing it does to the specimen
 * @param countsForSafety whether it may help to rule out a dangerous row; false for odours, seasons, places and behaviour
 * @param confusable per state, bit set of the states it is commonly mistaken for; empty: none is named
 * @param absence bit set of the states that say that something is not there, which never counts against a danger; of a
 *     count, 1 if 0 says so
 * @param around parts in or on which its part lies: what misleads there may mislead here
 * @param role what part it may play
 * @param seenOn share of individuals on which it is there to be seen
 */
public record MatrixCharacter(
        String id,
        CharacterType type,
        int stateCount,
        List<ControllingCondition> appliesWhen,
        int organ,
        int method,
        int group,
        double effort,
        double uncertainty,
        Misreading misreading,
        int months,
        Handling handling,
        boolean countsForSafety,
        List<Integer> confusable,
        int absence,
        List<Integer> around,
        CharacterRole role,
        double seenOn) {
    private static final double USUAL_SHARE = 0.05;
    /** Finer than anything that is measured, in mm, g, degrees or per cent. */
    private static final double DECIMALS = 1e9;

    private static final double HALF = 0.5;
    /** Every month of the year. */
    public static final int ALL_MONTHS = 0xFFF;
    /** A character takes at most this many states, so that a set of states fits one word. */
    public static final int MAX_STATES = 32;

    public MatrixCharacter {
        appliesWhen = List.copyOf(appliesWhen);
        confusable = List.copyOf(confusable);
        around = List.copyOf(around);
        if (!confusable.isEmpty() && confusable.size() != stateCount) {
            throw new IllegalArgumentException("Confusable states are named for every state or for none");
        }
    }

    /** A character that is misread alike in all rows and whose states are not commonly mistaken for one another. */
    public MatrixCharacter(
            String id,
            CharacterType type,
            int stateCount,
            List<ControllingCondition> appliesWhen,
            int organ,
            int method,
            int group,
            double effort,
            double uncertainty,
            double misreading,
            int months,
            boolean hazardousToObserve,
            boolean countsForSafety) {
        this(
                id,
                type,
                stateCount,
                appliesWhen,
                organ,
                method,
                group,
                effort,
                uncertainty,
                Misreading.of(misreading),
                months,
                hazardousToObserve ? Handling.CRUSH : Handling.NONE,
                countsForSafety,
                List.of(),
                0,
                List.of(),
                CharacterRole.DECIDES,
                1);
    }

    /** A character with everyday defaults: one minute, trained misreading 5 %, seen all year, a group of its own. */
    public static MatrixCharacter of(String id, CharacterType type, int stateCount, int index) {
        return new MatrixCharacter(
                id,
                type,
                stateCount,
                List.of(),
                index,
                0,
                index,
                1,
                0,
                Misreading.TRAINED_DEFAULT,
                ALL_MONTHS,
                false,
                true);
    }

    /** The same character with these conditions. */
    public MatrixCharacter when(List<ControllingCondition> conditions) {
        return copy(c -> c.appliesWhen = conditions);
    }

    /** The same character, read less exactly. */
    public MatrixCharacter withUncertainty(double other) {
        return copy(c -> c.uncertainty = other);
    }

    /** The same character, misread otherwise. */
    public MatrixCharacter withMisreading(Misreading other) {
        return copy(c -> c.misreading = other);
    }

    /** The same character, some states of which say that something is not there. */
    public MatrixCharacter withAbsence(int states) {
        return copy(c -> c.absence = states);
    }

    /** The same character on another part. */
    public MatrixCharacter on(int part, List<Integer> partsAround) {
        return copy(c -> {
            c.organ = part;
            c.around = partsAround;
        });
    }

    /** The same character, observed by handling the specimen. */
    public MatrixCharacter by(Handling other) {
        return copy(c -> c.handling = other);
    }

    /** The same character, as no help against dangers: an odour, a season, a place, behaviour. */
    public MatrixCharacter withoutSafety() {
        return copy(c -> c.countsForSafety = false);
    }

    /** The same character, playing another part; what does not decide is no help against dangers either. */
    public MatrixCharacter as(CharacterRole other) {
        return copy(c -> {
            c.role = other;
            c.countsForSafety &= other.decides();
        });
    }

    /** The same character, there to be seen on some individuals only. */
    public MatrixCharacter seenOn(double share) {
        return copy(c -> c.seenOn = share);
    }

    private MatrixCharacter copy(Consumer<Copy> change) {
        Copy copy = new Copy(this);
        change.accept(copy);
        return copy.character();
    }

    /** A character on its way to the next: of so many parts no change names those that stay. */
    private static final class Copy {
        private final MatrixCharacter of;
        private List<ControllingCondition> appliesWhen;
        private int organ;
        private double uncertainty;
        private Misreading misreading;
        private Handling handling;
        private boolean countsForSafety;
        private int absence;
        private List<Integer> around;
        private CharacterRole role;
        private double seenOn;

        Copy(MatrixCharacter of) {
            this.of = of;
            appliesWhen = of.appliesWhen;
            organ = of.organ;
            uncertainty = of.uncertainty;
            misreading = of.misreading;
            handling = of.handling;
            countsForSafety = of.countsForSafety;
            absence = of.absence;
            around = of.around;
            role = of.role;
            seenOn = of.seenOn;
        }

        MatrixCharacter character() {
            return new MatrixCharacter(
                    of.id,
                    of.type,
                    of.stateCount,
                    appliesWhen,
                    organ,
                    of.method,
                    of.group,
                    of.effort,
                    uncertainty,
                    misreading,
                    of.months,
                    handling,
                    countsForSafety,
                    of.confusable,
                    absence,
                    around,
                    role,
                    seenOn);
        }
    }

    /** Whether it takes touching, digging, cutting, crushing or smelling. */
    public boolean isHandling() {
        return handling != Handling.NONE;
    }

    /** Whether this and another are seen on two parts of which neither lies in the other. */
    public boolean isApartFrom(MatrixCharacter other) {
        return organ != other.organ && !around.contains(other.organ) && !other.around.contains(organ);
    }

    /** The part in or on which its own part lies, or its own: what misleads there misleads in all of it. */
    public int outermostPart() {
        return around.isEmpty() ? organ : around.get(around.size() - 1);
    }

    /** Bit set of the states that {@code state} is commonly mistaken for. */
    public int confusable(int state) {
        return confusable.isEmpty() ? 0 : confusable.get(state) & ~(1 << state);
    }

    /** Bit set of all its states. */
    public int allStates() {
        return stateCount >= 32 ? -1 : (1 << stateCount) - 1;
    }

    /**
     * Give or take of a reading of which nothing else is said: half of a count, else the stated uncertainty, else
     * {@value #USUAL_SHARE} of the value. Whoever states no uncertainty does not claim to measure without any.
     */
    public double giveOrTake(double value) {
        if (type == CharacterType.COUNT) {
            return HALF;
        }
        return uncertainty > 0 ? uncertainty : USUAL_SHARE * value;
    }

    /** The value that is read as {@code reading} by somebody who is off by a part of the give or take, from -1 to 1. */
    public double actual(double reading, double off) {
        if (type == CharacterType.COUNT) {
            return reading;
        }
        return uncertainty > 0 ? reading - off * uncertainty : reading / (1 + off * USUAL_SHARE);
    }

    /**
     * How far a range is widened on each side before two ranges count as apart: half the reading uncertainty, so that a
     * gap smaller than the uncertainty separates nothing. Counts are not widened.
     */
    public double margin() {
        return type == CharacterType.COUNT ? 0 : uncertainty / 2;
    }

    /** The least reading of a range from {@code min}: widened, and without the noise of binary fractions. */
    public double least(double min) {
        return decimal(min - margin());
    }

    /** The greatest reading of a range up to {@code max}. */
    public double greatest(double max) {
        return decimal(max + margin());
    }

    /** Ranges have to be more than this apart: the uncertainty of a reading, and the noise of binary fractions. */
    public double gap() {
        return 2 * margin() + 1 / DECIMALS;
    }

    /** Without noise, 3.5 + 0.05 and 3.6 − 0.05 are the same place, between which no limit lies. */
    private static double decimal(double x) {
        return Double.isInfinite(x) ? x : Math.floor(x * DECIMALS + HALF) / DECIMALS;
    }
}
