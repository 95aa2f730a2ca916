package org.polyclave.study.measuring;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.polyclave.study.model.Reading;
import org.polyclave.study.model.Specimen;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.notation.TypedNumber;
import org.polyclave.study.rules.Problem;
import org.polyclave.study.rules.StudyRules;

/**
 * Readings of a table, as readings of a study: specimens are told by their codes, characters by their labels. Time and memory
 * linear in the table and the study.
 */
public final class ReadingImport {
    private final Map<String, Specimen> specimens = new HashMap<>();
    private final Map<String, StudyCharacter> characters = new HashMap<>();
    private final List<Reading> readings = new ArrayList<>();
    private final List<Problem> problems = new ArrayList<>();
    private final Set<String> unknownSpecimens = new LinkedHashSet<>();
    private final Set<String> unknownCharacters = new LinkedHashSet<>();

    private ReadingImport(Study study) {
        study.specimens().forEach(s -> specimens.put(StudyRules.folded(s.code()), s));
        study.characters().forEach(c -> characters.put(StudyRules.folded(c.id()), c));
        study.characters().forEach(c -> characters.put(StudyRules.folded(c.label()), c));
    }

    /**
     * What a table would add.
     *
     * @param problems what is not a reading, with its place; blocking
     * @param unknownSpecimens codes that the study does not have
     * @param unknownCharacters columns that are not characters of the study, which are left out
     */
    public record ImportedReadings(
            List<Reading> readings,
            List<Problem> problems,
            List<String> unknownSpecimens,
            List<String> unknownCharacters) {}

    /**
     * @param by who read them, where the table does not say
     * @param date of reading, where the table does not say
     */
    public static ImportedReadings of(Study study, ReadingSheet table, String by, String date) {
        ReadingImport found = new ReadingImport(study);
        found.problems.addAll(table.problems());
        table.columns().forEach(c -> found.take(c, by, date));
        return new ImportedReadings(
                found.readings,
                found.problems,
                List.copyOf(found.unknownSpecimens),
                List.copyOf(found.unknownCharacters));
    }

    private void take(ReadingSheet.Column column, String by, String date) {
        StudyCharacter character = characters.get(StudyRules.folded(column.character()));
        if (character == null) {
            unknownCharacters.add(column.character());
            return;
        }
        for (ReadingSheet.Measurement reading : column.readings()) {
            if (reading.isMissing()) {
                continue;
            }
            Specimen specimen = specimens.get(StudyRules.folded(reading.specimen()));
            if (specimen == null) {
                unknownSpecimens.add(reading.specimen());
                continue;
            }
            ReadingOutcome taken = TypedReading.of(withUnit(reading.typed(), column.unit()), character);
            if (taken instanceof ReadingOutcome.Refused refused) {
                problems.add(Problem.at(reading.line(), 0, column.character(), refused.reason()));
            } else {
                add(reading, (ReadingOutcome.Value) taken, specimen, character, by, date);
            }
        }
    }

    private static String withUnit(String typed, String unit) {
        return TypedNumber.parse(typed).filter(n -> n.unit().isEmpty()).isPresent() && !unit.isEmpty()
                ? typed + " " + unit
                : typed;
    }

    private void add(
            ReadingSheet.Measurement reading,
            ReadingOutcome.Value value,
            Specimen specimen,
            StudyCharacter character,
            String by,
            String date) {
        String day = reading.about().getOrDefault("date", "");
        readings.add(new Reading(
                UUID.randomUUID().toString(),
                specimen.id(),
                character.id(),
                reading.item(),
                value.typed(),
                value.value(),
                value.states(),
                value.uncertainty(),
                reading.about().getOrDefault("instrument", ""),
                by,
                StudyRules.isDate(day) && !day.isEmpty() ? day : date,
                null,
                Reading.Standing.TAKEN,
                reading.about().getOrDefault("note", "")));
    }
}
