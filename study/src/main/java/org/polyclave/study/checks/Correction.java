package org.polyclave.study.checks;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Collectors;
import org.polyclave.study.compile.Features;
import org.polyclave.study.model.GlossaryTerm;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.rules.GlossaryIndex;
import org.polyclave.study.rules.StudyRules;

/**
 * Does what a finding proposes in one click: listed misspellings of terms are written right, and measures that go together are
 * joined into one feature. Nothing else is certain.
 */
public final class Correction {
    private final GlossaryIndex index;
    private final String word;

    private Correction(GlossaryIndex index, String word) {
        this.index = index;
        this.word = StudyRules.folded(word);
    }

    /** The study with what was found corrected; the same if there is nothing certain to do. */
    public static Study of(Study study, StudyFinding finding) {
        if (finding.correction().isEmpty()) {
            return study;
        }
        if (finding.kind() == FindingKind.GO_TOGETHER) {
            return joined(study, finding);
        }
        Correction correction = new Correction(new GlossaryIndex(study.glossary()), finding.other());
        List<StudyRow> rows = new ArrayList<>(study.rows());
        rows.replaceAll(r -> r.id().equals(finding.row()) ? r.withDescription(correction.written(r.description())) : r);
        List<StudyCharacter> characters = new ArrayList<>(study.characters());
        characters.replaceAll(c -> c.id().equals(finding.character()) ? correction.written(c) : c);
        return study.withRows(rows).withCharacters(characters);
    }

    /** All that either feature holds becomes one; it keeps the name that an author gave to one of them. */
    private static Study joined(Study study, StudyFinding finding) {
        Features features = new Features(study.characters());
        Set<String> both = study.characters().stream()
                .filter(c -> c.id().equals(finding.character()) || c.id().equals(finding.other()))
                .map(features::of)
                .collect(Collectors.toSet());
        List<StudyCharacter> members = study.characters().stream()
                .filter(c -> both.contains(features.of(c)))
                .toList();
        String name = members.stream()
                .map(StudyCharacter::group)
                .filter(g -> !g.isBlank())
                .findFirst()
                .orElse(finding.correction());
        return study.withCharacters(study.characters().stream()
                .map(c -> members.contains(c) ? c.withGroup(name) : c)
                .toList());
    }

    private StudyCharacter written(StudyCharacter character) {
        return CharacterTexts.changed(character, this::written);
    }

    private String written(String text) {
        StringBuilder written = new StringBuilder();
        int done = 0;
        for (GlossaryIndex.Occurrence occurrence : index.find(text)) {
            String found = text.substring(occurrence.from(), occurrence.to());
            if (occurrence.misspelt() && StudyRules.folded(found).equals(word)) {
                written.append(text, done, occurrence.from()).append(right(found, occurrence.term()));
                done = occurrence.to();
            }
        }
        return written.append(text.substring(done)).toString();
    }

    /** The term as it should stand in place of what was found: plural and capital letter are kept. */
    static String right(String found, GlossaryTerm term) {
        String folded = StudyRules.folded(found);
        boolean plural =
                term.misspellings().stream().noneMatch(m -> StudyRules.folded(m).equals(folded));
        String right = term.term() + (plural ? "s" : "");
        boolean capital = Character.isUpperCase(found.codePointAt(0));
        return capital ? right.substring(0, 1).toUpperCase(Locale.ROOT) + right.substring(1) : right;
    }
}
