package org.polyclave.study.checks;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.compile.Inheritance;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.Units;
import org.polyclave.study.notation.NotationPrinter;

/**
 * Holds what descriptions say in prose against the scores: numbers with their units, counts, what is said to be there or not,
 * and states of a part. A clause speaks of the part that it names, or of that of the clause before it in its sentence. Only
 * what is understood for certain is told. Time O(length of the texts · characters).
 */
final class ProseCheck {
    private static final double LEEWAY = 1.1;
    private static final String NUMBER = "(\\d+(?:[.,]\\d+)?)";
    private static final Pattern SIZE =
            Pattern.compile(NUMBER + "(?:\\s*(?:–|-|to)\\s*" + NUMBER + ")?\\s*(um|µm|mm|cm|m|in|ft|mg|g|kg|oz|lb)\\b");
    private static final String WHOLE = "(?:\\d+|one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve)";
    private static final String WHOLES = "(?<low>" + WHOLE + ")(?:\\s*(?:–|-|to|or)\\s*(?<high>" + WHOLE + "))?";
    /** "five petals", "4–6 broad petals". */
    private static final Pattern COUNT =
            Pattern.compile("(?U)\\b" + WHOLES + "\\s+(?<what>(?:\\p{L}+\\s+){0,2}\\p{L}+)");
    /** "petals 5", "number of petals: 4–6". */
    private static final Pattern COUNT_AFTER =
            Pattern.compile("(?U)(?<what>(?:\\p{L}+\\s+){0,3}\\p{L}+)\\s+(?:is |are )?" + WHOLES);

    private static final Pattern CLAUSE = Pattern.compile("[;:]|[.,](?!\\d)|\\b(?:and|but|with)\\b(?=[^.;]*\\d)");
    private static final Pattern SENTENCE = Pattern.compile("\\.(?!\\d)");
    private static final Pattern HEDGED = Pattern.compile(
            "(?U)\\b(rarely|sometimes|seldom|often|usually|occasionally|not|never|no|without|unlike|or)\\b");
    private static final List<String> NUMERALS = List.of(
            "zero", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve");
    private static final Map<String, Set<String>> DIMENSIONS = Map.of(
            "length", Set.of("long", "length"),
            "width", Set.of("wide", "width", "broad", "across"),
            "height", Set.of("high", "tall", "height"),
            "diameter", Set.of("across", "diameter", "wide"),
            "thickness", Set.of("thick", "thickness"),
            "depth", Set.of("deep", "depth"));
    private static final Set<String> EMPTY_WORDS = Set.of(
            "of",
            "the",
            "on",
            "in",
            "at",
            "a",
            "an",
            "number",
            "count",
            "presence",
            "how",
            "many",
            "to",
            "by",
            "and",
            "weight",
            "mass",
            "size");

    private final CompiledStudy compiled;
    private final Inheritance inheritance;
    private final List<Subject> subjects;
    private final Set<String> organs;
    private final List<StudyFinding> found = new ArrayList<>();

    /**
     * What prose calls a character.
     *
     * @param nouns stems that a clause must name
     * @param main the last of them: what is counted, or there or not
     * @param dimension words for its dimension, where its label has one
     */
    private record Subject(StudyCharacter character, Set<String> nouns, String main, Set<String> dimension) {}

    private ProseCheck(CompiledStudy compiled) {
        this.compiled = compiled;
        inheritance = new Inheritance(compiled.study().rows(), compiled.scores());
        subjects = compiled.characters().stream().map(ProseCheck::subject).toList();
        organs = compiled.characters().stream()
                .flatMap(c -> stems(c.organ()).stream())
                .collect(Collectors.toSet());
    }

    static List<StudyFinding> of(CompiledStudy compiled) {
        ProseCheck check = new ProseCheck(compiled);
        for (StudyRow row : compiled.study().rows()) {
            if (!row.description().isBlank()) {
                check.text(row);
            }
        }
        return check.found;
    }

    private static Subject subject(StudyCharacter character) {
        List<String> nouns = new ArrayList<>();
        Set<String> dimension = Set.of();
        for (String word : stems(character.label())) {
            if (DIMENSIONS.containsKey(word)) {
                dimension = DIMENSIONS.getOrDefault(word, Set.of());
            } else if (!EMPTY_WORDS.contains(word)) {
                nouns.add(word);
            }
        }
        if (nouns.isEmpty()) {
            nouns.addAll(stems(character.organ()));
        }
        List<String> own = nouns.stream()
                .filter(n -> !stems(character.organ()).contains(n))
                .toList();
        String main = own.isEmpty() ? (nouns.isEmpty() ? "" : nouns.get(nouns.size() - 1)) : own.get(own.size() - 1);
        Set<String> all = new LinkedHashSet<>(nouns);
        return new Subject(character, all, main, dimension);
    }

    private static List<String> stems(String text) {
        return Arrays.stream(text.toLowerCase(Locale.ROOT).split("[^\\p{L}]+"))
                .filter(w -> !w.isEmpty())
                .map(ProseCheck::stem)
                .toList();
    }

    /** The singular, as far as endings tell. */
    private static String stem(String word) {
        if (word.endsWith("leaves")) {
            return word.substring(0, word.length() - 3) + "f";
        }
        if (word.equals("teeth")) {
            return "tooth";
        }
        if (word.length() > 4 && word.endsWith("ies")) {
            return word.substring(0, word.length() - 3) + "y";
        }
        if (word.length() > 3
                && word.endsWith("s")
                && !word.endsWith("ss")
                && !word.endsWith("us")
                && !word.endsWith("is")) {
            return word.endsWith("ches") || word.endsWith("shes") || word.endsWith("xes")
                    ? word.substring(0, word.length() - 2)
                    : word.substring(0, word.length() - 1);
        }
        return word;
    }

    private void text(StudyRow row) {
        for (String sentence : SENTENCE.split(row.description().toLowerCase(Locale.ROOT))) {
            Set<String> part = Set.of();
            for (String clause : CLAUSE.split(sentence)) {
                Set<String> words = new LinkedHashSet<>(stems(clause));
                Set<String> named = words.stream().filter(organs::contains).collect(Collectors.toSet());
                part = named.isEmpty() ? part : named;
                Set<String> about = new LinkedHashSet<>(words);
                about.addAll(part);
                clause(row, clause, words, about);
            }
        }
    }

    private void clause(StudyRow row, String clause, Set<String> words, Set<String> about) {
        for (Subject subject : subjects) {
            if (about.containsAll(subject.nouns()) && !subject.nouns().isEmpty()) {
                switch (subject.character().type()) {
                    case LENGTH, MASS -> size(row, subject, clause, words);
                    case COUNT -> count(row, subject, clause);
                    case STATES, ORDERED -> presence(row, subject, clause);
                    default -> {}
                }
            }
            states(row, subject, clause, about);
        }
    }

    private Optional<ScoreValue> score(StudyRow row, Subject subject) {
        return inheritance
                .effective(row.id(), subject.character().id())
                .map(e -> e.score().value());
    }

    private void size(StudyRow row, Subject subject, String clause, Set<String> words) {
        boolean dimension = subject.dimension().isEmpty()
                ? subject.character().type() == CharacterType.MASS
                : words.stream().anyMatch(subject.dimension()::contains);
        Matcher matcher = SIZE.matcher(clause);
        if (!dimension
                || !matcher.find()
                || !(score(row, subject).orElse(null) instanceof ScoreValue.Range range)
                || range.max() == null) {
            return;
        }
        Optional<Double> factor =
                Units.factor(subject.character().type(), matcher.group(3).replace('µ', 'u'));
        double low = number(matcher.group(1));
        double high = matcher.group(2) == null ? low : number(matcher.group(2));
        if (factor.isPresent() && !matcher.find()) {
            boolean above = low * factor.get() > range.max() * LEEWAY;
            boolean below = high * factor.get() < range.min() / LEEWAY;
            if (above || below) {
                against(row, subject, clause, range);
            }
        }
    }

    private void count(StudyRow row, Subject subject, String clause) {
        Matcher matcher = COUNT.matcher(clause);
        while (matcher.find()) {
            if (stems(matcher.group("what")).contains(subject.main())) {
                count(row, subject, clause, matcher);
            }
        }
        Matcher after = COUNT_AFTER.matcher(clause.strip());
        if (after.matches() && stems(after.group("what")).contains(subject.main())) {
            count(row, subject, clause, after);
        }
    }

    private void count(StudyRow row, Subject subject, String clause, Matcher said) {
        if (score(row, subject).orElse(null) instanceof ScoreValue.Range range && range.max() != null) {
            double low = whole(said.group("low"));
            double high = said.group("high") == null ? low : whole(said.group("high"));
            if (low > range.max() || high < range.min()) {
                against(row, subject, clause, range);
            }
        }
    }

    private void against(StudyRow row, Subject subject, String clause, ScoreValue.Range range) {
        found.add(finding(FindingKind.NUMBER_AGAINST_SCORE, row, subject.character(), "")
                .with("text", clause.strip())
                .with("value", NotationPrinter.print(range, subject.character())));
    }

    private static double number(String text) {
        return Double.parseDouble(text.replace(',', '.'));
    }

    private static double whole(String text) {
        int numeral = NUMERALS.indexOf(text);
        return numeral >= 0 ? numeral : Double.parseDouble(text);
    }

    /** Something that is there or not: prose that denies it, or tells of it, against a score of the contrary. */
    private void presence(StudyRow row, Subject subject, String clause) {
        List<StudyCharacter.StudyState> states = subject.character().states();
        boolean presence = states.stream().anyMatch(StudyCharacter.StudyState::isAbsence) && states.size() >= 2;
        if (!presence
                || subject.main().isEmpty()
                || !(score(row, subject).orElse(null) instanceof ScoreValue.States shown)) {
            return;
        }
        long absent = shown.shown().stream()
                .filter(s -> subject.character().state(s.state()).orElseThrow().isAbsence())
                .count();
        String it = Pattern.quote(subject.main()) + "\\p{L}{0,2}";
        boolean denies =
                Pattern.compile("(?U)\\b(?:no|without|lacks?|lacking)\\s+(?:\\p{L}+\\s+){0,1}" + it + "\\b|\\b" + it
                                        + "\\s+(?:is\\s+|are\\s+)?(?:absent|missing|lacking|wanting)\\b|\\b"
                                        + Pattern.quote(subject.main()) + "less\\b")
                                .matcher(clause)
                                .find()
                        && !clause.contains("present");
        boolean asserts = !denies
                && !HEDGED.matcher(clause).find()
                && Pattern.compile("(?U)\\b" + it
                                + "\\s+(?:is\\s+|are\\s+)?present\\b|\\b(?:has|bears|with)\\s+(?:a\\s+|an\\s+)?(?:\\p{L}+\\s+)?"
                                + it + "\\b")
                        .matcher(clause)
                        .find();
        if ((denies && absent == 0) || (asserts && absent == shown.shown().size())) {
            found.add(finding(FindingKind.TEXT_AGAINST_SCORE, row, subject.character(), denies ? "denied" : "told")
                    .with("state", clause.strip())
                    .with("value", NotationPrinter.print(shown, subject.character())));
        }
    }

    /** A state that only one character of a part has, said of that part, though the score has another. */
    private void states(StudyRow row, Subject subject, String clause, Set<String> about) {
        StudyCharacter character = subject.character();
        boolean ofPart = !character.organ().isBlank() && about.containsAll(stems(character.organ()));
        if (!ofPart
                || character.states().isEmpty()
                || HEDGED.matcher(clause).find()
                || !(score(row, subject).orElse(null) instanceof ScoreValue.States shown)) {
            return;
        }
        Map<String, Boolean> said = new HashMap<>();
        for (StudyCharacter.StudyState state : character.states()) {
            String label = state.label().toLowerCase(Locale.ROOT);
            boolean telling = label.length() >= 5 && isUnique(label, character) && !state.isAbsence();
            if (telling
                    && Pattern.compile("(?U)\\b" + Pattern.quote(label) + "\\b")
                            .matcher(clause)
                            .find()) {
                boolean isShown = shown.shown().stream().anyMatch(s -> s.state().equals(state.id()));
                said.put(state.id(), isShown);
            }
        }
        if (said.isEmpty() || said.containsValue(true)) {
            return;
        }
        for (StudyCharacter.StudyState state : character.states()) {
            if (said.containsKey(state.id())) {
                found.add(finding(FindingKind.TEXT_AGAINST_SCORE, row, character, state.id())
                        .with("state", state.label())
                        .with("value", NotationPrinter.print(shown, character)));
            }
        }
    }

    private boolean isUnique(String label, StudyCharacter character) {
        return compiled.characters().stream()
                .filter(c -> !c.id().equals(character.id()) && c.organ().equalsIgnoreCase(character.organ()))
                .flatMap(c -> c.states().stream())
                .noneMatch(s -> s.label().toLowerCase(Locale.ROOT).contains(label));
    }

    private static StudyFinding finding(FindingKind kind, StudyRow row, StudyCharacter character, String other) {
        return StudyFinding.of(kind, row.id(), character.id(), other)
                .with("row", row.name())
                .with("character", character.label());
    }
}
