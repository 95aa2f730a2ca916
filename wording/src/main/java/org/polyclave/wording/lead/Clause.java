package org.polyclave.wording.lead;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyCharacter.StudyState;
import org.polyclave.study.notation.LeadNotation;

/**
 * The clause of a character in one choice of words: its author's pattern, or one that is made of organ and name so that no
 * word is said twice, no "yes" stands alone, and sizes read "leaf 2–5 mm wide".
 *
 * @param pattern as {@link LeadNotation} reads it
 * @param phrases by state
 * @param negatives by state what denies it; empty where its author gave no words for that
 */
public record Clause(String pattern, List<String> phrases, List<String> negatives) {
    private static final Pattern SIZE = Pattern.compile(
            "(?i)(?:(.*) )?(length|width|height|thickness|diameter|depth|breadth)|(length|width|height|thickness|diameter"
                    + "|depth|breadth) of (?:the )?(.+)");
    private static final Map<String, String> MEASURED = Map.of(
            "length",
            "long",
            "width",
            "wide",
            "height",
            "high",
            "thickness",
            "thick",
            "diameter",
            "in diameter",
            "depth",
            "deep",
            "breadth",
            "broad");
    private static final Pattern RATIO = Pattern.compile("(?i)(.+) (?:by|to|/) (.+)");
    private static final Pattern NUMBER_OF =
            Pattern.compile("(?i)(?:number|count) of (?:the )?(.+)|(.+) (?:number|count)");
    private static final Pattern GENERAL = Pattern.compile("(?i)|whole .*|stand|size|general|other|habit|misc.*");
    private static final Pattern YES = Pattern.compile("(?i)yes|present|true|\\+|there|seen|presence");
    private static final Pattern NO = Pattern.compile("(?i)no|absent|false|-|none|not present|none seen|absence");

    public Clause {
        phrases = List.copyOf(phrases);
        negatives = List.copyOf(negatives);
    }

    public static Clause of(StudyCharacter character, boolean plain) {
        StudyCharacter.LeadPattern own = character.lead();
        String pattern = plain && !own.plain().isEmpty() ? own.plain() : own.technical();
        List<String> negatives = character.states().stream()
                .map(s -> plain && !s.phrase().plainNegative().isEmpty()
                        ? s.phrase().plainNegative()
                        : s.phrase().negative())
                .toList();
        if (!pattern.isEmpty() && LeadNotation.isReadable(pattern, character.type())) {
            return new Clause(pattern, phrases(character, plain), negatives);
        }
        return switch (character.type()) {
            case STATES, ORDERED -> ofStates(character, plain, negatives);
            case MONTHS -> new Clause(escaped(subject(character)) + " {months}", List.of(), List.of());
            default -> new Clause(ofNumbers(character), List.of(), List.of());
        };
    }

    /** The clause with what is seen in its slot, without a capital. */
    public String fill(String seen, double count, boolean usually) {
        return LeadNotation.fill(pattern, seen, count, usually);
    }

    private static List<String> phrases(StudyCharacter character, boolean plain) {
        return character.states().stream().map(s -> phrase(s, plain)).toList();
    }

    private static String phrase(StudyState state, boolean plain) {
        StudyCharacter.Phrase words = state.phrase();
        if (plain) {
            return !words.plain().isEmpty()
                    ? words.plain()
                    : !state.plain().isEmpty()
                            ? state.plain()
                            : !words.technical().isEmpty() ? words.technical() : state.label();
        }
        return words.technical().isEmpty() ? state.label() : words.technical();
    }

    /** Organ and name, each word once; general headings ("whole plant", "stand") are no organs. */
    public static String subject(StudyCharacter character) {
        return joined(character.organ(), character.label());
    }

    private static String joined(String organ, String label) {
        List<String> stems = English.stems(label);
        if (!stems.isEmpty() && stems.equals(English.stems(organ))) {
            return organ;
        }
        return GENERAL.matcher(organ.strip()).matches() || English.shareStem(organ, label)
                ? label
                : organ + " " + label;
    }

    private static Clause ofStates(StudyCharacter character, boolean plain, List<String> negatives) {
        String name = character.label().replaceAll("\\?$", "").strip();
        List<String> phrases = withoutNouns(phrases(character, plain), name);
        boolean bare = phrases.stream().anyMatch(p -> YES.matcher(p).matches());
        if (bare && (English.beginsWithVerb(name) || English.beginsWithAdjective(name))) {
            boolean verb = English.beginsWithVerb(name);
            phrases.replaceAll(p -> YES.matcher(p).matches()
                    ? name
                    : NO.matcher(p).matches() ? (verb ? English.negated(name) : "not " + name) : p);
            String organ = GENERAL.matcher(character.organ().strip()).matches() ? "" : character.organ() + " ";
            return new Clause(escaped(organ) + "{states}", phrases, negatives);
        }
        if (bare) {
            phrases.replaceAll(
                    p -> YES.matcher(p).matches() ? "present" : NO.matcher(p).matches() ? "absent" : p);
        } else {
            phrases.replaceAll(p -> p.equalsIgnoreCase("no") ? "absent" : p);
        }
        return new Clause((escaped(withoutWordsOf(phrases, character)) + " {states}").strip(), phrases, negatives);
    }

    /** The phrases without what the name says, unless two would then be one. */
    private static List<String> withoutNouns(List<String> phrases, String name) {
        boolean orNone = phrases.stream().anyMatch(p -> NO.matcher(p).matches());
        List<String> shorter = new ArrayList<>(phrases);
        shorter.replaceAll(p -> withoutNoun(p, name, orNone));
        return Set.copyOf(shorter).size() < Set.copyOf(phrases).size() ? new ArrayList<>(phrases) : shorter;
    }

    /**
     * "rounded" for "a rounded head" of a flower head; "present" for "patches" of patches, where there may be none: the name
     * says the noun already.
     */
    private static String withoutNoun(String phrase, String name, boolean orNone) {
        List<String> words = new ArrayList<>(List.of(phrase.split(" ")));
        String noun = singular(words.get(words.size() - 1));
        List<String> named = English.words(name).stream().map(Clause::singular).toList();
        if (!named.contains(noun) || English.isEmpty(noun)) {
            return phrase;
        }
        if (words.size() == 1) {
            return orNone && named.get(0).equals(noun) && !English.beginsWithVerb(name) ? "present" : phrase;
        }
        words.remove(words.size() - 1);
        if (words.get(0).matches("(?i)an?|the")) {
            words.remove(0);
        }
        boolean telling = words.stream().noneMatch(English::isEmpty);
        return telling ? String.join(" ", words) : phrase;
    }

    private static String singular(String word) {
        return word.toLowerCase(Locale.ROOT).replaceFirst("(?:(?<=ch|sh|x)e)?s$", "");
    }

    /** What a name names, without what is told of it: of "anther colour" the anther. */
    public static String noun(StudyCharacter character) {
        String noun = character
                .label()
                .replaceFirst(
                        "(?i) (colour|color|shape|outline|surface|texture|season|length|width|height|thickness|diameter"
                                + "|depth|number|count|position|attachment|arrangement)$",
                        "")
                .replaceFirst("(?i)^(colour|color|shape|outline|surface|length|width|height|number) of (the )?", "");
        boolean whole = noun.isEmpty() || noun.equals(character.label());
        return whole && !character.organ().isEmpty() ? character.organ() : noun;
    }

    /** Organ and name without the words that the states say themselves: "cut flesh reddening", not "change of the cut flesh". */
    private static String withoutWordsOf(List<String> phrases, StudyCharacter character) {
        String organ = left(character.organ(), phrases).equals(character.organ()) ? character.organ() : "";
        String label = left(character.label(), phrases);
        String subject = label.isEmpty() ? organ : joined(organ, label);
        return subject.isEmpty() ? character.label() : subject;
    }

    /** The words that the states do not say, without the small ones that then begin or end them. */
    private static String left(String label, List<String> phrases) {
        List<String> words = new ArrayList<>(List.of(label.split(" ")));
        if (!words.removeIf(w -> isSaid(w, phrases))) {
            return label;
        }
        while (!words.isEmpty() && English.isEmpty(words.get(0))) {
            words.remove(0);
        }
        while (!words.isEmpty() && English.isEmpty(words.get(words.size() - 1))) {
            words.remove(words.size() - 1);
        }
        return String.join(" ", words);
    }

    /** In every state, or in one by another word of its stem ("attachment", "attached"); the same noun in one of them says less. */
    private static boolean isSaid(String word, List<String> phrases) {
        List<String> stem = English.stems(word);
        if (stem.size() != 1) {
            return false;
        }
        return phrases.stream().allMatch(p -> English.stems(p).contains(stem.get(0)))
                || phrases.stream()
                        .flatMap(p -> English.words(p).stream())
                        .anyMatch(w ->
                                English.stems(w).equals(stem) && !singular(w).equals(singular(word)));
    }

    private static String ofNumbers(StudyCharacter character) {
        String label = character.label().strip();
        Matcher size = SIZE.matcher(label);
        if (character.type() == CharacterType.LENGTH && size.matches()) {
            String measure = (size.group(2) == null ? size.group(3) : size.group(2)).toLowerCase(Locale.ROOT);
            String of = size.group(2) == null ? size.group(4) : size.group(1) == null ? "" : size.group(1);
            String subject = of.isEmpty()
                    ? organ(character)
                    : English.stems(of).equals(English.stems(character.organ()))
                            ? character.organ()
                            : joined(character.organ(), of);
            if (!subject.isEmpty()) {
                return escaped(subject) + " {value} " + MEASURED.get(measure);
            }
        }
        Matcher ratio = RATIO.matcher(label);
        if (character.type() == CharacterType.RATIO && ratio.matches()) {
            return escaped(joined(character.organ(), ratio.group(1))) + " {value} times " + escaped(ratio.group(2));
        }
        Matcher number = NUMBER_OF.matcher(label);
        if (character.type() == CharacterType.COUNT) {
            String counted = !number.matches() ? label : number.group(1) == null ? number.group(2) : number.group(1);
            List<String> words = English.words(counted);
            boolean plural = words.stream().anyMatch(English::isPlural);
            return escaped(plural ? counted : joined(character.organ(), counted)) + " {value}";
        }
        return escaped(subject(character)) + " {value}";
    }

    private static String organ(StudyCharacter character) {
        return character.organ().replaceFirst("(?i)^whole ", "").strip();
    }

    /** A name is no pattern: its braces and hashes stand for themselves. */
    private static String escaped(String text) {
        return text.replace("'", "’").replace("{", "(").replace("}", ")").replace("#", "no. ");
    }
}
