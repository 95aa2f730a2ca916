package org.polyclave.files.key;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalInt;
import org.polyclave.core.key.Atoms;
import org.polyclave.core.key.Key;
import org.polyclave.core.key.KeyResult;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.measuring.RuleOfThumb;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.Units;
import org.polyclave.wording.key.KeyView;
import org.polyclave.wording.key.KeyWording;
import org.polyclave.wording.key.LeadText;
import org.polyclave.wording.key.StatementWording;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** The key file: {@code {"format": "polyclave-key", "version": 1, ...}}; its schema is in {@code docs/format}. */
public final class KeyJson {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final double MICRO = 1e6;

    private final CompiledStudy compiled;
    private final List<String> problems = new ArrayList<>();
    private final List<LeadText> texts = new ArrayList<>();
    /** Words of leads as they stand in the file, by couplet. */
    private final List<List<Words>> written = new ArrayList<>();

    /** Of one lead; empty where the file has none. */
    private record Words(String technical, String plain) {}

    private KeyJson(CompiledStudy compiled) {
        this.compiled = compiled;
    }

    /**
     * A key that was read, or what is wrong with the file.
     *
     * @param texts the words of its leads, where it has any
     */
    public record ReadKey(Key key, List<String> problems, List<LeadText> texts) {}

    public static String write(CompiledStudy compiled, KeyResult result) {
        return write(compiled, result, KeyWording.word(compiled, result));
    }

    /** @param view the key in words */
    public static String write(CompiledStudy compiled, KeyResult result, KeyView view) {
        return new KeyJson(compiled).written(result, view);
    }

    /** Reads a key file; characters, states and rows are looked up in {@code compiled}. */
    public static ReadKey read(byte[] bytes, CompiledStudy compiled) {
        KeyJson reader = new KeyJson(compiled);
        Key key = Key.of(List.of());
        try {
            key = reader.key(JSON.readTree(bytes));
        } catch (JacksonException broken) {
            reader.problems.add("The file is not JSON: " + broken.getOriginalMessage() + ".");
        }
        if (reader.problems.isEmpty()) {
            reader.hold(key);
        }
        return new ReadKey(key, reader.problems, reader.texts);
    }

    private String written(KeyResult result, KeyView view) {
        ObjectNode root = JSON.createObjectNode();
        root.put("format", "polyclave-key").put("version", 1);
        ArrayNode couplets = root.putArray("couplets");
        for (int k = 0; k < result.key().couplets().size(); k++) {
            Key.Couplet couplet = result.key().couplets().get(k);
            ObjectNode node = couplets.addObject().put("number", couplet.number());
            node.set(
                    "from",
                    couplet.from().isPresent() ? JSON.valueToTree(couplet.from().getAsInt()) : JSON.nullNode());
            ArrayNode leads = node.putArray("leads");
            for (int l = 0; l < couplet.leads().size(); l++) {
                writeLead(
                        leads.addObject(),
                        couplet.leads().get(l),
                        view.couplets().get(k).leads().get(l));
            }
        }
        if (couplets.isEmpty()) {
            writeRows(root, "whole", result.key().whole(), Objects.requireNonNull(view.whole()));
        }
        if (!view.leftOut().isEmpty()) {
            ArrayNode leftOut = root.putArray("leavesOut");
            view.leftOut()
                    .forEach(n -> leftOut.addObject()
                            .put("row", n.row())
                            .put(
                                    "hazard",
                                    n.hazard().name().toLowerCase(Locale.ROOT).replace('_', '-')));
        }
        KeyResult.Figures figures = result.figures();
        root.putObject("figures")
                .put("rows", figures.rows())
                .put("expectedSteps", rounded(figures.expectedSteps()))
                .put("longestPath", figures.longestPath())
                .put("entropyBound", rounded(figures.entropyBound()))
                .put("completion", figures.completion().name())
                .put("proven", result.proof().proven());
        return JSON.writerWithDefaultPrettyPrinter().writeValueAsString(root) + "\n";
    }

    private static double rounded(double x) {
        return Math.round(x * MICRO) / MICRO;
    }

    private void writeLead(ObjectNode node, Key.Lead lead, KeyView.LeadView view) {
        ArrayNode statements = node.putArray("statements");
        for (Key.Statement statement : lead.statements()) {
            writeStatement(statements.addObject(), statement);
        }
        node.put("text", view.text());
        node.put("plainText", view.plainText());
        if (lead.to() instanceof Key.ToCouplet to) {
            node.putObject("to").put("couplet", to.number());
        } else {
            writeRows(node, "to", (Key.ToRows) lead.to(), Objects.requireNonNull(view.terminal()));
        }
    }

    private void writeRows(ObjectNode node, String field, Key.ToRows terminal, KeyView.TerminalView view) {
        ObjectNode to = node.putObject(field);
        ArrayNode rows = to.putArray("rows");
        terminal.rows().forEach(r -> rows.add(compiled.rows().get(r).id()));
        if (terminal.reason() == Key.Reason.NONE) {
            to.putNull("reason");
        } else {
            to.put("reason", view.reason());
        }
    }

    private void writeStatement(ObjectNode node, Key.Statement statement) {
        StudyCharacter character = compiled.characters().get(statement.character());
        node.put("character", character.id());
        if (statement.atoms() instanceof Atoms.Interval interval) {
            double factor = Units.factor(character.type(), character.unit()).orElse(1.0);
            putLimit(node, "min", interval.min() / factor);
            putLimit(node, "max", interval.max() / factor);
            if (interval.minExclusive()) {
                node.put("minExclusive", true);
            }
            if (interval.maxExclusive()) {
                node.put("maxExclusive", true);
            }
            if (!character.unit().isEmpty()) {
                node.put("unit", character.unit());
            }
            if (statement.doubt().isPresent()) {
                Key.Doubt doubt = statement.doubt().get();
                ObjectNode band = node.putObject("doubt");
                putLimit(band, "from", doubt.from() / factor);
                putLimit(band, "to", doubt.to() / factor);
                band.put("wrong", rounded(doubt.wrong()));
            }
            statement
                    .handy()
                    .ifPresent(h ->
                            node.putObject("handy").put("rule", h.rule().name()).put("times", h.times()));
        } else {
            ArrayNode states = node.putArray("states");
            int mask = ((Atoms.States) statement.atoms()).mask();
            for (int s = 0; s < 32; s++) {
                if ((mask & (1 << s)) != 0) {
                    states.add(stateId(character, s));
                }
            }
        }
        node.put("confirming", statement.role() != Key.Role.DECIDING);
        if (statement.role() == Key.Role.TENDENCY) {
            node.put("usually", true);
        }
    }

    private static void putLimit(ObjectNode node, String field, double limit) {
        if (Double.isInfinite(limit)) {
            node.putNull(field);
        } else {
            node.put(field, Double.parseDouble(String.format(java.util.Locale.ROOT, "%.12g", limit)));
        }
    }

    /** Months are states with the numbers 1 to 12 as names. */
    private static String stateId(StudyCharacter character, int s) {
        return character.type() == CharacterType.MONTHS
                ? String.valueOf(s + 1)
                : character.states().get(s).id();
    }

    /** Holds the words of the file against those that the statements have. */
    private void hold(Key key) {
        List<List<KeyView.LeadView>> views = KeyWording.leads(compiled, key);
        for (int k = 0; k < views.size(); k++) {
            Key.Couplet couplet = key.couplets().get(k);
            for (int l = 0; l < couplet.leads().size(); l++) {
                String place = "Couplet " + couplet.number() + ", lead " + (l + 1);
                Words words = written.get(k).get(l);
                Key.Lead lead = couplet.leads().get(l);
                KeyView.LeadView view = views.get(k).get(l);
                if (!words.technical().isBlank()) {
                    texts.add(LeadText.of(place, words.technical(), lead, view, compiled));
                }
                if (!words.plain().isBlank()) {
                    texts.add(LeadText.of(
                            place + ", in plain words", words.plain(), lead, view.inPlainWords(), compiled));
                }
            }
        }
    }

    private Key key(JsonNode root) {
        if (!root.path("format").asString("").equals("polyclave-key")
                || root.path("version").asInt(0) != 1) {
            problems.add(
                    "The file is not a Polyclave key of version 1: 'format' must be \"polyclave-key\" and 'version' 1.");
            return Key.of(List.of());
        }
        List<Key.Couplet> couplets = new ArrayList<>();
        for (JsonNode node : root.path("couplets")) {
            String place = "Couplet " + node.path("number").asString("without number");
            if (!node.path("number").isIntegralNumber()) {
                problems.add(place + ": 'number' must be a whole number.");
            }
            List<Key.Lead> leads = new ArrayList<>();
            List<Words> words = new ArrayList<>();
            for (JsonNode lead : node.path("leads")) {
                String where = place + ", lead " + (leads.size() + 1);
                leads.add(lead(lead, where));
                words.add(new Words(
                        lead.path("text").asString(""), lead.path("plainText").asString("")));
            }
            written.add(words);
            JsonNode from = node.path("from");
            OptionalInt back = from.isIntegralNumber() ? OptionalInt.of(from.asInt()) : OptionalInt.empty();
            couplets.add(new Key.Couplet(node.path("number").asInt(0), back, leads));
        }
        JsonNode whole = root.path("whole");
        if (couplets.isEmpty() && whole.isMissingNode()) {
            problems.add("The key has no couplets.");
        }
        return couplets.isEmpty() ? new Key(List.of(), rows(whole, "The key")) : Key.of(couplets);
    }

    private Key.Lead lead(JsonNode node, String place) {
        List<Key.Statement> statements = new ArrayList<>();
        for (JsonNode statement : node.path("statements")) {
            int c = compiled.characterIndex(statement.path("character").asString(""));
            if (c < 0) {
                problems.add(place + ": the matrix has no character '"
                        + statement.path("character").asString("") + "'.");
                continue;
            }
            boolean confirming = statement.path("confirming").asBoolean(false);
            Key.Role role = !confirming
                    ? Key.Role.DECIDING
                    : statement.path("usually").asBoolean(!statement.has("usually") && usuallyIn(node, c))
                            ? Key.Role.TENDENCY
                            : Key.Role.SUFFICIENT;
            StudyCharacter character = compiled.characters().get(c);
            statements.add(new Key.Statement(
                    c, atoms(statement, character, place), role, doubt(statement, character), handy(statement, place)));
        }
        JsonNode to = node.path("to");
        if (to.path("couplet").isIntegralNumber()) {
            return new Key.Lead(statements, new Key.ToCouplet(to.path("couplet").asInt()));
        }
        if (!to.path("rows").isArray()) {
            problems.add(place + ": 'to' must name a couplet or rows.");
        }
        return new Key.Lead(statements, rows(to, place));
    }

    /** Files of earlier versions say in their text only how far a confirming statement can be relied on. */
    private boolean usuallyIn(JsonNode lead, int character) {
        String subject = StatementWording.subject(compiled.characters().get(character));
        return lead.path("text")
                .asString("")
                .toLowerCase(Locale.ROOT)
                .contains(subject.toLowerCase(Locale.ROOT) + " usually ");
    }

    private Key.ToRows rows(JsonNode node, String place) {
        List<Integer> rows = new ArrayList<>();
        for (JsonNode id : node.path("rows")) {
            int row = compiled.rowIndex(id.asString(""));
            if (row < 0) {
                problems.add(place + ": the matrix has no row '" + id.asString("") + "'.");
            } else {
                rows.add(row);
            }
        }
        rows.sort(null);
        boolean oneName = rows.stream().allMatch(r -> compiled.matrix().sharesName(r, rows.get(0)));
        return new Key.ToRows(
                rows, rows.size() < 2 ? Key.Reason.NONE : oneName ? Key.Reason.ONE_TAXON : Key.Reason.INSEPARABLE);
    }

    private static Optional<Key.Doubt> doubt(JsonNode statement, StudyCharacter character) {
        JsonNode doubt = statement.path("doubt");
        double factor = Units.factor(character.type(), statement.path("unit").asString(character.unit()))
                .orElse(1.0);
        return doubt.isObject()
                ? Optional.of(new Key.Doubt(
                        doubt.path("from").asDouble(0) * factor,
                        doubt.path("to").asDouble(0) * factor,
                        doubt.path("wrong").asDouble(0)))
                : Optional.empty();
    }

    private Optional<Key.Handy> handy(JsonNode statement, String place) {
        JsonNode handy = statement.path("handy");
        Optional<RuleOfThumb> rule = Arrays.stream(RuleOfThumb.values())
                .filter(r -> r.name().equals(handy.path("rule").asString("")))
                .findFirst();
        if (handy.isObject() && rule.isEmpty()) {
            problems.add(place + ": '" + handy.path("rule").asString("") + "' is not a rule of thumb. Use one of "
                    + Arrays.toString(RuleOfThumb.values()) + ".");
        }
        return rule.map(r -> new Key.Handy(r, handy.path("times").asDouble(1)));
    }

    private Atoms atoms(JsonNode node, StudyCharacter character, String place) {
        if (character.type().isNumeric()) {
            String unit = node.path("unit").asString(character.unit());
            double factor = Units.factor(character.type(), unit).orElse(1.0);
            double min = node.path("min").isNumber() ? node.path("min").asDouble() * factor : Double.NEGATIVE_INFINITY;
            double max = node.path("max").isNumber() ? node.path("max").asDouble() * factor : Double.POSITIVE_INFINITY;
            return new Atoms.Interval(
                    min,
                    max,
                    node.path("minExclusive").asBoolean(false),
                    node.path("maxExclusive").asBoolean(false));
        }
        int mask = 0;
        for (JsonNode id : node.path("states")) {
            int state = stateIndex(character, id.asString(""));
            if (state < 0) {
                problems.add(place + ": '" + character.label() + "' has no state '" + id.asString("") + "'.");
            } else {
                mask |= 1 << state;
            }
        }
        return new Atoms.States(mask);
    }

    private static int stateIndex(StudyCharacter character, String id) {
        if (character.type() == CharacterType.MONTHS) {
            return id.matches("[1-9]|1[0-2]") ? Integer.parseInt(id) - 1 : -1;
        }
        return character.indexOf(id);
    }
}
