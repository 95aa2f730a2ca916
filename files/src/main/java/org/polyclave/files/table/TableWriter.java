package org.polyclave.files.table;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.polyclave.core.matrix.CharacterRole;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.files.darwincore.DarwinCoreTaxa;
import org.polyclave.files.sheet.TextTable;
import org.polyclave.files.sheet.Workbook;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.model.Units;
import org.polyclave.study.notation.MonthNotation;
import org.polyclave.study.notation.NotationPrinter;

/** Writes a study as a table that {@link TableReader} reads back. */
public final class TableWriter {
    static final List<String> ABOUT_ROWS = List.of("#rank", "#parent", "#stage", "#hazard", "#weight", "#covers");

    private final Study study;
    private final List<List<String>> lines = new ArrayList<>();

    private TableWriter(Study study) {
        this.study = study;
    }

    /** How a table lays out its scores. */
    public enum Layout {
        /** Rows down, characters across. */
        WIDE,
        /** One score a line, with its origin. */
        LONG
    }

    /** @param separator ',' or tab */
    public static String write(Study study, char separator) {
        return write(study, Layout.WIDE, separator, "");
    }

    /**
     * @param separator ',' or tab
     * @param supplement text that travels in rows of its own at the end; may be empty
     */
    public static String write(Study study, Layout layout, char separator, String supplement) {
        return TextTable.write(lines(study, layout, supplement), separator);
    }

    /** Taxa without their scores, as a table of Darwin Core terms. */
    public static String darwinCore(Study study) {
        return TextTable.write(DarwinCoreTaxa.compose(study), ',');
    }

    /** As an XLSX workbook of one sheet. */
    public static byte[] workbook(Study study, Layout layout, String supplement) {
        return Workbook.write(lines(study, layout, supplement), "matrix");
    }

    private static List<List<String>> lines(Study study, Layout layout, String supplement) {
        List<List<String>> lines = new ArrayList<>(layout == Layout.WIDE ? compose(study) : LongTable.compose(study));
        lines.addAll(TableSupplement.rows(supplement));
        return lines;
    }

    static List<List<String>> compose(Study study) {
        TableWriter writer = new TableWriter(study);
        writer.compose();
        return writer.lines;
    }

    private void compose() {
        List<String> header = new ArrayList<>(List.of("taxon"));
        header.addAll(ABOUT_ROWS);
        study.characters().forEach(c -> header.add(c.label()));
        lines.add(header);
        describe("#type", c -> c.type().name().toLowerCase(Locale.ROOT));
        describe("#unit", StudyCharacter::unit);
        describe("#organ", StudyCharacter::organ);
        describe("#method", StudyCharacter::method);
        describe(
                "#states",
                c -> c.states().stream().map(StudyCharacter.StudyState::label).collect(Collectors.joining("|")));
        describe("#applies", this::conditions);
        describe("#months", c -> MonthNotation.print(c.months()));
        describe("#effort", c -> NotationPrinter.number(c.effort()));
        describe("#harm", c -> harm(c));
        describe("#group", StudyCharacter::group);
        describe(
                "#uncertainty",
                c -> c.uncertainty() == 0
                        ? ""
                        : NotationPrinter.number(c.uncertainty()
                                / Units.factor(c.type(), c.unit()).orElse(1.0)));
        describe("#misreading", c -> NotationPrinter.number(c.misreading()));
        describe(
                "#role",
                c -> c.use().role() == CharacterRole.DECIDES
                        ? ""
                        : CharacterColumns.role(c.use().role()));
        describe("#seen", c -> NotationPrinter.number(c.use().seenOn()));
        describe("#lead", c -> c.lead().technical());
        describe("#plain lead", c -> c.lead().plain());
        describe("#question", StudyCharacter::question);
        describe("#note", StudyCharacter::note);
        Map<String, Map<String, StudyScore>> scores = study.scoresByRow();
        for (StudyRow row : study.rows()) {
            List<String> line = new ArrayList<>(List.of(
                    row.label(),
                    row.rank(),
                    parent(row),
                    row.stage(),
                    hazard(row.hazard()),
                    NotationPrinter.number(row.weight()),
                    covers(row)));
            for (StudyCharacter character : study.characters()) {
                StudyScore score = scores.getOrDefault(row.id(), Map.of()).get(character.id());
                line.add(score == null ? "" : NotationPrinter.print(score.value(), character));
            }
            lines.add(line);
        }
    }

    private void describe(String name, Function<StudyCharacter, String> text) {
        List<String> line = new ArrayList<>(Collections.nCopies(1 + ABOUT_ROWS.size(), ""));
        line.set(0, name);
        study.characters().forEach(c -> line.add(text.apply(c)));
        if (line.subList(1 + ABOUT_ROWS.size(), line.size()).stream().anyMatch(t -> !t.isEmpty())) {
            lines.add(line);
        }
    }

    private static String harm(StudyCharacter character) {
        if (!character.harms()) {
            return character.hazardousToObserve() ? "hazardous" : "";
        }
        return character.hazardousToObserve() ? "yes, hazardous" : "yes";
    }

    private String conditions(StudyCharacter character) {
        return character.appliesWhen().stream()
                .map(condition -> {
                    StudyCharacter controller =
                            study.character(condition.character()).orElseThrow();
                    String states = condition.states().stream()
                            .map(id -> controller
                                    .state(id)
                                    .map(StudyCharacter.StudyState::label)
                                    .orElse(id))
                            .collect(Collectors.joining("|"));
                    return controller.label() + " = " + states;
                })
                .collect(Collectors.joining("; "));
    }

    private String parent(StudyRow row) {
        return row.parent() == null || row.isSemaphoront()
                ? ""
                : study.row(row.parent()).map(StudyRow::name).orElse("");
    }

    private static String covers(StudyRow row) {
        return switch (row.coverage().covers()) {
            case BY_RULE -> "";
            case ALL -> "all";
            case NOT_ALL -> "not all";
        };
    }

    private static String hazard(Hazard hazard) {
        return switch (hazard) {
            case NOT_ASSESSED -> "";
            case NONE_KNOWN -> "none known";
            case LIFE_THREATENING -> "life-threatening";
            default -> hazard.name().toLowerCase(Locale.ROOT);
        };
    }
}
