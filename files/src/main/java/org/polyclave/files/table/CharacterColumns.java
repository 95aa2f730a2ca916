package org.polyclave.files.table;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.polyclave.core.matrix.CharacterRole;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.change.Retype;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.Slug;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyCharacter.AppliesWhen;
import org.polyclave.study.model.StudyCharacter.StudyState;
import org.polyclave.study.model.Units;
import org.polyclave.study.notation.CellNotation;
import org.polyclave.study.notation.TypeGuess;
import org.polyclave.study.notation.UnitHeading;
import org.polyclave.study.rules.Limits;

/** Reads the rows of a wide table that describe its characters. */
final class CharacterColumns {
    private final Map<String, List<String>> about;
    private final Map<String, Integer> aboutRow;
    private final TableReport report;
    private final Map<Integer, TypeGuess.Guess> guesses = new HashMap<>();
    private final TableChoices choices;

    CharacterColumns(
            Map<String, List<String>> about, Map<String, Integer> aboutRow, TableChoices choices, TableReport report) {
        this.choices = choices;
        this.about = about;
        this.aboutRow = aboutRow;
        this.report = report;
    }

    /** What the description row {@code name} says of a column; empty if nothing. */
    String text(int column, String name) {
        List<String> row = about.get(name);
        return row == null || column >= row.size() ? "" : row.get(column);
    }

    private void problem(int column, String name, String text) {
        report.problem(aboutRow.getOrDefault(name, 0), column, text);
    }

    StudyCharacter read(int c, String label, List<String> texts) {
        Optional<CharacterType> named = TableReader.type(text(c, "type"));
        if (named.isEmpty() && !text(c, "type").isEmpty()) {
            problem(
                    c,
                    "type",
                    "'" + text(c, "type")
                            + "' is not a type. Use states, ordered, length, mass, angle, percent, count, ratio or months.");
        }
        boolean statesNamed = !text(c, "states").isEmpty();
        Retype.Choice choice = choices.types().get(label);
        CharacterType type = choice != null
                ? choice.type()
                : named.orElseGet(() -> statesNamed
                        ? CharacterType.STATES
                        : guess(c, label, texts).type());
        String unit = unit(c, label, type, texts);
        double uncertainty =
                number(c, "uncertainty", 0) * Units.factor(type, unit).orElse(1.0);
        String method = text(c, "method");
        String harm = text(c, "harm").toLowerCase(Locale.ROOT);
        boolean odour = method.toLowerCase(Locale.ROOT).matches(".*\\b(smell|odou?r|scent)\\w*.*");
        return new StudyCharacter(
                Slug.of(label),
                label,
                text(c, "question"),
                "",
                type,
                unit,
                text(c, "organ"),
                method,
                text(c, "note"),
                states(c, type, texts, statesNamed),
                List.of(),
                months(c),
                number(c, "effort", 1),
                isYes(harm),
                harm.contains("hazard")
                        || odour
                        || method.toLowerCase(Locale.ROOT).matches(".*\\b(crush|cut|touch|handl)\\w*.*"),
                odour,
                number(c, "misreading", StudyCharacter.DEFAULT_MISREADING),
                text(c, "group"),
                uncertainty,
                StudyCharacter.Where.NOT_SAID,
                StudyCharacter.Looking.PLAIN,
                "",
                List.of(),
                StudyCharacter.Trust.USUAL,
                use(c),
                new StudyCharacter.LeadPattern(text(c, "lead"), text(c, "plain lead")));
    }

    /** What a column holds that does not say so. A unit in its heading is its unit. */
    TypeGuess.Guess guess(int c, String label, List<String> texts) {
        return guesses.computeIfAbsent(c, column -> guessed(column, label, texts));
    }

    private TypeGuess.Guess guessed(int c, String label, List<String> texts) {
        Retype.Choice known = choices.knownOf(label);
        if (known != null) {
            return new TypeGuess.Guess(known.type(), false);
        }
        Optional<CharacterType> ofUnit = Units.typeOf(text(c, "unit"));
        CharacterType headed = ofUnit.orElseGet(
                () -> UnitHeading.parse(label).map(UnitHeading::type).orElse(CharacterType.STATES));
        return headed.isNumeric() ? new TypeGuess.Guess(headed, false) : TypeGuess.of(label, texts);
    }

    /** The chosen one, the one that is said, that of the heading, the one that most cells name, the usual one. */
    private String unit(int c, String label, CharacterType type, List<String> texts) {
        Retype.Choice choice = choices.types().get(label);
        String said = choice != null && !choice.unit().isEmpty() ? choice.unit() : text(c, "unit");
        if (Units.factor(type, said).isEmpty()) {
            // A type that was chosen has nothing to do with the unit that the table names.
            if (choice == null) {
                problem(
                        c,
                        "unit",
                        "'" + said + "' is not a unit for a character of type "
                                + type.name().toLowerCase(Locale.ROOT) + ". Remove it, or use another.");
            }
            return Units.defaultUnit(type);
        }
        if (!said.isEmpty()) {
            return said;
        }
        String headed = UnitHeading.parse(label)
                .filter(h -> h.type() == type)
                .map(UnitHeading::unit)
                .orElse("");
        Retype.Choice known = choices.knownOf(label);
        if (headed.isEmpty() && known != null && known.type() == type) {
            return known.unit();
        }
        String named = headed.isEmpty() && text(c, "type").isEmpty() ? TypeGuess.unit(texts, type) : headed;
        return named.isEmpty() ? Units.defaultUnit(type) : named;
    }

    /** "confirms", "never first" ... */
    static String role(CharacterRole role) {
        return role.name().toLowerCase(Locale.ROOT).replace('_', ' ');
    }

    private StudyCharacter.Use use(int c) {
        String text = text(c, "role");
        CharacterRole role = CharacterRole.DECIDES;
        if (!text.isEmpty()) {
            Optional<CharacterRole> named = Stream.of(CharacterRole.values())
                    .filter(r -> role(r).equals(text.toLowerCase(Locale.ROOT)))
                    .findFirst();
            if (named.isEmpty()) {
                problem(
                        c,
                        "role",
                        "'" + text + "' is not a part that a character may play. Use one of "
                                + Stream.of(CharacterRole.values())
                                        .map(CharacterColumns::role)
                                        .collect(Collectors.joining(", "))
                                + ".");
            }
            role = named.orElse(role);
        }
        Double seenOn = text(c, "seen").isEmpty() ? null : number(c, "seen", 1);
        if (seenOn != null && !(seenOn > 0 && seenOn <= 1)) {
            problem(
                    c,
                    "seen",
                    "'" + text(c, "seen") + "' is not a share of individuals. Write for example 0.2 for one in five.");
            seenOn = null;
        }
        return new StudyCharacter.Use(role, seenOn);
    }

    private static boolean isYes(String text) {
        return !List.of("", "no", "none", "false", "0", "hazardous").contains(text);
    }

    private double number(int c, String name, double otherwise) {
        String text = text(c, name);
        if (text.isEmpty()) {
            return otherwise;
        }
        try {
            double number = Double.parseDouble(text.replace(',', '.'));
            if (number >= 0 && number < 1e9) {
                return number;
            }
        } catch (NumberFormatException noNumber) {
            // Reported below, together with numbers out of range.
        }
        problem(c, name, "'" + text + "' is not a number of 0 or more.");
        return otherwise;
    }

    private List<Integer> months(int c) {
        String text = text(c, "months");
        if (text.isEmpty()) {
            return List.of();
        }
        Optional<List<Integer>> months = months(text);
        if (months.isEmpty()) {
            problem(c, "months", "'" + text + "' is not a span of months. Write for example 'May–Jul'.");
        }
        return months.orElse(List.of());
    }

    /** Months as people write them; empty if they are none. */
    static Optional<List<Integer>> months(String text) {
        StudyCharacter trial = StudyCharacter.of("months", CharacterType.MONTHS, List.of());
        CellNotation.ParseResult reading = CellNotation.parse(text, trial);
        return reading instanceof CellNotation.Parsed parsed && parsed.value() instanceof ScoreValue.Months months
                ? Optional.of(months.months())
                : Optional.empty();
    }

    private List<StudyState> states(int c, CharacterType type, List<String> texts, boolean named) {
        if (type != CharacterType.STATES && type != CharacterType.ORDERED) {
            return List.of();
        }
        List<StudyState> states = new ArrayList<>();
        Set<String> seen = new HashSet<>();
        if (!named) {
            states.addAll(TypeGuess.states(texts));
        }
        for (String label : named ? text(c, "states").split("\\|") : new String[0]) {
            StudyState state = StudyState.of(label.strip());
            if (state.id().isEmpty() || !seen.add(state.id())) {
                problem(c, "states", "the state '" + label.strip() + "' is empty or occurs twice.");
            } else {
                states.add(state);
            }
        }
        if (states.size() > Limits.STATES) {
            report.problem(
                    aboutRow.getOrDefault("states", 0),
                    c,
                    "the character has " + states.size() + " states; at most " + Limits.STATES
                            + " are possible. Merge some, or make two characters.");
            return states.subList(0, Limits.STATES);
        }
        return states;
    }

    /** Conditions name other characters, so they are read when all are known. */
    StudyCharacter withConditions(int c, StudyCharacter character, Collection<StudyCharacter> all) {
        List<AppliesWhen> conditions = new ArrayList<>();
        for (String part : text(c, "applies").split(";")) {
            if (!part.isBlank()) {
                condition(c, part.strip(), all).ifPresent(conditions::add);
            }
        }
        return conditions.isEmpty() ? character : character.withConditions(conditions);
    }

    private Optional<AppliesWhen> condition(int c, String text, Collection<StudyCharacter> all) {
        // Names may hold an equals sign; the last one divides.
        int at = text.lastIndexOf('=');
        String[] sides = at < 0 ? new String[] {text} : new String[] {text.substring(0, at), text.substring(at + 1)};
        String wanted = Slug.of(sides[0]);
        Optional<StudyCharacter> controller =
                all.stream().filter(k -> k.id().equals(wanted)).findFirst();
        boolean categorical =
                controller.isPresent() && !controller.get().states().isEmpty();
        if (sides.length < 2 || !categorical) {
            problem(
                    c,
                    "applies",
                    "'" + text
                            + "' is not a condition. Write 'character = state|state', with a character of this table that has states.");
            return Optional.empty();
        }
        List<String> states = new ArrayList<>();
        for (String name : sides[1].split("\\|")) {
            String id = Slug.of(name);
            if (controller.get().state(id).isEmpty()) {
                problem(
                        c,
                        "applies",
                        "'" + name.strip() + "' is not a state of '"
                                + controller.get().label() + "'.");
                return Optional.empty();
            }
            states.add(id);
        }
        return Optional.of(new AppliesWhen(wanted, states));
    }
}
