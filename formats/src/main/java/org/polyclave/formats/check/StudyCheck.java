package org.polyclave.formats.check;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import org.polyclave.core.check.Finding;
import org.polyclave.core.check.MatrixCheck;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.formats.notation.NotationPrinter;
import org.polyclave.formats.study.CompiledStudy;
import org.polyclave.formats.study.Inheritance;
import org.polyclave.formats.study.ScoreValue;
import org.polyclave.formats.study.Study;
import org.polyclave.formats.study.StudyCharacter;
import org.polyclave.formats.study.StudyRow;
import org.polyclave.formats.study.StudyScore;

/**
 * All checks of a study: those of its compiled matrix, put in words, and those that need its tree and texts. The same
 * findings in the same order for the same study.
 */
public final class StudyCheck {
    /** Shorter descriptions may well be alike. */
    private static final int TELLING_TEXT = 40;
    /** States that define themselves. */
    static final Set<String> PRESENCE = Set.of("absent", "present");

    private final CompiledStudy compiled;
    private final Study study;
    private final Inheritance inheritance;
    private final List<StudyFinding> found = new ArrayList<>();

    private StudyCheck(CompiledStudy compiled) {
        this.compiled = compiled;
        study = compiled.study();
        inheritance = new Inheritance(study.rows(), study.scoresByRow());
    }

    public static List<StudyFinding> of(CompiledStudy compiled) {
        StudyCheck check = new StudyCheck(compiled);
        check.hazards();
        MatrixCheck.of(compiled.matrix()).forEach(check::tell);
        check.childrenOutsideTheirParents();
        check.scores();
        check.texts();
        check.characters();
        check.found.addAll(ApparatusCheck.of(compiled));
        check.found.addAll(SeasonAndSizeCheck.of(compiled));
        check.found.addAll(GapCheck.of(compiled, check.inheritance));
        return List.copyOf(check.found);
    }

    private void add(String kind, String row, String character, String reason) {
        found.add(new StudyFinding(kind, row, character, "", reason));
    }

    private void tell(Finding finding) {
        String kind = finding.kind().name().toLowerCase(Locale.ROOT).replace('_', '-');
        String row = finding.row() < 0 ? "" : compiled.rows().get(finding.row()).id();
        String character = finding.character() < 0 ? "" : character(finding).id();
        found.add(new StudyFinding(kind, row, character, other(finding), reason(finding)));
    }

    private String other(Finding finding) {
        return switch (finding.kind()) {
            case UNUSED_STATE ->
                character(finding).states().get(finding.state()).id();
            case SAME_ROWS, RANGES_TOUCH ->
                compiled.rows().get(finding.otherRow()).id();
            case IMPLIED, NEARLY_IMPLIED ->
                compiled.characters().get(finding.otherCharacter()).id();
            default -> "";
        };
    }

    private StudyCharacter character(Finding finding) {
        return compiled.characters().get(finding.character());
    }

    private String name(int row) {
        return "'" + compiled.rows().get(row).name() + "'";
    }

    private String reason(Finding finding) {
        String label = finding.character() < 0 ? "" : "'" + character(finding).label() + "'";
        String other = finding.otherCharacter() < 0
                ? ""
                : "'" + compiled.characters().get(finding.otherCharacter()).label() + "'";
        return switch (finding.kind()) {
            case UNUSED_STATE ->
                "No row shows the state '"
                        + character(finding).states().get(finding.state()).label() + "' of " + label
                        + ". Score the row that it was made for, or remove it.";
            case NEVER_VARIES ->
                "All rows show the same of " + label + ". It tells nothing apart here; move it to the descriptions.";
            case SEPARATES_NOTHING ->
                "No two rows are apart in " + label
                        + ": they overlap in every pair. Score it more narrowly, or do not rely on it.";
            case SAME_ROWS ->
                name(finding.row()) + " and " + name(finding.otherRow())
                        + " are scored alike throughout. Score what parts them, or merge them.";
            case IMPLIED ->
                label + " and " + other + " go together in all " + (int) finding.figure()
                        + " rows that show one state of each: the one says nothing that the other does not. "
                        + "Check that they were scored independently.";
            case NEARLY_IMPLIED ->
                label + " and " + other + " go together in all but a few of " + (int) finding.figure() + " rows; "
                        + name(finding.row()) + " is an exception. Look at both cells again.";
            case RANGES_TOUCH ->
                "In " + label + " the range of " + name(finding.row()) + " ends exactly where that of "
                        + name(finding.otherRow()) + " begins"
                        + (finding.figure() > 1 ? " (" + (int) finding.figure() + " such pairs)" : "")
                        + ". Limits that just touch were often taken from a key; measure them.";
            case NOT_APPLICABLE_BUT_APPLIES ->
                label + " is scored as not applicable for " + name(finding.row())
                        + ", although what it depends on says that it applies. Correct one of the two.";
            case SCORED_BUT_NOT_APPLICABLE ->
                label + " is scored for " + name(finding.row())
                        + ", although what it depends on says that it does not apply. Correct one of the two.";
            case UNKNOWN_ROW ->
                name(finding.row()) + " is unknown in " + percent(finding) + " of the characters. Score it further.";
            case UNKNOWN_CHARACTER ->
                label + " is unknown in " + percent(finding) + " of the rows. Score it further, or leave it out.";
        };
    }

    private static String percent(Finding finding) {
        return Math.round(100 * finding.figure()) + " %";
    }

    private void hazards() {
        for (StudyRow row : compiled.rows()) {
            if (row.hazard() == Hazard.NOT_ASSESSED) {
                add(
                        "hazard-not-assessed",
                        row.id(),
                        "",
                        "The hazard of '" + row.name()
                                + "' is not assessed. It is never taken for harmless; assess it.");
            }
        }
        for (StudyRow row : study.rows()) {
            for (StudyRow.HazardRecord hazard : row.hazards()) {
                if (hazard.severity().isDangerous() && hazard.caution().isBlank()) {
                    add(
                            "no-caution",
                            row.id(),
                            "",
                            "'" + row.name() + "' is dangerous (" + hazard.kind()
                                    + "), and no caution says what readers must do. Write one.");
                }
            }
            if (row.hazard().isDangerous() && row.hazards().isEmpty()) {
                add(
                        "no-caution",
                        row.id(),
                        "",
                        "'" + row.name()
                                + "' is dangerous, and nothing says how. Record the hazard with its kind and a caution.");
            }
        }
    }

    /**
     * What a taxon says must lie within what its parent says, if the parent says anything. A sex or stage differs from its
     * taxon by its nature, so it is not compared.
     */
    private void childrenOutsideTheirParents() {
        Map<String, StudyCharacter> characters = new HashMap<>();
        study.characters().forEach(c -> characters.put(c.id(), c));
        Map<String, StudyRow> rows = new HashMap<>();
        study.rows().forEach(r -> rows.put(r.id(), r));
        for (StudyScore score : study.scores()) {
            StudyRow row = rows.get(score.row());
            StudyCharacter character = characters.get(score.character());
            if (row == null || character == null || row.parent() == null || row.isSemaphoront()) {
                continue;
            }
            inheritance
                    .effective(row.parent(), character.id())
                    .filter(parent -> !isWithin(score.value(), parent.score().value()))
                    .ifPresent(parent -> add(
                            "child-outside-parent",
                            row.id(),
                            character.id(),
                            "'" + row.name() + "' shows '" + NotationPrinter.print(score.value(), character) + "' in '"
                                    + character.label() + "', but its parent says '"
                                    + NotationPrinter.print(parent.score().value(), character)
                                    + "'. Widen the parent, or correct the child."));
        }
    }

    /** Whether a parent's value admits a child's; unknown, any and not applicable contradict nothing. */
    private static boolean isWithin(ScoreValue child, ScoreValue parent) {
        if (child instanceof ScoreValue.States shown && parent instanceof ScoreValue.States admitted) {
            return shown.shown().stream()
                    .filter(s -> s.frequency() != ScoreValue.Frequency.MISTAKEN)
                    .allMatch(s -> admitted.shown().stream()
                            .anyMatch(a ->
                                    a.state().equals(s.state()) && a.frequency() != ScoreValue.Frequency.MISTAKEN));
        }
        if (child instanceof ScoreValue.Range inner && parent instanceof ScoreValue.Range outer) {
            return inner.min() >= outer.min() && end(inner) <= end(outer);
        }
        return !(child instanceof ScoreValue.Months inner && parent instanceof ScoreValue.Months outer)
                || outer.months().containsAll(inner.months());
    }

    private static double end(ScoreValue.Range range) {
        return range.max() == null ? Double.POSITIVE_INFINITY : range.max();
    }

    private void scores() {
        for (StudyScore score : study.scores()) {
            if (score.basis() == StudyScore.Basis.REFERENCE && score.source().isBlank()) {
                add(
                        "no-source",
                        score.row(),
                        score.character(),
                        "This score comes from a reference that is not named. Name it.");
            }
            if (score.basis() == StudyScore.Basis.SPECIMENS
                    && score.value() instanceof ScoreValue.Range range
                    && range.max() != null
                    && range.min() == range.max()
                    && isMeasured(score.character())) {
                add(
                        "single-value",
                        score.row(),
                        score.character(),
                        "One single value from specimens: no two measure alike. Give the range.");
            }
        }
    }

    private boolean isMeasured(String id) {
        return study.character(id)
                .map(StudyCharacter::type)
                .filter(t -> t.isNumeric() && t != CharacterType.COUNT)
                .isPresent();
    }

    private void texts() {
        Map<String, StudyRow> descriptions = new HashMap<>();
        for (StudyRow row : study.rows()) {
            String text = row.description().strip();
            StudyRow same = text.length() < TELLING_TEXT ? null : descriptions.putIfAbsent(text, row);
            if (same != null) {
                add(
                        "same-text",
                        row.id(),
                        "",
                        "'" + row.name() + "' and '" + same.name()
                                + "' are described word for word alike. One of the two was copied.");
            }
            if (!text.isEmpty()) {
                study.characters().forEach(c -> denied(row, c, text));
            }
        }
    }

    /**
     * States that a description names together with their character, but the score denies. Only both together count:
     * "toothed" alone may be said of another part.
     */
    private void denied(StudyRow row, StudyCharacter character, String text) {
        Optional<ScoreValue.States> shown = inheritance
                .effective(row.id(), character.id())
                .map(e -> e.score().value())
                .filter(ScoreValue.States.class::isInstance)
                .map(ScoreValue.States.class::cast);
        if (shown.isEmpty()) {
            return;
        }
        for (StudyCharacter.StudyState state : character.states()) {
            boolean isShown =
                    shown.get().shown().stream().anyMatch(s -> s.state().equals(state.id()));
            if (!isShown
                    && together(character.label(), state.label()).matcher(text).find()) {
                found.add(new StudyFinding(
                        "text-against-score",
                        row.id(),
                        character.id(),
                        state.id(),
                        "The description of '" + row.name() + "' says '" + state.label() + "' of '" + character.label()
                                + "', but the score says '" + NotationPrinter.print(shown.get(), character)
                                + "'. Correct one of the two."));
            }
        }
    }

    private static Pattern together(String character, String state) {
        String c = Pattern.quote(character);
        String s = Pattern.quote(state);
        return Pattern.compile("(?iU)\\b(" + c + "s?( is| are)? " + s + "|" + s + " " + c + "s?)\\b");
    }

    private void characters() {
        for (StudyCharacter character : study.characters()) {
            if (character.question().isBlank()) {
                add(
                        "no-question",
                        "",
                        character.id(),
                        "'" + character.label() + "' has no question for readers. Write one.");
            }
            List<String> undefined = character.states().stream()
                    .filter(s -> s.definition().isBlank() && s.plain().isBlank() && !PRESENCE.contains(s.id()))
                    .map(StudyCharacter.StudyState::label)
                    .toList();
            if (!undefined.isEmpty()) {
                add(
                        "no-definition",
                        "",
                        character.id(),
                        "States of '" + character.label() + "' without a definition or plain words: "
                                + String.join(", ", undefined) + ". Two scorers may take them differently.");
            }
        }
    }
}
