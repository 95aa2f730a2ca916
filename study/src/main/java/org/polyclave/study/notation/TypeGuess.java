package org.polyclave.study.notation;

import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyCharacter.StudyState;
import org.polyclave.study.model.Units;

/** Proposes the type and the states of a column that does not name them. */
public final class TypeGuess {
    private static final Pattern WORD = Pattern.compile("\\p{L}{3,}");

    /** Headings of what is told in months; the numbers below them are months, too. */
    private static final Pattern MONTHS = Pattern.compile(
            "(?i).*\\b(seasons?|months?|phenolog\\w+|flowering (time|period)|fruiting (time|period)|flight (time|period))\\b.*"
                    + "|.*\\b(flowering|fruiting|sporing|in flower|in fruit)");
    /** Headings of what has a unit, whatever the numbers are. */
    private static final Pattern LENGTH =
            Pattern.compile("(?i).*\\b(length|width|height|breadth|diameter|diam|thickness|depth"
                    + "|long|wide|tall|high|broad|thick|wingspan|span|size)\\b.*");

    private static final Pattern MASS = Pattern.compile("(?i).*\\b(weight|mass)\\b.*");
    /** Headings of one measure in terms of another. */
    private static final Pattern RATIO =
            Pattern.compile("(?i).*(\\b(ratio|index|quotient|relative|proportion)\\b|[/:÷]).*");
    /** Headings of numbers without a unit. */
    private static final Pattern PLAIN_NUMBER = Pattern.compile(
            "(?i).*(\\b(ratio|index|quotient|number|no\\.?|count|times|relative|proportion|share)\\b|[/:÷]| per ).*");

    /** Of a column so many texts, and at least so many, must fit a type. */
    private static final int FEWEST = 3;

    private static final double MOST = 0.75;

    private static final StudyCharacter TRIAL = StudyCharacter.of("trial", CharacterType.STATES, List.of());
    private static final Map<CharacterType, StudyCharacter> TRIALS = Stream.of(CharacterType.values())
            .collect(Collectors.toMap(t -> t, t -> StudyCharacter.of("trial", t, List.of())));

    private TypeGuess() {}

    /**
     * @param open whether the numbers may be in a unit that nothing names, so that somebody must be asked
     */
    public record Guess(CharacterType type, boolean open) {}

    /**
     * The type of a column. Each text that differs is read once for each type that is tried.
     *
     * @param all its texts; dates are what spreadsheet programs make of ranges, so they tell nothing
     */
    public static Guess of(String heading, List<String> all) {
        Map<String, Integer> texts = new LinkedHashMap<>();
        all.stream().filter(t -> !DateInCell.isDate(t)).forEach(t -> texts.merge(t, 1, Integer::sum));
        boolean months = MONTHS.matcher(heading).matches();
        if (texts.isEmpty()) {
            return new Guess(months ? CharacterType.MONTHS : CharacterType.STATES, false);
        }
        boolean named =
                months || texts.keySet().stream().allMatch(t -> WORD.matcher(t).find());
        if (named && mostly(texts, CharacterType.MONTHS)) {
            return new Guess(CharacterType.MONTHS, false);
        }
        boolean numbers = mostly(texts, CharacterType.RATIO);
        if (numbers && RATIO.matcher(heading).matches()) {
            return new Guess(CharacterType.RATIO, false);
        }
        if (numbers && !PLAIN_NUMBER.matcher(heading).matches()) {
            if (LENGTH.matcher(heading).matches()) {
                return new Guess(CharacterType.LENGTH, true);
            }
            if (MASS.matcher(heading).matches()) {
                return new Guess(CharacterType.MASS, true);
            }
        }
        for (CharacterType type : withUnits(texts.keySet())) {
            if (mostly(texts, type)) {
                boolean bare =
                        texts.keySet().stream().anyMatch(t -> TrailingUnit.of(t).isEmpty() && reads(t, type));
                return new Guess(type, bare);
            }
        }
        if (mostly(texts, CharacterType.COUNT)) {
            return new Guess(CharacterType.COUNT, false);
        }
        return new Guess(numbers ? CharacterType.RATIO : CharacterType.STATES, false);
    }

    /** The types of the units that texts name. */
    private static Set<CharacterType> withUnits(Collection<String> texts) {
        Set<CharacterType> types = EnumSet.noneOf(CharacterType.class);
        texts.forEach(t -> TrailingUnit.of(t).flatMap(Units::typeOf).ifPresent(types::add));
        return types;
    }

    /** The unit that most of the texts name; empty if none does. */
    public static String unit(List<String> texts, CharacterType type) {
        Map<String, Integer> found = new LinkedHashMap<>();
        for (String text : texts) {
            TrailingUnit.of(text)
                    .filter(u -> Units.factor(type, u).isPresent())
                    .ifPresent(u -> found.merge(Units.usual(u), 1, Integer::sum));
        }
        return found.entrySet().stream()
                .max(Map.Entry.comparingByValue())
                .map(Map.Entry::getKey)
                .orElse("");
    }

    /** A slip in a column of numbers does not make states of them; of a few texts each must fit. */
    private static boolean mostly(Map<String, Integer> texts, CharacterType type) {
        int all = 0;
        int fit = 0;
        for (Map.Entry<String, Integer> text : texts.entrySet()) {
            all += text.getValue();
            fit += reads(text.getKey(), type) ? text.getValue() : 0;
        }
        return fit == all || (fit >= FEWEST && fit >= MOST * all);
    }

    private static boolean reads(String text, CharacterType type) {
        return CellNotation.parse(text, TRIALS.getOrDefault(type, TRIAL)) instanceof CellNotation.Parsed;
    }

    /** States in the order in which they first appear. */
    public static List<StudyState> states(List<String> texts) {
        Map<String, StudyState> found = new LinkedHashMap<>();
        for (String text : texts) {
            for (String part : DateInCell.isDate(text)
                    ? List.<String>of()
                    : StateTexts.of(text, TRIAL).parts()) {
                String name = StateTexts.withoutFrequency(part);
                if (!name.isEmpty()) {
                    found.putIfAbsent(name.toLowerCase(Locale.ROOT), StudyState.of(name));
                }
            }
        }
        return new ArrayList<>(found.values());
    }
}
