package org.polyclave.files.table;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.measuring.ReadingSheet;
import org.polyclave.study.model.Units;
import org.polyclave.study.notation.TypedNumber;
import org.polyclave.study.notation.UnitHeading;

/** Makes a column of readings of what was typed: decides what kind of thing was read, and converts all to one unit. */
final class ReadingColumn {
    /** Of the numbers without a unit so many are whole if they are counts. */
    private static final double MOSTLY = 0.9;

    private final List<Typed> cells;
    private final Problems problems;
    private final List<Optional<TypedNumber>> numbers;

    private ReadingColumn(List<Typed> cells, Problems problems) {
        this.cells = cells;
        this.problems = problems;
        numbers = cells.stream().map(c -> TypedNumber.parse(c.reading.typed())).toList();
    }

    /** A reading with its place in the sheet. */
    record Typed(int row, int column, ReadingSheet.Measurement reading) {}

    /** Takes what is wrong with a cell. */
    interface Problems {
        void add(int row, int column, String text);
    }

    /** @param heading name of the character, perhaps with its unit */
    static ReadingSheet.Column of(String heading, List<Typed> cells, Problems problems) {
        Optional<UnitHeading> unit = UnitHeading.parse(heading);
        String label = unit.map(UnitHeading::label).orElse(heading);
        return new ReadingColumn(cells, problems).read(label, unit.map(UnitHeading::unit));
    }

    private ReadingSheet.Column read(String label, Optional<String> headed) {
        long typed = cells.stream().filter(c -> !c.reading.isMissing()).count();
        long numeric = numbers.stream().filter(Optional::isPresent).count();
        if (numeric * 2 < typed || numeric == 0) {
            List<ReadingSheet.Measurement> words =
                    cells.stream().map(Typed::reading).toList();
            return new ReadingSheet.Column(label, CharacterType.STATES, "", BigDecimal.ONE, words);
        }
        String unit = headed.orElseGet(() -> numbers.stream()
                .flatMap(Optional::stream)
                .map(TypedNumber::unit)
                .filter(u -> !u.isEmpty())
                .findFirst()
                .orElse(""));
        CharacterType type = Units.typeOf(unit).orElseGet(this::countOrRatio);
        List<ReadingSheet.Measurement> read = new ArrayList<>();
        BigDecimal step = null;
        for (int i = 0; i < cells.size(); i++) {
            Optional<TypedNumber> number = numbers.get(i);
            if (number.isEmpty()) {
                keepMissing(cells.get(i), read);
                continue;
            }
            double value = value(cells.get(i), number.get(), unit, type, headed.isPresent());
            read.add(withNumber(cells.get(i).reading, value));
            boolean same = number.get().unit().isEmpty() || number.get().unit().equals(unit);
            step = same && (step == null || number.get().step().compareTo(step) < 0)
                    ? number.get().step()
                    : step;
        }
        boolean counts = type == CharacterType.COUNT;
        return new ReadingSheet.Column(label, type, unit, step == null || counts ? BigDecimal.ONE : step, read);
    }

    private void keepMissing(Typed cell, List<ReadingSheet.Measurement> read) {
        if (!cell.reading.isMissing()) {
            problems.add(
                    cell.row,
                    cell.column,
                    "'" + cell.reading.typed()
                            + "' is not a number, but others of this column are. Write for example '12.5', or "
                            + "leave it empty.");
        }
        read.add(cell.reading);
    }

    /** NaN for what is told to be wrong. */
    private double value(Typed cell, TypedNumber number, String unit, CharacterType type, boolean headed) {
        String text = "'" + cell.reading.typed() + "' ";
        String wrong = "";
        if (number.number() < 0) {
            wrong = text + "is below zero. Sizes and counts start at 0.";
        } else if (!Double.isFinite(number.number())) {
            wrong = text + "is too large for any thing. Check it.";
        } else if (number.unit().isEmpty() && !unit.isEmpty() && !headed) {
            wrong = text
                    + "has no unit, but others of this column do. Write it, or put the unit of all into the heading.";
        } else if (!number.unit().isEmpty()
                && Units.typeOf(number.unit()).filter(type::equals).isEmpty()) {
            wrong = text + "is in '" + number.unit() + "', which is not a unit of "
                    + (unit.isEmpty() ? "a number without one" : "what is measured in " + unit) + ". Check it.";
        }
        if (!wrong.isEmpty()) {
            problems.add(cell.row, cell.column, wrong);
            return Double.NaN;
        }
        double factor = number.unit().isEmpty() || number.unit().equals(unit)
                ? 1
                : factor(type, number.unit()) / factor(type, unit);
        return factor == 1 ? number.number() : Units.scaled(number.number(), factor);
    }

    private static double factor(CharacterType type, String unit) {
        return Units.factor(type, unit).orElse(1.0);
    }

    private static ReadingSheet.Measurement withNumber(ReadingSheet.Measurement reading, double number) {
        return new ReadingSheet.Measurement(
                reading.line(), reading.specimen(), reading.item(), reading.about(), reading.typed(), number);
    }

    private CharacterType countOrRatio() {
        long all = numbers.stream().filter(Optional::isPresent).count();
        long whole = numbers.stream()
                .flatMap(Optional::stream)
                .filter(n -> n.number() % 1 == 0)
                .count();
        return whole >= MOSTLY * all ? CharacterType.COUNT : CharacterType.RATIO;
    }
}
