package org.polyclave.formats.check;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.BiConsumer;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.polyclave.core.matrix.Cell;
import org.polyclave.formats.notation.EditDistance;
import org.polyclave.formats.study.Claim;
import org.polyclave.formats.study.CompiledStudy;
import org.polyclave.formats.study.GlossaryIndex;
import org.polyclave.formats.study.Study;
import org.polyclave.formats.study.StudyCharacter;
import org.polyclave.formats.study.StudyRow;
import org.polyclave.formats.study.StudyRules;

/** Tests claims against the matrix, texts against the glossary, and vernacular names against one another. */
final class ApparatusCheck {
    private static final Pattern WORD = Pattern.compile("\\p{L}[\\p{L}-]*");
    /** Shorter words are one letter from too many others. */
    private static final int TELLING_WORD = 7;

    private final CompiledStudy compiled;
    private final Study study;
    private final List<StudyFinding> found = new ArrayList<>();

    private ApparatusCheck(CompiledStudy compiled) {
        this.compiled = compiled;
        study = compiled.study();
    }

    static List<StudyFinding> of(CompiledStudy compiled) {
        ApparatusCheck check = new ApparatusCheck(compiled);
        compiled.study().claims().forEach(check::claim);
        check.terms();
        check.vernacularNames();
        return check.found;
    }

    private void claim(Claim claim) {
        int c = compiled.characterIndex(claim.character());
        if (c < 0) {
            return;
        }
        StudyCharacter character = compiled.characters().get(c);
        int states = 0;
        for (String state : claim.states()) {
            states |= 1 << character.indexOf(state);
        }
        Set<String> against = new LinkedHashSet<>();
        Set<String> unknown = new LinkedHashSet<>();
        for (int i = 0; i < compiled.rows().size(); i++) {
            boolean own = belongs(compiled.rows().get(i), claim.row());
            if (own || claim.kind() == Claim.Kind.ONLY) {
                Cell cell = compiled.matrix().cell(i, c);
                String name = "'" + compiled.rows().get(i).name() + "'";
                if (cell instanceof Cell.Unknown) {
                    unknown.add(name);
                } else if (!(own ? ownHolds(cell, states, claim.kind()) : !shows(cell, states))) {
                    against.add(name);
                }
            }
        }
        String says = "The claim '" + (claim.text().isBlank() ? claim.kind() : claim.text()) + "' about '"
                + study.row(claim.row()).map(StudyRow::name).orElse(claim.row()) + "' ";
        if (!against.isEmpty()) {
            add(
                    "claim-fails",
                    claim.row(),
                    claim.character(),
                    claim.id(),
                    says + "fails in '" + character.label() + "': see " + String.join(", ", against)
                            + ". Correct the cells, or the claim.");
        } else if (!unknown.isEmpty()) {
            add(
                    "claim-untestable",
                    claim.row(),
                    claim.character(),
                    claim.id(),
                    says + "cannot be tested in '" + character.label() + "': unknown for " + String.join(", ", unknown)
                            + ". Score these.");
        }
    }

    private boolean belongs(StudyRow row, String ancestor) {
        StudyRow at = row;
        for (int steps = 0; steps <= study.rows().size(); steps++) {
            if (at.id().equals(ancestor)) {
                return true;
            }
            if (at.parent() == null) {
                return false;
            }
            at = study.row(at.parent()).orElseThrow();
        }
        return false;
    }

    private static boolean shows(Cell cell, int states) {
        return cell instanceof Cell.Categorical shown && (shown.support() & states) != 0;
    }

    private static boolean ownHolds(Cell cell, int states, Claim.Kind kind) {
        return switch (kind) {
            case ONLY -> shows(cell, states);
            case ALWAYS -> cell instanceof Cell.Categorical shown && (shown.support() & ~states) == 0;
            case NEVER -> !shows(cell, states);
        };
    }

    /** Every text of the study, with the row or character it belongs to. */
    private void texts(BiConsumer<String[], String> each) {
        for (StudyCharacter character : study.characters()) {
            String[] place = {"", character.id()};
            for (String text : List.of(
                    character.label(),
                    character.question(),
                    character.plainQuestion(),
                    character.note(),
                    character.looking().pitfalls())) {
                each.accept(place, text);
            }
            for (StudyCharacter.StudyState state : character.states()) {
                each.accept(place, state.label());
                each.accept(place, state.plain());
                each.accept(place, state.definition());
            }
        }
        study.rows().forEach(row -> each.accept(new String[] {row.id(), ""}, row.description()));
    }

    private void terms() {
        if (study.glossary().isEmpty()) {
            return;
        }
        GlossaryIndex index = new GlossaryIndex(study.glossary());
        Map<String, String> words = new HashMap<>();
        study.glossary()
                .forEach(t -> GlossaryIndex.words(t).stream()
                        .filter(w -> w.length() >= TELLING_WORD)
                        .forEach(w -> words.put(w.toLowerCase(Locale.ROOT), t.term())));
        Set<String> told = new HashSet<>();
        texts((place, text) -> {
            Set<Integer> explained = new HashSet<>();
            for (GlossaryIndex.Occurrence occurrence : index.find(text)) {
                explained.add(occurrence.from());
                if (occurrence.misspelt()) {
                    String word = text.substring(occurrence.from(), occurrence.to());
                    tellOnce(told, place, word, occurrence.term().term(), "is a common misspelling of");
                }
            }
            Matcher matcher = WORD.matcher(text);
            while (matcher.find()) {
                String word = matcher.group().toLowerCase(Locale.ROOT);
                String near = explained.contains(matcher.start()) ? null : nearest(word, words);
                if (near != null) {
                    tellOnce(told, place, matcher.group(), near, "is one letter from the term");
                }
            }
        });
    }

    private static @org.jspecify.annotations.Nullable String nearest(String word, Map<String, String> words) {
        if (word.length() < TELLING_WORD - 1) {
            return null;
        }
        String singular = word.replaceFirst("e?s$", "");
        for (Map.Entry<String, String> term : words.entrySet()) {
            boolean close = Math.abs(term.getKey().length() - word.length()) <= 1
                    && EditDistance.between(word, term.getKey()) == 1;
            if (close && !singular.equals(term.getKey()) && !term.getKey().startsWith(singular)) {
                return term.getValue();
            }
        }
        return null;
    }

    private void tellOnce(Set<String> told, String[] place, String word, String term, String how) {
        if (told.add(place[0] + '/' + place[1] + '/' + word)) {
            add(
                    "near-term",
                    place[0],
                    place[1],
                    word,
                    "'" + word + "' " + how + " '" + term + "'. Write the term, or give the word an entry of its own.");
        }
    }

    private void vernacularNames() {
        Map<String, StudyRow> first = new HashMap<>();
        for (StudyRow row : study.rows()) {
            for (StudyRow.Vernacular name : row.names().vernacular()) {
                String key = name.language().toLowerCase(Locale.ROOT) + ' ' + StudyRules.folded(name.name());
                StudyRow other = first.putIfAbsent(key, row);
                if (other != null && !other.id().equals(row.id())) {
                    add(
                            "shared-name",
                            row.id(),
                            "",
                            other.id(),
                            "'" + name.name() + "' stands for '" + other.name()
                                    + "' too. Readers who know only this name"
                                    + " may mean either; say so, or choose another.");
                }
            }
        }
    }

    private void add(String kind, String row, String character, String other, String reason) {
        found.add(new StudyFinding(kind, row, character, other, reason));
    }
}
