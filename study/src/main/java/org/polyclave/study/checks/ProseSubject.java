package org.polyclave.study.checks;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import org.polyclave.study.model.StudyCharacter;

/**
 * What prose calls a character.
 *
 * @param organ stems of its part
 * @param nouns stems that a clause must name to speak of it
 * @param main the last of them that is not its part: what is counted, or there or not
 * @param dimension words for its dimension, where its label has one
 * @param denied what says that it is not there
 * @param told what says that it is
 * @param states what says that it is in a state
 */
record ProseSubject(
        StudyCharacter character,
        List<String> organ,
        Set<String> nouns,
        String main,
        Set<String> dimension,
        Pattern denied,
        Pattern told,
        List<StateSaid> states) {
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
    /** Shorter words are said of many things. */
    private static final int TELLING_WORD = 5;

    /**
     * A state as prose says it.
     *
     * @param ofCharacter with the label of the character
     * @param ofPart the label of the state alone, where it is said of a part and no other character of the part has it;
     *     matches nothing where others do
     */
    record StateSaid(StudyCharacter.StudyState state, Pattern ofCharacter, Pattern ofPart) {}

    static ProseSubject of(StudyCharacter character, List<StudyCharacter> all) {
        List<String> organ = stems(character.organ());
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
            nouns.addAll(organ);
        }
        String main = "";
        for (String noun : nouns) {
            main = main.isEmpty() || organ.contains(main) || !organ.contains(noun) ? noun : main;
        }
        String it = Pattern.quote(main) + "\\p{L}{0,2}";
        return new ProseSubject(
                character,
                organ,
                new LinkedHashSet<>(nouns),
                main,
                dimension,
                Pattern.compile("(?U)\\b(?:no|without|lacks?|lacking)\\s+(?:\\p{L}+\\s+)?" + it + "\\b|\\b" + it
                        + "\\s+(?:is\\s+|are\\s+)?(?:absent|missing|lacking|wanting)\\b|\\b" + Pattern.quote(main)
                        + "less\\b"),
                Pattern.compile("(?U)\\b" + it
                        + "\\s+(?:is\\s+|are\\s+)?present\\b|\\b(?:has|bears|with)\\s+(?:a\\s+|an\\s+)?(?:\\p{L}+\\s+)?"
                        + it + "\\b"),
                character.states().stream().map(s -> said(character, s, all)).toList());
    }

    private static StateSaid said(StudyCharacter character, StudyCharacter.StudyState state, List<StudyCharacter> all) {
        String label = state.label().toLowerCase(Locale.ROOT);
        String s = Pattern.quote(label);
        String c = Pattern.quote(character.label().toLowerCase(Locale.ROOT));
        boolean unique = label.length() >= TELLING_WORD
                && !state.isAbsence()
                && all.stream()
                        .filter(o -> !o.id().equals(character.id()) && o.organ().equalsIgnoreCase(character.organ()))
                        .flatMap(o -> o.states().stream())
                        .noneMatch(o -> o.label().toLowerCase(Locale.ROOT).contains(label));
        return new StateSaid(
                state,
                Pattern.compile("(?U)\\b(?:" + c + "s?(?: is| are)? " + s + "|" + s + " " + c + "s?)\\b"),
                Pattern.compile(unique ? "(?U)\\b" + s + "\\b" : "(?!)"));
    }

    /** Whether it can be there or not. */
    boolean isOfPresence() {
        return !main.isEmpty()
                && character.states().size() > 1
                && character.states().stream().anyMatch(StudyCharacter.StudyState::isAbsence);
    }

    /** The words of a text in the singular, as far as endings tell. */
    static List<String> stems(String text) {
        return Arrays.stream(text.toLowerCase(Locale.ROOT).split("[^\\p{L}]+"))
                .filter(w -> !w.isEmpty())
                .map(ProseSubject::stem)
                .toList();
    }

    private static String stem(String word) {
        if (word.endsWith("leaves")) {
            return word.substring(0, word.length() - 3) + "f";
        }
        if (word.equals("teeth")) {
            return "tooth";
        }
        if (word.length() <= 3 || word.endsWith("ss") || word.endsWith("us") || word.endsWith("is")) {
            return word;
        }
        if (word.length() > 4 && word.endsWith("ies")) {
            return word.substring(0, word.length() - 3) + "y";
        }
        if (word.endsWith("ches") || word.endsWith("shes") || word.endsWith("xes")) {
            return word.substring(0, word.length() - 2);
        }
        return word.endsWith("s") ? word.substring(0, word.length() - 1) : word;
    }
}
