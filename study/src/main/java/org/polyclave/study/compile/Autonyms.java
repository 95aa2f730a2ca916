package org.polyclave.study.compile;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.rules.Ranks;

/**
 * Names of the parts of a taxon that repeat its own epithet: the autonym of botany ("Tarnella vadosa subsp. vadosa") and the
 * nominotypical subspecies of zoology ("Estuarion vulgare vulgare").
 */
final class Autonyms {
    private Autonyms() {}

    /** Whether a child repeats the epithet of its parent, which is a species or below. */
    static boolean isAutonym(StudyRow parent, StudyRow child) {
        Optional<String> epithet = epithet(parent.label());
        return !Ranks.isAboveSpecies(parent.rank())
                && Ranks.isBelowSpecies(child.rank())
                && epithet.isPresent()
                && epithet.equals(epithet(child.label()));
    }

    /** The last epithet of a name: a word of small letters that is neither a rank nor an author. */
    private static Optional<String> epithet(String label) {
        List<String> words = epithets(label);
        return words.isEmpty() ? Optional.empty() : Optional.of(words.get(words.size() - 1));
    }

    private static List<String> epithets(String label) {
        List<String> found = new ArrayList<>();
        String[] words = label.strip().split("\\s+");
        boolean afterAuthor = false;
        for (String word : words) {
            boolean rank = Ranks.ofWord(word).isPresent();
            boolean epithet = word.matches("[\\p{Ll}][\\p{Ll}-]+")
                    && !Set.of("ex", "et", "in").contains(word);
            boolean author = !found.isEmpty() && word.matches("[\\p{Lu}(].*");
            // An author ends what stands before; a word of rank begins another part.
            afterAuthor = !rank && (afterAuthor || author);
            if (epithet && !rank && !afterAuthor) {
                found.add(word);
            }
        }
        return found;
    }

    /**
     * What a taxon is called beside parts that are named: by its autonym at their rank, written as they are.
     *
     * @param parts taxa below it, which are not autonyms of it
     * @return empty where the parts are cultivars, hybrids or of several ranks, which have no autonym
     */
    static Optional<String> of(StudyRow taxon, List<StudyRow> parts) {
        String rank = parts.get(0).rank().strip().toLowerCase(Locale.ROOT);
        boolean alike = parts.stream()
                .allMatch(p -> p.rank().strip().toLowerCase(Locale.ROOT).equals(rank));
        Optional<String> epithet = epithet(taxon.label());
        if (!alike || epithet.isEmpty() || Ranks.abbreviation(rank).isEmpty()) {
            return Optional.empty();
        }
        boolean withRankWord = parts.stream().anyMatch(p -> hasRankWord(p.label())) || !rank.equals("subspecies");
        String word = withRankWord ? Ranks.abbreviation(rank).orElse("") + " " : "";
        return Optional.of(taxon.label().strip() + " " + word + epithet.get());
    }

    private static boolean hasRankWord(String label) {
        for (String word : label.split("\\s+")) {
            if (Ranks.ofWord(word).isPresent()) {
                return true;
            }
        }
        return false;
    }

    /** The name of a part without that of its taxon, where it begins with it. */
    static String shortName(StudyRow taxon, StudyRow part) {
        String label = part.label().strip();
        String whole = taxon.label().strip();
        return label.startsWith(whole + " ") ? label.substring(whole.length()).strip() : label;
    }
}
