package org.polyclave.study.change;

import java.lang.reflect.RecordComponent;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.polyclave.study.model.BodyPlan;
import org.polyclave.study.model.Claim;
import org.polyclave.study.model.GlossaryTerm;
import org.polyclave.study.model.Mark;
import org.polyclave.study.model.Opinion;
import org.polyclave.study.model.Picture;
import org.polyclave.study.model.Reading;
import org.polyclave.study.model.RecordFields;
import org.polyclave.study.model.Reference;
import org.polyclave.study.model.Scale;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.Specimen;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.notation.NotationPrinter;

/**
 * What differs between two versions of a study, object by object: scope, outside taxa, rows, characters, terms, references,
 * claims, pictures, opinions, specimens, readings, then cells. The order of objects is not compared. Time and memory linear in both.
 */
public final class StudyDifference {

    private final Study before;
    private final Study after;
    private final List<Change> changes = new ArrayList<>();

    /** What there is to differ. */
    public enum Kind {
        SCOPE,
        OUTSIDE,
        ROW,
        CHARACTER,
        TERM,
        REFERENCE,
        CLAIM,
        PICTURE,
        OPINION,
        SPECIMEN,
        READING,
        CELL
    }

    /** How it differs. */
    public enum How {
        ADDED,
        CHANGED,
        REMOVED
    }

    /**
     * One object that differs.
     *
     * @param id of the object; of the row for a cell
     * @param character of a cell, or empty
     * @param name as people know it
     * @param fields what of it differs
     */
    public record Change(Kind kind, How how, String id, String character, String name, List<Field> fields) {
        public Change {
            fields = List.copyOf(fields);
        }
    }

    /** What of an object differs, in words; the texts are empty where there is nothing. */
    public record Field(StudyField name, String before, String after) {}

    private StudyDifference(Study before, Study after) {
        this.before = before;
        this.after = after;
    }

    public static List<Change> between(Study before, Study after) {
        StudyDifference difference = new StudyDifference(before, after);
        difference.run();
        return difference.changes;
    }

    private void run() {
        if (!before.scope().equals(after.scope()) || !before.title().equals(after.title())) {
            List<Field> fields = new ArrayList<>(fields(before.scope(), after.scope()));
            if (!before.title().equals(after.title())) {
                fields.add(0, new Field(StudyField.TITLE, before.title(), after.title()));
            }
            changes.add(new Change(Kind.SCOPE, How.CHANGED, "", "", after.title(), fields));
        }
        if (!before.nearButOutside().equals(after.nearButOutside())) {
            Field field = new Field(StudyField.NEAR_BUT_OUTSIDE, names(before), names(after));
            changes.add(new Change(Kind.OUTSIDE, How.CHANGED, "", "", "", List.of(field)));
        }
        objects(Kind.ROW, before.rows(), after.rows(), StudyRow::id, StudyRow::name);
        objects(Kind.CHARACTER, before.characters(), after.characters(), StudyCharacter::id, StudyCharacter::label);
        objects(Kind.TERM, before.glossary(), after.glossary(), GlossaryTerm::id, GlossaryTerm::term);
        objects(Kind.REFERENCE, before.references(), after.references(), Reference::id, Reference::citation);
        objects(Kind.CLAIM, before.claims(), after.claims(), Claim::id, Claim::text);
        objects(Kind.PICTURE, before.pictures(), after.pictures(), Picture::id, Picture::shows);
        objects(
                Kind.OPINION,
                before.opinions(),
                after.opinions(),
                Opinion::id,
                o -> o.scorer() + ": " + rowName(o.row()) + " × " + characterName(o.character()));
        objects(Kind.SPECIMEN, before.specimens(), after.specimens(), Specimen::id, Specimen::code);
        objects(
                Kind.READING,
                before.readings(),
                after.readings(),
                Reading::id,
                r -> specimenCode(r.specimen()) + " × " + characterName(r.character()) + ": " + r.typed());
        cells();
    }

    private String rowName(String id) {
        return after.row(id).or(() -> before.row(id)).map(StudyRow::name).orElse(id);
    }

    private String characterName(String id) {
        return after.character(id)
                .or(() -> before.character(id))
                .map(StudyCharacter::label)
                .orElse(id);
    }

    private String specimenCode(String id) {
        return Stream.concat(after.specimens().stream(), before.specimens().stream())
                .filter(s -> s.id().equals(id))
                .map(Specimen::code)
                .findFirst()
                .orElse(id);
    }

    private static String names(Study study) {
        return String.join(
                ", ", study.nearButOutside().stream().map(o -> o.name()).toList());
    }

    private <T extends Record> void objects(
            Kind kind, List<T> old, List<T> now, Function<T, String> id, Function<T, String> name) {
        Map<String, T> left = new LinkedHashMap<>();
        old.forEach(o -> left.put(id.apply(o), o));
        for (T one : now) {
            T other = left.remove(id.apply(one));
            if (other == null) {
                changes.add(new Change(kind, How.ADDED, id.apply(one), "", name.apply(one), List.of()));
            } else if (!one.equals(other)) {
                changes.add(new Change(kind, How.CHANGED, id.apply(one), "", name.apply(one), fields(other, one)));
            }
        }
        left.forEach((key, gone) -> changes.add(new Change(kind, How.REMOVED, key, "", name.apply(gone), List.of())));
    }

    /** Fields in which two records differ; those of the records inside them one by one, by their own names. */
    private static List<Field> fields(Record before, Record after) {
        List<Field> fields = new ArrayList<>();
        for (RecordComponent component : after.getClass().getRecordComponents()) {
            addField(fields, component, RecordFields.value(before, component), RecordFields.value(after, component));
        }
        return fields;
    }

    private static void addField(
            List<Field> fields, RecordComponent component, @Nullable Object old, @Nullable Object now) {
        if (Objects.equals(old, now)) {
            return;
        }
        Record inside = now instanceof Record is ? is : old instanceof Record was ? was : null;
        if (inside == null || !isSpread(inside)) {
            String was = text(old);
            String is = text(now);
            if (!was.equals(is)) {
                fields.add(new Field(StudyField.of(component.getName()), was, is));
            }
            return;
        }
        for (RecordComponent part : inside.getClass().getRecordComponents()) {
            addField(
                    fields,
                    part,
                    old == null ? null : RecordFields.value((Record) old, part),
                    now == null ? null : RecordFields.value((Record) now, part));
        }
    }

    /** Marks, scales, outlines and values are one thing to their readers. */
    private static boolean isSpread(Record inside) {
        return !(inside instanceof Mark
                || inside instanceof Scale
                || inside instanceof BodyPlan
                || inside instanceof ScoreValue);
    }

    /** Texts as they are, objects by their labels or else by all they say, codes as words. */
    private static String text(@Nullable Object value) {
        if (value == null) {
            return "";
        }
        if (value instanceof Boolean is) {
            return is ? "yes" : "no";
        }
        if (value instanceof Enum<?> code) {
            return code.name().toLowerCase(Locale.ROOT).replace('_', ' ');
        }
        if (value instanceof Double number) {
            return BigDecimal.valueOf(number).stripTrailingZeros().toPlainString();
        }
        if (value instanceof List<?> all) {
            return all.stream()
                    .map(StudyDifference::text)
                    .filter(s -> !s.isEmpty())
                    .collect(Collectors.joining(", "));
        }
        return value instanceof Record object ? spoken(object) : value.toString();
    }

    private static String spoken(Record object) {
        List<String> said = new ArrayList<>();
        for (RecordComponent component : object.getClass().getRecordComponents()) {
            String text = text(RecordFields.value(object, component));
            if (component.getName().equals("label")) {
                return text;
            }
            if (!text.isEmpty() && !component.getName().equals("id")) {
                said.add(text);
            }
        }
        return String.join(" ", said);
    }

    private void cells() {
        Map<String, StudyScore> left = new HashMap<>();
        before.scores().forEach(s -> left.put(key(s), s));
        Map<String, StudyRow> rows = new HashMap<>();
        before.rows().forEach(r -> rows.put(r.id(), r));
        after.rows().forEach(r -> rows.put(r.id(), r));
        Map<String, StudyCharacter> old = byId(before);
        Map<String, StudyCharacter> now = byId(after);
        List<Change> found = new ArrayList<>();
        for (StudyScore score : after.scores()) {
            StudyScore other = left.remove(key(score));
            if (!score.equals(other)) {
                found.add(cell(other, score, rows, old, now));
            }
        }
        left.values().forEach(gone -> found.add(cell(gone, null, rows, old, now)));
        Map<String, Integer> places = new HashMap<>();
        before.rows().forEach(r -> places.putIfAbsent(r.id(), places.size()));
        found.sort(Comparator.<Change>comparingInt(c -> places.getOrDefault(c.id(), Integer.MAX_VALUE))
                .thenComparing(Change::id)
                .thenComparing(Change::character));
        changes.addAll(found);
    }

    private static String key(StudyScore score) {
        return score.row() + '/' + score.character();
    }

    private static Map<String, StudyCharacter> byId(Study study) {
        Map<String, StudyCharacter> byId = new HashMap<>();
        study.characters().forEach(c -> byId.put(c.id(), c));
        return byId;
    }

    private static Change cell(
            @Nullable StudyScore old,
            @Nullable StudyScore now,
            Map<String, StudyRow> rows,
            Map<String, StudyCharacter> oldCharacters,
            Map<String, StudyCharacter> newCharacters) {
        StudyScore any = Objects.requireNonNull(now == null ? old : now);
        String was = said(old, oldCharacters);
        String is = said(now, newCharacters);
        List<Field> fields = new ArrayList<>();
        if (!was.equals(is)) {
            fields.add(new Field(StudyField.SCORE, was, is));
        } else if (old != null && now != null && !old.value().equals(now.value())) {
            // The same text in another unit or type.
            fields.add(new Field(
                    StudyField.SCORE,
                    meant(was, oldCharacters.get(old.character())),
                    meant(is, newCharacters.get(now.character()))));
        }
        if (old != null && now != null) {
            fields.addAll(fields(old, now).stream()
                    .filter(f -> f.name() != StudyField.VALUE && f.name() != StudyField.TYPED)
                    .toList());
        }
        StudyRow row = rows.get(any.row());
        StudyCharacter character = newCharacters.getOrDefault(any.character(), oldCharacters.get(any.character()));
        String name = (row == null ? any.row() : row.name()) + " × "
                + (character == null ? any.character() : character.label());
        How how = old == null ? How.ADDED : now == null ? How.REMOVED : How.CHANGED;
        return new Change(Kind.CELL, how, any.row(), any.character(), name, fields);
    }

    private static String meant(String text, @Nullable StudyCharacter character) {
        if (character == null) {
            return text;
        }
        return text
                + (character.unit().isEmpty()
                        ? " (" + character.type().name().toLowerCase(Locale.ROOT) + ")"
                        : " " + character.unit());
    }

    private static String said(@Nullable StudyScore score, Map<String, StudyCharacter> characters) {
        StudyCharacter character = score == null ? null : characters.get(score.character());
        return score == null || character == null ? "" : NotationPrinter.print(score.value(), character);
    }
}
