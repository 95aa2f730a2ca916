package org.polyclave.wording.key;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.key.KeyObjective;
import org.polyclave.core.key.KeyResult;
import org.polyclave.core.key.KeyRisk;
import org.polyclave.core.matrix.Hazard;

/**
 * A key in words, as screens and renderers show it.
 *
 * @param leftOut taxa, and some sexes or stages of others, that are scored but were not wanted, or show nothing of what can be
 *     seen; those that are dangerous first
 */
public record KeyView(
        String title,
        List<CoupletView> couplets,
        @Nullable TerminalView whole,
        FiguresView figures,
        List<NameView> leftOut) {
    public KeyView {
        leftOut = leftOut == null ? List.of() : List.copyOf(leftOut);
    }

    /** The same key, which leaves these taxa out. */
    public KeyView leavingOut(List<NameView> taxa) {
        return new KeyView(title, couplets, whole, figures, taxa);
    }

    /** The same key with its plain words in the place of the technical ones, for those who print it. */
    public KeyView inPlainWords() {
        return new KeyView(
                title, couplets.stream().map(CoupletView::inPlainWords).toList(), whole, figures, leftOut);
    }

    /**
     * @param from number of the couplet that leads here, null for the first
     * @param gain bits of information that the couplet gives
     * @param misread share of specimens that readers take down the wrong lead here; null in keys from before it was told
     * @param rows ids of the rows in play
     * @param duplicated ids of the rows that stand in both leads
     * @param prices what was held against the question when the key was made; empty in keys from before there were prices
     */
    public record CoupletView(
            int number,
            @Nullable Integer from,
            List<LeadView> leads,
            String character,
            double gain,
            @Nullable Double misread,
            List<String> rows,
            List<String> duplicated,
            List<PriceView> prices,
            List<AlternativeView> alternatives) {
        public CoupletView {
            prices = prices == null ? List.of() : List.copyOf(prices);
        }

        private CoupletView inPlainWords() {
            List<LeadView> plain = leads.stream().map(LeadView::inPlainWords).toList();
            return new CoupletView(
                    number, from, plain, character, gain, misread, rows, duplicated, prices, alternatives);
        }
    }

    /** @param couplet number of the couplet it goes to, null at a terminal */
    public record LeadView(
            String text,
            String plainText,
            List<StatementView> statements,
            @Nullable Integer couplet,
            @Nullable TerminalView terminal) {
        /** The same lead in plain words only. */
        public LeadView inPlainWords() {
            List<StatementView> plain = statements.stream()
                    .map(s -> new StatementView(
                            s.character(), s.plainText(), s.plainText(), s.role(), s.wrong(), s.states(), s.limits()))
                    .toList();
            return new LeadView(plainText, plainText, plain, couplet, terminal);
        }
    }

    /**
     * @param role DECIDING, SUFFICIENT or TENDENCY
     * @param wrong share of new individuals of measured rows that is expected beyond the limit; null where nothing was
     *     measured, or there is no doubt
     * @param states ids of the states that it names; none of a number, and in keys from before they were listed
     * @param limits of the numbers that it admits; null of states, and in keys from before they were told
     */
    public record StatementView(
            String character,
            String text,
            String plainText,
            String role,
            @Nullable Double wrong,
            List<String> states,
            @Nullable LimitsView limits) {
        public StatementView {
            states = states == null ? List.of() : List.copyOf(states);
        }
    }

    /** From {@code min} to {@code max}, both included, in the character's base unit; null: without end. */
    public record LimitsView(@Nullable Double min, @Nullable Double max) {}

    /**
     * @param names the rows that end here
     * @param reason why several rows stand here, or empty
     * @param group the taxon that they are all named as, where there is one; null where they have several names
     * @param notRuledOut dangerous taxa that the way here does not rule out; empty in editions from before this was told
     */
    public record TerminalView(
            List<NameView> names, String reason, @Nullable NameView group, List<OpenDangerView> notRuledOut) {
        public TerminalView {
            notRuledOut = notRuledOut == null ? List.of() : List.copyOf(notRuledOut);
        }
    }

    /**
     * A danger that a reader has not ruled out at an end.
     *
     * @param signs what else would separate it, by the characters' names; empty if nothing does
     */
    public record OpenDangerView(NameView name, List<String> signs) {}

    /**
     * A row with its hazard in words.
     *
     * @param folded its sexes, stages and parts that show nothing of their own, so that this name stands for them, too
     */
    public record NameView(
            String row,
            String label,
            String stage,
            String plain,
            String rank,
            Hazard hazard,
            String hazardText,
            List<String> folded) {
        /** As it is called where there is no room for italics. */
        public String called() {
            return stage.isEmpty() ? label : label + ", " + stage;
        }
    }

    /**
     * @param duplicated how many rows would stand in both leads
     * @param misread as in {@link CoupletView}
     * @param prices what is held against it; null in keys from before it was told
     */
    public record AlternativeView(
            String character,
            String label,
            double gain,
            int duplicated,
            @Nullable Double misread,
            @Nullable List<PriceView> prices) {}

    /**
     * What becomes of readers who go by the deciding statement of each couplet, as shares of all specimens.
     *
     * @param wrong at names that are not their specimen's
     * @param dangerousWrong the part of these whose specimen is dangerous, while no name that they are given is
     * @param stuck where what they read fits no lead
     */
    public record RiskView(double right, double wrong, double dangerousWrong, double stuck) {
        static RiskView of(KeyRisk risk) {
            return new RiskView(risk.right(), risk.wrong(), risk.dangerousWrong(), risk.stuck());
        }
    }

    /** Something that readers find awkward about a question, and what that costs, in couplets without such trouble. */
    public record PriceView(KeyResult.PriceKind kind, double couplets) {}

    /** What the key of an objective is like. */
    public record ComparedView(
            KeyObjective objective,
            int couplets,
            double expectedSteps,
            int longestPath,
            RiskView trained,
            RiskView novice) {
        static ComparedView of(KeyResult.Compared key) {
            return new ComparedView(
                    key.objective(),
                    key.couplets(),
                    key.expectedSteps(),
                    key.longestPath(),
                    RiskView.of(key.trained()),
                    RiskView.of(key.novice()));
        }
    }

    /**
     * @param leastSteps no key has fewer expected steps; null in editions from before this was worked out
     * @param trained what becomes of trained readers; null in editions from before this was worked out
     * @param novice what becomes of novices
     */
    public record FiguresView(
            int rows,
            int couplets,
            int terminals,
            double expectedSteps,
            int longestPath,
            double entropyBound,
            @Nullable Double leastSteps,
            @Nullable RiskView trained,
            @Nullable RiskView novice,
            String completion,
            boolean proven,
            long observations,
            List<String> failures) {}
}
