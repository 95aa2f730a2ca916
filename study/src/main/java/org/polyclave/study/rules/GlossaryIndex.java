package org.polyclave.study.rules;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.polyclave.study.model.GlossaryTerm;

/**
 * Finds the terms of a glossary in texts: whole words without regard to case and accents, the longest first, plural forms
 * in -s and -es included. Time linear in text and terms.
 */
public final class GlossaryIndex {
    private final Map<String, GlossaryTerm> terms = new HashMap<>();
    private final Map<String, GlossaryTerm> misspelt = new HashMap<>();
    private final Optional<Pattern> pattern;

    /**
     * A term in a text.
     *
     * @param from index of its first character
     * @param to index after its last
     * @param misspelt whether it stands there in a spelling that is to be corrected
     */
    public record Occurrence(int from, int to, GlossaryTerm term, boolean misspelt) {}

    public GlossaryIndex(List<GlossaryTerm> glossary) {
        List<String> spellings = new ArrayList<>();
        for (GlossaryTerm term : glossary) {
            for (String word : words(term)) {
                terms.putIfAbsent(StudyRules.folded(word), term);
                spellings.add(word);
            }
            for (String wrong : term.misspellings()) {
                misspelt.putIfAbsent(StudyRules.folded(wrong), term);
                spellings.add(wrong);
            }
        }
        spellings.removeIf(String::isBlank);
        spellings.sort(Comparator.comparingInt(String::length).reversed().thenComparing(Comparator.naturalOrder()));
        pattern = spellings.isEmpty()
                ? Optional.empty()
                : Optional.of(Pattern.compile("(?iU)\\b(?:"
                        + String.join(
                                "|", spellings.stream().map(Pattern::quote).toList()) + ")(?:s|es)?\\b"));
    }

    /** The words that stand for a term: itself and its synonyms. */
    public static List<String> words(GlossaryTerm term) {
        List<String> words = new ArrayList<>(List.of(term.term()));
        words.addAll(term.synonyms());
        return words;
    }

    /** Every occurrence in the order of the text; they do not overlap. */
    public List<Occurrence> find(String text) {
        List<Occurrence> found = new ArrayList<>();
        if (pattern.isPresent()) {
            Matcher matcher = pattern.get().matcher(text);
            while (matcher.find()) {
                occurrence(matcher).ifPresent(found::add);
            }
        }
        return found;
    }

    private Optional<Occurrence> occurrence(Matcher matcher) {
        String word = StudyRules.folded(matcher.group());
        for (String form : List.of(word, word.replaceFirst("s$", ""), word.replaceFirst("es$", ""))) {
            if (terms.containsKey(form)) {
                return Optional.of(new Occurrence(matcher.start(), matcher.end(), terms.get(form), false));
            }
            if (misspelt.containsKey(form)) {
                return Optional.of(new Occurrence(matcher.start(), matcher.end(), misspelt.get(form), true));
            }
        }
        return Optional.empty();
    }
}
