package org.polyclave.study.agreement;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.agreement.Agreement;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.model.Opinion;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.notation.NotationPrinter;

/**
 * Agreement of the scorers of a study, character by character, and the cells that they have to settle. Two scores agree if
 * they say the same; ranges agree if their ordinary parts overlap by half of the shorter one at least. Opinions on rows,
 * characters or states that are gone say nothing. Time linear in the opinions and the scores of their cells.
 */
public final class ScorerAgreement {
    /** Name of whoever made the accepted score, where the score does not say. */
    public static final String AUTHOR = "author";

    /** Accepted scores of the cells on which there are opinions. */
    private final Map<String, StudyScore> accepted = new HashMap<>();
    /** Place of each row in the study. */
    private final Map<String, Integer> places = new HashMap<>();

    private ScorerAgreement(Study study) {
        Set<String> cells = new HashSet<>();
        study.opinions().forEach(o -> cells.add(o.row() + '.' + o.character()));
        for (StudyScore score : cells.isEmpty() ? List.<StudyScore>of() : study.scores()) {
            String cell = score.row() + '.' + score.character();
            if (cells.contains(cell)) {
                accepted.put(cell, score);
            }
        }
        study.rows().forEach(r -> places.put(r.id(), places.size()));
    }

    /**
     * A character that two or more scored.
     *
     * @param scorers names
     * @param kappa null where it cannot be had
     * @param alpha null where it cannot be had
     * @param toSettle ids of the rows of which the scorers do not agree, not settled yet
     */
    public record CharacterAgreement(
            String character,
            List<String> scorers,
            int cells,
            int differing,
            double percent,
            @Nullable Double kappa,
            @Nullable Double alpha,
            List<String> toSettle) {}

    /** One scorer's score of a cell, as it is printed. */
    public record HeldScore(String scorer, String text, boolean doubtful, String note, String date, boolean accepted) {}

    public static List<CharacterAgreement> of(Study study) {
        ScorerAgreement agreement = new ScorerAgreement(study);
        Map<String, List<Opinion>> byCharacter = new LinkedHashMap<>();
        for (Opinion opinion : study.opinions()) {
            byCharacter
                    .computeIfAbsent(opinion.character(), c -> new ArrayList<>())
                    .add(opinion);
        }
        List<CharacterAgreement> found = new ArrayList<>();
        for (StudyCharacter character : study.characters()) {
            List<Opinion> opinions = byCharacter.getOrDefault(character.id(), List.of()).stream()
                    .filter(o -> agreement.isOfThisStudy(o, character))
                    .toList();
            if (!opinions.isEmpty()) {
                agreement.of(character, opinions).ifPresent(found::add);
            }
        }
        return found;
    }

    /** What each scorer holds of a cell, the accepted score first. */
    public static List<HeldScore> cell(Study study, String row, String character) {
        ScorerAgreement agreement = new ScorerAgreement(study);
        Optional<StudyCharacter> known = study.character(character);
        if (known.isEmpty()) {
            return List.of();
        }
        List<HeldScore> held = new ArrayList<>();
        StudyScore score = agreement.accepted.get(row + '.' + character);
        if (score != null) {
            String text = NotationPrinter.print(score.value(), known.get());
            held.add(new HeldScore(scorer(score), text, score.doubtful(), score.note(), score.date(), true));
        }
        for (Opinion opinion : study.opinions()) {
            boolean here = opinion.row().equals(row) && opinion.character().equals(character);
            if (here && agreement.isOfThisStudy(opinion, known.get())) {
                String text = NotationPrinter.print(opinion.value(), known.get());
                held.add(new HeldScore(
                        opinion.scorer(), text, opinion.doubtful(), opinion.note(), opinion.date(), false));
            }
        }
        return held;
    }

    private boolean isOfThisStudy(Opinion opinion, StudyCharacter character) {
        boolean fits = !(opinion.value() instanceof ScoreValue.States states)
                || states.shown().stream().allMatch(s -> character.indexOf(s.state()) >= 0);
        return fits && places.containsKey(opinion.row());
    }

    private Optional<CharacterAgreement> of(StudyCharacter character, List<Opinion> opinions) {
        TreeSet<String> rows =
                new TreeSet<>(Comparator.comparing((String r) -> places.getOrDefault(r, Integer.MAX_VALUE)));
        Map<String, Map<String, ScoreValue>> byScorer = new TreeMap<>();
        TreeSet<String> open = new TreeSet<>();
        for (Opinion opinion : opinions) {
            rows.add(opinion.row());
            byScorer.computeIfAbsent(opinion.scorer(), s -> new LinkedHashMap<>())
                    .put(opinion.row(), opinion.value());
            if (!opinion.settled()) {
                open.add(opinion.row());
            }
        }
        // Once a cell is settled, what its first scorer held is among the opinions.
        for (String row : open) {
            StudyScore score = accepted.get(row + '.' + character.id());
            if (score != null) {
                byScorer.computeIfAbsent(scorer(score), s -> new LinkedHashMap<>())
                        .putIfAbsent(row, score.value());
            }
        }
        if (byScorer.size() < 2) {
            return Optional.empty();
        }
        List<String> units = List.copyOf(rows);
        double[][] ratings = ratings(character, byScorer, units);
        Agreement.Result figures = Agreement.of(ratings, scale(character, byScorer));
        if (figures.units() == 0) {
            return Optional.empty();
        }
        List<String> toSettle = new ArrayList<>();
        for (int u = 0; u < units.size(); u++) {
            if (open.contains(units.get(u)) && differs(ratings, u)) {
                toSettle.add(units.get(u));
            }
        }
        return Optional.of(new CharacterAgreement(
                character.id(),
                List.copyOf(byScorer.keySet()),
                figures.units(),
                figures.differing(),
                figures.percent(),
                known(figures.kappa()),
                known(figures.alpha()),
                toSettle));
    }

    private static @Nullable Double known(double figure) {
        return Double.isNaN(figure) ? null : figure;
    }

    private static String scorer(StudyScore score) {
        return score.scorer().isEmpty() ? AUTHOR : score.scorer();
    }

    private static boolean differs(double[][] ratings, int unit) {
        double first = Double.NaN;
        for (double[] scorer : ratings) {
            if (!Double.isNaN(first) && !Double.isNaN(scorer[unit]) && scorer[unit] != first) {
                return true;
            }
            first = Double.isNaN(scorer[unit]) ? first : scorer[unit];
        }
        return false;
    }

    /** Ordered states are as far apart as their places, as long as every score is one state. */
    private static Agreement.Scale scale(StudyCharacter character, Map<String, Map<String, ScoreValue>> byScorer) {
        boolean single = byScorer.values().stream()
                .flatMap(m -> m.values().stream())
                .allMatch(v ->
                        v instanceof ScoreValue.States states && states.shown().size() == 1);
        if (character.type() == CharacterType.ORDERED && single) {
            return Agreement.Scale.ORDINAL;
        }
        return Agreement.Scale.NOMINAL;
    }

    private static double[][] ratings(
            StudyCharacter character, Map<String, Map<String, ScoreValue>> byScorer, List<String> units) {
        double[][] ratings = new double[byScorer.size()][units.size()];
        Map<Object, Double> names = new LinkedHashMap<>();
        for (int u = 0; u < units.size(); u++) {
            List<ScoreValue.Range> ranges = new ArrayList<>();
            int s = 0;
            for (Map<String, ScoreValue> scorer : byScorer.values()) {
                ScoreValue value = scorer.get(units.get(u));
                ratings[s++][u] = value == null ? Double.NaN : rating(value, character, names, ranges);
            }
        }
        return ratings;
    }

    private static double rating(
            ScoreValue value, StudyCharacter character, Map<Object, Double> names, List<ScoreValue.Range> ranges) {
        Object says = value;
        if (value instanceof ScoreValue.Range range) {
            says = ranges.stream().filter(r -> agree(r, range)).findFirst().orElse(range);
            ranges.add((ScoreValue.Range) says);
        } else if (value instanceof ScoreValue.States states && states.shown().size() == 1) {
            String state = states.shown().get(0).state();
            return character.indexOf(state);
        }
        return names.computeIfAbsent(says, v -> 100.0 + names.size());
    }

    private static boolean agree(ScoreValue.Range a, ScoreValue.Range b) {
        double topA = top(a);
        double topB = top(b);
        double common = Math.min(topA, topB) - Math.max(a.low(), b.low());
        double shorter = Math.min(topA - a.low(), topB - b.low());
        return common >= 0 && common >= shorter / 2;
    }

    private static double top(ScoreValue.Range range) {
        Double high = range.high() == null ? range.max() : range.high();
        return high == null ? range.low() : high;
    }
}
