package org.polyclave.study.measuring;

import java.math.BigDecimal;
import java.util.List;
import java.util.Map;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.rules.Problem;

/**
 * Readings of specimens as a table holds them.
 *
 * @param fields names of the columns that describe specimens, in the table's order
 * @param columns one a character
 * @param problems what could not be read, with its place; blocking where a reading is not what it was meant to be
 */
public record ReadingSheet(List<String> fields, List<Column> columns, List<Problem> problems) {
    /** The field that names the collecting event. */
    public static final String EVENT = "event";

    /** Every problem that keeps the readings from being used. */
    public List<Problem> blocking() {
        return problems.stream().filter(Problem::blocking).toList();
    }

    /**
     * What was read of one character.
     *
     * @param type {@code STATES} for observations in words, {@code COUNT} or {@code RATIO} for numbers without a unit
     * @param unit of the numbers, empty if they have none
     * @param step the finest that was typed, in the unit
     */
    public record Column(
            String character, CharacterType type, String unit, BigDecimal step, List<Measurement> readings) {
        public boolean isNumeric() {
            return type != CharacterType.STATES;
        }
    }

    /**
     * One reading, or one that is missing.
     *
     * @param line of the file, counted from 1
     * @param specimen whose reading it is; never empty
     * @param item of the specimen; empty if the reading is an item of its own
     * @param about what the line says of the specimen, by field
     * @param typed as it was typed; empty if it is missing
     * @param number in the column's unit; {@link Double#NaN} if it is missing or in words
     */
    public record Measurement(
            int line, String specimen, String item, Map<String, String> about, String typed, double number) {
        public boolean isMissing() {
            return typed.isEmpty();
        }
    }
}
