package org.polyclave.study.checks;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.BiConsumer;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.notation.EditDistance;
import org.polyclave.study.rules.GlossaryIndex;
import org.polyclave.study.rules.StudyRules;

/** Finds what is wrong or missing in texts, names, pictures and hazards, whatever is scored. */
final class TextCheck {
    /** A number or a range with a unit: a size that was taken for a state. */
    private static final Pattern SIZE = Pattern.compile(
            "(?iU)\\s*(?:c\\.|ca\\.?|about|up to|under|over|<|>|≤|≥)?\\s*\\d[\\d.,/ ]*(?:\\s*(?:[-–]|to)\\s*\\d[\\d.,/ ]*)?"
                    + "\\s*(?:um|µm|mm|cm|m|km|in|inch|inches|ft|feet|\"|mg|g|kg|oz|lbs?|pounds?|grams?|°|%)\\.?\\s*");

    private static final Pattern WORD = Pattern.compile("\\p{L}[\\p{L}-]*");
    /** Shorter words are one letter from too many others. */
    private static final int TELLING_WORD = 7;
    /** Shorter descriptions may well be alike. */
    private static final int TELLING_TEXT = 40;
    /** States that define themselves. */
    private static final Set<String> PRESENCE = Set.of("absent", "present");

    private final CompiledStudy compiled;
    private final Study study;
    private final List<StudyFinding> found = new ArrayList<>();

    private TextCheck(CompiledStudy compiled) {
        this.compiled = compiled;
        study = compiled.study();
    }

    static List<StudyFinding> of(CompiledStudy compiled) {
        TextCheck check = new TextCheck(compiled);
        check.hazards();
        check.descriptions();
        check.characters();
        check.terms();
        check.vernacularNames();
        check.pictures();
        return check.found;
    }

    private void hazards() {
        for (StudyRow row : compiled.rows()) {
            if (row.hazard() == Hazard.NOT_ASSESSED) {
                add(row(FindingKind.HAZARD_NOT_ASSESSED, row));
            }
        }
        for (StudyRow row : study.rows()) {
            for (StudyRow.HazardRecord hazard : row.hazards()) {
                if (hazard.severity().isDangerous() && hazard.caution().isBlank()) {
                    add(row(FindingKind.NO_CAUTION, row).with("hazard", hazard.kind()));
                }
            }
            if (row.hazard().isDangerous() && row.hazards().isEmpty()) {
                add(row(FindingKind.NO_CAUTION, row).with("hazard", ""));
            }
        }
    }

    private void descriptions() {
        Map<String, StudyRow> descriptions = new HashMap<>();
        for (StudyRow row : study.rows()) {
            String text = row.description().strip();
            StudyRow same = text.length() < TELLING_TEXT ? null : descriptions.putIfAbsent(text, row);
            if (same != null) {
                add(row(FindingKind.SAME_TEXT, row).with("otherRow", same.name()));
            }
        }
    }

    private void characters() {
        for (StudyCharacter character : study.characters()) {
            if (character.question().isBlank()) {
                add(character(FindingKind.NO_QUESTION, character));
            }
            List<String> sizes = character.states().stream()
                    .map(StudyCharacter.StudyState::label)
                    .filter(l -> SIZE.matcher(l).matches())
                    .toList();
            if (!sizes.isEmpty()) {
                add(character(FindingKind.LABEL_IS_SIZE, character).with("states", sizes));
            }
            List<String> undefined = character.states().stream()
                    .filter(s -> s.definition().isBlank() && s.plain().isBlank() && !PRESENCE.contains(s.id()))
                    .map(StudyCharacter.StudyState::label)
                    .toList();
            if (!undefined.isEmpty()) {
                add(character(FindingKind.NO_DEFINITION, character).with("states", undefined));
            }
        }
    }

    /** States without a picture are told where others have one; where none has, once for the study. */
    private void pictures() {
        boolean some = study.characters().stream()
                .flatMap(c -> c.states().stream())
                .anyMatch(s -> !s.picture().isEmpty());
        boolean states = study.characters().stream().anyMatch(c -> !c.states().isEmpty());
        if (!some && states) {
            add(StudyFinding.of(FindingKind.NO_PICTURE, "", "")
                    .with("character", "")
                    .with("states", List.of()));
        }
        for (StudyCharacter character : some ? study.characters() : List.<StudyCharacter>of()) {
            List<String> without = character.states().stream()
                    .filter(s -> s.picture().isEmpty() && s.swatch().isEmpty() && !PRESENCE.contains(s.id()))
                    .map(StudyCharacter.StudyState::label)
                    .toList();
            if (!without.isEmpty()) {
                add(character(FindingKind.NO_PICTURE, character).with("states", without));
            }
        }
    }

    /** Every text of the study, with the row or character it belongs to. */
    private void texts(BiConsumer<String[], String> each) {
        for (StudyCharacter character : study.characters()) {
            String[] place = {"", character.id()};
            CharacterTexts.of(character).forEach(text -> each.accept(place, text));
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
                    tellOnce(told, place, word, occurrence.term().term(), Correction.right(word, occurrence.term()));
                }
            }
            Matcher matcher = WORD.matcher(text);
            while (matcher.find()) {
                String word = matcher.group().toLowerCase(Locale.ROOT);
                String near = explained.contains(matcher.start()) ? null : nearest(word, words);
                if (near != null) {
                    tellOnce(told, place, matcher.group(), near, "");
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

    private void tellOnce(Set<String> told, String[] place, String word, String term, String right) {
        if (told.add(place[0] + '/' + place[1] + '/' + word)) {
            add(StudyFinding.of(FindingKind.NEAR_TERM, place[0], place[1], word)
                    .with("word", word)
                    .with("term", term)
                    .with("right", right));
        }
    }

    private void vernacularNames() {
        Map<String, StudyRow> first = new HashMap<>();
        for (StudyRow row : study.rows()) {
            for (StudyRow.Vernacular name : row.names().vernacular()) {
                String key = name.language().toLowerCase(Locale.ROOT) + ' ' + StudyRules.folded(name.name());
                StudyRow other = first.putIfAbsent(key, row);
                if (other != null && !other.id().equals(row.id())) {
                    add(StudyFinding.of(FindingKind.SHARED_NAME, row.id(), "", other.id())
                            .with("row", row.name())
                            .with("name", name.name())
                            .with("otherRow", other.name()));
                }
            }
        }
    }

    private static StudyFinding row(FindingKind kind, StudyRow row) {
        return StudyFinding.of(kind, row.id(), "").with("row", row.name());
    }

    private static StudyFinding character(FindingKind kind, StudyCharacter character) {
        return StudyFinding.of(kind, "", character.id()).with("character", character.label());
    }

    private void add(StudyFinding finding) {
        found.add(finding);
    }
}
