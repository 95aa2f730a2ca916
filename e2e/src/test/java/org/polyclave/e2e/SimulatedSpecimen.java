package org.polyclave.e2e;

import java.util.Optional;
import java.util.stream.IntStream;
import java.util.stream.StreamSupport;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.Units;
import org.polyclave.wording.key.KeyWording;
import tools.jackson.databind.JsonNode;

/** What somebody who looks well sees of an individual that is just as its taxon usually is. */
record SimulatedSpecimen(CompiledStudy study, int row) {
    String name() {
        return KeyWording.name(study, row).label();
    }

    StudyCharacter character(String label) {
        return study.characters().stream()
                .filter(c -> c.label().equals(label))
                .findFirst()
                .orElseThrow();
    }

    private Cell cell(StudyCharacter character) {
        return study.matrix().cell(row, study.characterIndex(character.id()));
    }

    /** The state that it shows most often; nothing of a number, and of what it does not show. */
    Optional<StudyCharacter.StudyState> state(StudyCharacter character) {
        if (character.type() == CharacterType.MONTHS || !(cell(character) instanceof Cell.Categorical shown)) {
            return Optional.empty();
        }
        int most = IntStream.range(0, shown.shares().length)
                .reduce(0, (a, b) -> shown.shares()[b] > shown.shares()[a] ? b : a);
        return Optional.of(character.states().get(most));
    }

    /** In the character's base unit. */
    private Optional<Double> size(StudyCharacter character) {
        if (!(cell(character) instanceof Cell.Numeric range)) {
            return Optional.empty();
        }
        double middle = (range.low() + range.high()) / 2;
        return Optional.of(character.type() == CharacterType.COUNT ? Math.floor(middle) : middle);
    }

    /** As it is typed. */
    Optional<String> typed(StudyCharacter character) {
        double factor = Units.factor(character.type(), character.unit()).orElse(1.0);
        return size(character).map(s -> Double.toString(Math.round(s / factor * 1000) / 1000.0));
    }

    /** The lead of a published couplet that is true of it and leads to its name. */
    int lead(JsonNode key, JsonNode couplet) {
        JsonNode leads = couplet.path("leads");
        return IntStream.range(0, leads.size())
                .filter(l -> leadsTo(key, leads.get(l))
                        && isTrue(leads.get(l).path("statements").get(0)))
                .findFirst()
                .orElseThrow();
    }

    private boolean leadsTo(JsonNode key, JsonNode lead) {
        if (lead.hasNonNull("couplet")) {
            return StreamSupport.stream(
                            couplet(key, lead.path("couplet").asInt())
                                    .path("leads")
                                    .spliterator(),
                            false)
                    .anyMatch(l -> leadsTo(key, l));
        }
        String id = study.rows().get(row).id();
        return StreamSupport.stream(lead.path("terminal").path("names").spliterator(), false)
                .anyMatch(n -> n.path("row").asString().equals(id));
    }

    static JsonNode couplet(JsonNode key, int number) {
        return StreamSupport.stream(key.path("couplets").spliterator(), false)
                .filter(c -> c.path("number").asInt() == number)
                .findFirst()
                .orElseThrow();
    }

    /** What it shows nothing of may be either. */
    private boolean isTrue(JsonNode statement) {
        StudyCharacter character = study.characters()
                .get(study.characterIndex(statement.path("character").asString()));
        if (size(character).isPresent()) {
            double size = size(character).get();
            JsonNode limits = statement.path("limits");
            return size >= limits.path("min").asDouble(-1)
                    && size <= limits.path("max").asDouble(Double.MAX_VALUE);
        }
        return state(character)
                .map(s -> StreamSupport.stream(statement.path("states").spliterator(), false)
                        .anyMatch(id -> id.asString().equals(s.id())))
                .orElse(true);
    }
}
