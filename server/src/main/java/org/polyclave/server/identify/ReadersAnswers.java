package org.polyclave.server.identify;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.evidence.Certainty;
import org.polyclave.core.evidence.Look;
import org.polyclave.core.evidence.Observation;
import org.polyclave.core.identify.Answer;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.measuring.RuleOfThumb;
import org.polyclave.server.account.RulesOfThumb;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.Units;

/** What a reader saw, as it comes over the line, in the units and the states of the study. */
public final class ReadersAnswers {
    /** Standard uncertainties that make a "give or take". */
    private static final double BOTH_SIDES = 2;

    private ReadersAnswers() {}

    /**
     * One answer.
     *
     * @param states ids of states (months as numbers); several mean "one of these"
     * @param value a reading in the character's unit
     * @param uncertainty give or take, in the same unit; null: what is usual
     * @param rule by which the length was told; then {@code value} is how many times
     * @param measured of the reader's own rule, in mm; null or too few: that of people at large
     */
    public record AnswerRequest(
            String character,
            List<String> states,
            @Schema(nullable = true) @Nullable Double value,
            @Schema(nullable = true) @Nullable Double uncertainty,
            @Schema(nullable = true) @Nullable RuleOfThumb rule,
            @Nullable List<Double> measured,
            Certainty certainty,
            @Nullable List<LookRequest> further) {}

    /** Another independent look at the same character: states, or a reading in the character's unit. */
    public record LookRequest(
            List<String> states,
            @Schema(nullable = true) @Nullable Double value,
            Certainty certainty) {}

    static Answer of(CompiledStudy compiled, AnswerRequest request) {
        int c = compiled.characterIndex(request.character());
        if (c < 0) {
            throw Problems.badRequest(
                    ProblemCode.NO_SUCH_CHARACTER, "This key has no character '" + request.character() + "'.");
        }
        StudyCharacter character = compiled.characters().get(c);
        List<Look> further = new ArrayList<>();
        for (LookRequest look : request.further() == null ? List.<LookRequest>of() : request.further()) {
            Observation seen = character.type().isNumeric()
                    ? further(look, character, compiled.matrix().character(c))
                    : new Observation.Seen(mask(look.states(), character));
            further.add(new Look(seen, look.certainty()));
        }
        if (character.type().isNumeric()) {
            return new Answer(
                    c,
                    reading(request, character, compiled.matrix().character(c)),
                    request.certainty(),
                    request.rule() != null,
                    further);
        }
        return new Answer(
                c, new Observation.Seen(mask(request.states(), character)), request.certainty(), false, further);
    }

    private static Observation further(LookRequest look, StudyCharacter character, MatrixCharacter definition) {
        double value = positive(look.value(), character) * factor(character);
        return new Observation.MeasuredObservation(value, definition.giveOrTake(value));
    }

    private static double positive(@Nullable Double value, StudyCharacter character) {
        if (value == null || !Double.isFinite(value) || value < 0) {
            throw Problems.badRequest(
                    ProblemCode.NO_NUMBER, "An answer to '" + character.label() + "' needs a number of 0 or more.");
        }
        return value;
    }

    private static int mask(List<String> states, StudyCharacter character) {
        int mask = 0;
        for (String id : states) {
            int state = stateIndex(character, id);
            if (state < 0) {
                throw Problems.badRequest(
                        ProblemCode.NO_SUCH_STATE, "'" + character.label() + "' has no state '" + id + "'.");
            }
            mask |= 1 << state;
        }
        if (mask == 0) {
            throw Problems.badRequest(ProblemCode.NO_STATE, "An answer to '" + character.label() + "' needs a state.");
        }
        return mask;
    }

    private static int stateIndex(StudyCharacter character, String id) {
        if (character.type() == CharacterType.MONTHS) {
            return id.matches("[1-9]|1[0-2]") ? Integer.parseInt(id) - 1 : -1;
        }
        return character.indexOf(id);
    }

    private static Observation reading(AnswerRequest request, StudyCharacter character, MatrixCharacter definition) {
        double value = positive(request.value(), character);
        RuleOfThumb rule = request.rule();
        if (rule != null) {
            if (character.type() != CharacterType.LENGTH || value == 0) {
                throw Problems.badRequest(
                        ProblemCode.NO_LENGTH,
                        "A rule of thumb can only answer a length above 0, and '" + character.label()
                                + "' is not one, or 0 was given.");
            }
            List<Double> measured = request.measured();
            RuleOfThumb.Rough rough = RulesOfThumb.size(rule, measured == null ? List.of() : measured)
                    .times(value);
            return new Observation.MeasuredObservation(rough.value(), BOTH_SIDES * rough.uncertainty());
        }
        double factor = factor(character);
        double usual = definition.giveOrTake(value * factor);
        Double given = request.uncertainty();
        // A range is never more exact than a number would be.
        double uncertainty = given == null || !(given > 0) ? usual : Math.max(usual, given * factor);
        return new Observation.MeasuredObservation(value * factor, uncertainty);
    }

    /** Base units in the unit of a character. */
    static double factor(StudyCharacter character) {
        return Units.factor(character.type(), character.unit()).orElse(1.0);
    }
}
