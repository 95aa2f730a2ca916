package org.polyclave.study.checks;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
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
 * and states of a character or of a part. A clause speaks of the part that it names, or of that of the clause before it in its
 * sentence. Hedged clauses are passed over: only what is understood for certain is told. Time O(clauses · characters).
 */
final class ProseCheck {
    /** How far a size in the text may lie outside the range: texts round. */
    private static final double LEEWAY = 1.1;

    private static final String NUMBER = "(\\d+(?:[.,]\\d+)?)";
    private static final Pattern SIZE =
            Pattern.compile(NUMBER + "(?:\\s*(?:–|-|to)\\s*" + NUMBER + ")?\\s*(um|µm|mm|cm|m|in|ft|mg|g|kg|oz|lb)\\b");
    private static final List<String> NUMERALS = List.of(
            "zero", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve");
    private static final String WHOLE = "(?:\\d+|" + String.join("|", NUMERALS) + ")";
    private static final String WHOLES = "(?<low>" + WHOLE + ")(?:\\s*(?:–|-|to|or)\\s*(?<high>" + WHOLE + "))?";
    /** "five petals", "4–6 broad petals". */
    private static final Pattern COUNT =
            Pattern.compile("(?U)\\b" + WHOLES + "\\s+(?<what>(?:\\p{L}+\\s+){0,2}\\p{L}+)");
    /** "petals 5", "number of petals 4–6". */
    private static final Pattern COUNT_AFTER =
            Pattern.compile("(?U)(?<what>(?:\\p{L}+\\s+){0,3}\\p{L}+)\\s+(?:is |are )?" + WHOLES);

    private static final Pattern SENTENCE = Pattern.compile("\\.(?!\\d)");
    private static final Pattern CLAUSE = Pattern.compile("[;:]|[.,](?!\\d)|\\b(?:and|but|with)\\b(?=[^.;]*\\d)");
    private static final Pattern HEDGED = Pattern.compile(
            "(?U)\\b(rarely|sometimes|seldom|often|usually|occasionally|not|never|no|without|unlike|or)\\b");

    private final Inheritance inheritance;
    private final List<ProseSubject> subjects;
    private final Set<String> organs;
    private final List<StudyFinding> found = new ArrayList<>();

    /**
     * @param text as it was written
     * @param lower the same in lower case
     * @param words its stems
     * @param about these, and the part of which the sentence speaks
     */
    private record Clause(StudyRow row, String text, String lower, Set<String> words, Set<String> about) {
        boolean isHedged() {
            return HEDGED.matcher(lower).find();
        }
    }

    private ProseCheck(CompiledStudy compiled) {
        inheritance = new Inheritance(compiled.study().rows(), compiled.scores());
        subjects = compiled.characters().stream()
                .map(c -> ProseSubject.of(c, compiled.characters()))
                .toList();
        organs = subjects.stream().flatMap(s -> s.organ().stream()).collect(Collectors.toSet());
    }

    static List<StudyFinding> of(CompiledStudy compiled) {
        List<StudyRow> described = compiled.study().rows().stream()
                .filter(r -> !r.description().isBlank())
                .toList();
        if (described.isEmpty()) {
            return List.of();
        }
        ProseCheck check = new ProseCheck(compiled);
        described.forEach(check::read);
        return check.found;
    }

    private void read(StudyRow row) {
        for (String sentence : SENTENCE.split(row.description())) {
            Set<String> part = Set.of();
            for (String text : CLAUSE.split(sentence)) {
                Set<String> words = new LinkedHashSet<>(ProseSubject.stems(text));
                Set<String> named = words.stream().filter(organs::contains).collect(Collectors.toSet());
                part = named.isEmpty() ? part : named;
                Set<String> about = new LinkedHashSet<>(words);
                about.addAll(part);
                Clause clause = new Clause(row, text.strip(), text.strip().toLowerCase(Locale.ROOT), words, about);
                subjects.forEach(s -> hold(clause, s));
            }
        }
    }

    private void hold(Clause clause, ProseSubject subject) {
        boolean named = !subject.nouns().isEmpty() && clause.about().containsAll(subject.nouns());
        boolean ofPart = !subject.organ().isEmpty() && clause.about().containsAll(subject.organ());
        if (!named && !ofPart) {
            return;
        }
        ScoreValue score = inheritance
                .effective(clause.row().id(), subject.character().id())
                .map(e -> e.score().value())
                .orElseGet(ScoreValue.Unknown::new);
        if (score instanceof ScoreValue.Range range && range.max() != null && named) {
            switch (subject.character().type()) {
                case LENGTH, MASS -> size(clause, subject, range, range.max());
                case COUNT -> count(clause, subject, range, range.max());
                default -> {}
            }
        }
        if (score instanceof ScoreValue.States shown) {
            if (named && subject.isOfPresence()) {
                presence(clause, subject, shown);
            }
            states(clause, subject, shown, ofPart);
        }
    }

    private void size(Clause clause, ProseSubject subject, ScoreValue.Range range, double most) {
        boolean dimension = subject.dimension().isEmpty()
                ? subject.character().type() == CharacterType.MASS
                : clause.words().stream().anyMatch(subject.dimension()::contains);
        Matcher matcher = SIZE.matcher(clause.lower());
        if (!dimension || !matcher.find()) {
            return;
        }
        double low = number(matcher.group(1));
        double high = matcher.group(2) == null ? low : number(matcher.group(2));
        String unit = matcher.group(3).replace('µ', 'u');
        boolean one = !matcher.find();
        Units.factor(subject.character().type(), unit)
                .filter(f -> one && (low * f > most * LEEWAY || high * f < range.min() / LEEWAY))
                .ifPresent(f -> against(clause, subject, range));
    }

    private void count(Clause clause, ProseSubject subject, ScoreValue.Range range, double most) {
        Matcher before = COUNT.matcher(clause.lower());
        boolean against = false;
        while (before.find()) {
            against |= isOutside(before, subject, range.min(), most);
        }
        Matcher after = COUNT_AFTER.matcher(clause.lower());
        if (against || (after.matches() && isOutside(after, subject, range.min(), most))) {
            against(clause, subject, range);
        }
    }

    private static boolean isOutside(Matcher said, ProseSubject subject, double least, double most) {
        double low = whole(said.group("low"));
        double high = said.group("high") == null ? low : whole(said.group("high"));
        return ProseSubject.stems(said.group("what")).contains(subject.main()) && (low > most || high < least);
    }

    private void against(Clause clause, ProseSubject subject, ScoreValue.Range range) {
        found.add(finding(FindingKind.NUMBER_AGAINST_SCORE, clause, subject.character(), "")
                .with("text", clause.text())
                .with("value", NotationPrinter.print(range, subject.character())));
    }

    private static double number(String text) {
        return Double.parseDouble(text.replace(',', '.'));
    }

    private static double whole(String text) {
        int numeral = NUMERALS.indexOf(text);
        return numeral >= 0 ? numeral : Double.parseDouble(text);
    }

    private void presence(Clause clause, ProseSubject subject, ScoreValue.States shown) {
        long absent = shown.shown().stream()
                .filter(s -> subject.character().state(s.state()).orElseThrow().isAbsence())
                .count();
        boolean denied = subject.denied().matcher(clause.lower()).find();
        boolean told = !denied
                && !clause.isHedged()
                && subject.told().matcher(clause.lower()).find();
        if ((denied && absent == 0) || (told && absent == shown.shown().size())) {
            found.add(finding(FindingKind.TEXT_AGAINST_SCORE, clause, subject.character(), denied ? "denied" : "told")
                    .with("state", clause.text())
                    .with("value", NotationPrinter.print(shown, subject.character())));
        }
    }

    private void states(Clause clause, ProseSubject subject, ScoreValue.States shown, boolean ofPart) {
        List<StudyCharacter.StudyState> said = subject.states().stream()
                .filter(s -> s.ofCharacter().matcher(clause.lower()).find()
                        || (ofPart && s.ofPart().matcher(clause.lower()).find()))
                .map(ProseSubject.StateSaid::state)
                .toList();
        boolean agrees = said.stream()
                .anyMatch(s -> shown.shown().stream().anyMatch(o -> o.state().equals(s.id())));
        if (agrees || said.isEmpty() || clause.isHedged()) {
            return;
        }
        for (StudyCharacter.StudyState state : said) {
            found.add(finding(FindingKind.TEXT_AGAINST_SCORE, clause, subject.character(), state.id())
                    .with("state", state.label())
                    .with("value", NotationPrinter.print(shown, subject.character())));
        }
    }

    private static StudyFinding finding(FindingKind kind, Clause clause, StudyCharacter character, String other) {
        return StudyFinding.of(kind, clause.row().id(), character.id(), other)
                .with("row", clause.row().name())
                .with("character", character.label());
    }
}
