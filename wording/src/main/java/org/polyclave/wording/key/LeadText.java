package org.polyclave.wording.key;

import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.polyclave.core.key.Atoms;
import org.polyclave.core.key.Key;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.wording.lead.English;

/**
 * The words of a lead in a key file, held against its statements: a proof is about statements, and people read words.
 *
 * @param place couplet and lead
 * @param given the words in the file
 * @param rendered the words that the statements have
 */
public record LeadText(String place, String given, String rendered, Answer answer) {
    private static final Pattern NUMBER = Pattern.compile("\\d+(?:[.,]\\d+)?");
    private static final Pattern LIMITING = Pattern.compile("\\b(?:not|no|never|without|nor|usually|rarely|mostly)\\b");

    /** How far the words follow from the statements. */
    public enum Answer {
        /** They are the words that the statements have. */
        SAME,
        /** Statement by statement the same states and numbers, in other words. */
        MATCHED,
        /** In the author's own words, about which nothing is proved. */
        UNMATCHED,
        /** They name a state or a number that the statements do not admit. */
        CONTRARY
    }

    /**
     * @param lead as it was read
     * @param view the same in words
     */
    public static LeadText of(
            String place, String given, Key.Lead lead, KeyView.LeadView view, CompiledStudy compiled) {
        return new LeadText(place, given.strip(), view.text(), compare(given, lead, view, compiled));
    }

    private static Answer compare(String given, Key.Lead lead, KeyView.LeadView view, CompiledStudy compiled) {
        if (plain(given).equals(plain(view.text()))) {
            return Answer.SAME;
        }
        String[] parts = given.split(";(?![^(]*\\))");
        List<Key.Statement> statements = lead.statements();
        List<String> limits = statements.stream()
                .map(s ->
                        StatementWording.clause(s.atoms(), compiled.characters().get(s.character())))
                .toList();
        if (parts.length != statements.size()) {
            String accepted = view.text() + ' ' + String.join(" ", limits);
            return contrary(plain(given), plain(accepted)) ? Answer.CONTRARY : Answer.UNMATCHED;
        }
        Answer worst = Answer.MATCHED;
        for (int s = 0; s < parts.length; s++) {
            Key.Statement statement = statements.get(s);
            Answer part = compare(
                    plain(parts[s]),
                    plain(view.statements().get(s).text()),
                    plain(limits.get(s)),
                    statement,
                    compiled.characters().get(statement.character()));
            worst = part.compareTo(worst) > 0 ? part : worst;
        }
        return worst;
    }

    /** Numbers may be those of the limit, or those that occur; states are those that the statement has. */
    private static Answer compare(
            String given, String rendered, String limit, Key.Statement statement, StudyCharacter character) {
        boolean counts = character.type() == CharacterType.COUNT;
        String written = counts ? English.inDigits(given) : given;
        List<String> occurring = numbers(counts ? English.inDigits(rendered) : rendered);
        List<String> limits = numbers(counts ? English.inDigits(limit) : limit);
        List<String> own = numbers(written);
        boolean all = (own.containsAll(occurring) || own.containsAll(limits))
                && LIMITING.matcher(given).results().count()
                        == LIMITING.matcher(rendered).results().count();
        boolean contrary = !own.stream().allMatch(n -> occurring.contains(n) || limits.contains(n));
        if (statement.atoms() instanceof Atoms.States states) {
            for (int s = 0; s < character.states().size(); s++) {
                String label = plain(character.states().get(s).label());
                boolean admitted = (states.mask() & (1 << s)) != 0;
                all &= !admitted || count(given, label) >= count(rendered, label);
                contrary |= !admitted && count(given, label) > count(rendered, label);
            }
        }
        return contrary ? Answer.CONTRARY : all ? Answer.MATCHED : Answer.UNMATCHED;
    }

    private static boolean contrary(String given, String rendered) {
        return !numbers(rendered).containsAll(numbers(given));
    }

    private static List<String> numbers(String text) {
        return NUMBER.matcher(text)
                .results()
                .map(r -> r.group().replace(',', '.'))
                .toList();
    }

    private static long count(String text, String phrase) {
        Matcher found = Pattern.compile(
                        "(?<!\\p{L})" + Pattern.quote(phrase) + "(?!\\p{L})", Pattern.UNICODE_CHARACTER_CLASS)
                .matcher(text);
        return found.results().count();
    }

    private static String plain(String text) {
        return text.strip().replaceAll("\\s+", " ").toLowerCase(Locale.ROOT);
    }
}
