package org.polyclave.study.notation;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyCharacter.StudyState;
import org.polyclave.study.model.Units;

/** Proposes the type and the states of a column that does not name them. */
public final class TypeGuess {
    private static final Pattern WORD = Pattern.compile("(?i)^(always|usually|sometimes|rarely|mistaken( for)?)\\s+");

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

    private TypeGuess() {}

    /**
     * @param open whether the numbers may be in a unit that nothing names, so that somebody must be asked
     */
    public record Guess(CharacterType type, boolean open) {}

    /**
     * The type of a column.
     *
     * @param all its texts; dates are what spreadsheet programs make of ranges, so they tell nothing
     */
    public static Guess of(String heading, List<String> all) {
        List<String> texts = all.stream().filter(t -> !DateInCell.isDate(t)).toList();
        if (texts.isEmpty()) {
            return new Guess(MONTHS.matcher(heading).matches() ? CharacterType.MONTHS : CharacterType.STATES, false);
        }
        boolean named =
                MONTHS.matcher(heading).matches() || texts.stream().allMatch(t -> t.matches("(?s).*\\p{L}{3,}.*"));
        if (named && mostly(texts, CharacterType.MONTHS)) {
            return new Guess(CharacterType.MONTHS, false);
        }
        boolean numbers = mostly(texts, CharacterType.RATIO);
        boolean plain = PLAIN_NUMBER.matcher(heading).matches();
        if (numbers && RATIO.matcher(heading).matches()) {
            return new Guess(CharacterType.RATIO, false);
        }
        if (numbers && !plain && LENGTH.matcher(heading).matches()) {
            return new Guess(CharacterType.LENGTH, true);
        }
        if (numbers && !plain && MASS.matcher(heading).matches()) {
            return new Guess(CharacterType.MASS, true);
        }
        for (CharacterType type :
                List.of(CharacterType.LENGTH, CharacterType.MASS, CharacterType.ANGLE, CharacterType.PERCENT)) {
            long units = texts.stream().filter(TypeGuess::hasUnit).count();
            if (units > 0 && mostly(texts, type)) {
                boolean bare = texts.stream().anyMatch(t -> !hasUnit(t) && reads(t, type));
                return new Guess(type, bare);
            }
        }
        if (mostly(texts, CharacterType.COUNT)) {
            return new Guess(CharacterType.COUNT, false);
        }
        return new Guess(numbers ? CharacterType.RATIO : CharacterType.STATES, false);
    }

    /** The unit that most of the texts name; empty if none does. */
    public static String unit(List<String> texts, CharacterType type) {
        Map<String, Integer> found = new LinkedHashMap<>();
        for (String text : texts) {
            Matcher unit = UNIT.matcher(text.strip());
            if (unit.matches()
                    && Units.typeOf(unit.group(1)).filter(type::equals).isPresent()) {
                found.merge(Units.usual(unit.group(1)), 1, Integer::sum);
            }
        }
        return found.entrySet().stream()
                .max(Map.Entry.comparingByValue())
                .map(Map.Entry::getKey)
                .orElse("");
    }

    private static final Pattern UNIT = Pattern.compile("(?s).*[\\p{N})]\\s*(\\p{L}[\\p{L}.]*|[°%\"'″′])\\)?");

    private static boolean hasUnit(String text) {
        Matcher unit = UNIT.matcher(text.strip());
        return unit.matches() && Units.typeOf(unit.group(1)).isPresent();
    }

    /** A slip in a column of numbers does not make states of them; of a few texts each must fit. */
    private static boolean mostly(List<String> texts, CharacterType type) {
        long fit = texts.stream().filter(t -> reads(t, type)).count();
        return fit == texts.size() || (fit >= FEWEST && fit >= MOST * texts.size());
    }

    private static boolean reads(String text, CharacterType type) {
        StudyCharacter trial = StudyCharacter.of("trial", type, List.of());
        return CellNotation.parse(text, trial) instanceof CellNotation.Parsed;
    }

    /** States in the order in which they first appear. */
    public static List<StudyState> states(List<String> texts) {
        Map<String, StudyState> found = new LinkedHashMap<>();
        for (String text : texts) {
            for (String part : DateInCell.isDate(text) ? new String[0] : text.split("[,;+/]")) {
                String name = WORD.matcher(part.strip()).replaceFirst("").strip();
                if (!name.isEmpty()) {
                    found.putIfAbsent(name.toLowerCase(Locale.ROOT), StudyState.of(name));
                }
            }
        }
        return new ArrayList<>(found.values());
    }
}
