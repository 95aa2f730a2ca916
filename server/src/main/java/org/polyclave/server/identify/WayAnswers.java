package org.polyclave.server.identify;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.reading.ExaminedStatements;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.wording.key.KeyView;

/** The statements that a reader examined on the way through a couplet key, as evidence. */
final class WayAnswers {
    /** Of a statement that was looked at and true in no lead. */
    private static final int NONE = -1;

    private WayAnswers() {}

    /**
     * A way through a key of an edition.
     *
     * @param key 0: the key of all taxa; 1 and more: the further ones, in their order
     */
    public record WayRequest(int key, List<StepRequest> steps) {}

    /**
     * What was read at a couplet.
     *
     * @param lead place of the lead that was taken
     * @param doubtful whether the reader could not tell: then only what {@code points} say was examined
     * @param points for each statement of the first lead, in order, in which lead what it asks was true; -1: in none; -2:
     *     not examined. Without any, what decides for the lead that was taken was examined, and nothing else
     */
    public record StepRequest(
            int couplet,
            int lead,
            boolean doubtful,
            @Schema(nullable = true) @Nullable List<Integer> points) {}

    static ExaminedStatements of(CompiledStudy compiled, List<KeyView> keys, WayRequest way) {
        if (way.key() < 0 || way.key() >= keys.size()) {
            throw Problems.badRequest(ProblemCode.NO_SUCH_STEP, "This edition has no key " + way.key() + ".");
        }
        KeyView key = keys.get(way.key());
        ExaminedStatements examined = new ExaminedStatements(compiled.matrix());
        for (StepRequest step : way.steps()) {
            KeyView.CoupletView couplet = key.couplets().stream()
                    .filter(c -> c.number() == step.couplet()
                            && step.lead() >= 0
                            && step.lead() < c.leads().size())
                    .findFirst()
                    .orElseThrow(() -> Problems.badRequest(
                            ProblemCode.NO_SUCH_STEP, "This key has no lead " + step.lead() + " at " + step.couplet()));
            read(compiled, couplet, step, examined);
        }
        return examined;
    }

    private static void read(
            CompiledStudy compiled, KeyView.CoupletView couplet, StepRequest step, ExaminedStatements examined) {
        List<Integer> points = step.points();
        if (points == null) {
            couplet.leads().get(step.lead()).statements().stream()
                    .filter(s -> s.role().equals("DECIDING") && !step.doubtful())
                    .forEach(s -> holds(compiled, s, examined));
            return;
        }
        List<KeyView.StatementView> asked = couplet.leads().get(0).statements();
        for (int p = 0; p < points.size() && p < asked.size(); p++) {
            int lead = points.get(p);
            String character = asked.get(p).character();
            if (lead == NONE) {
                holdsNowhere(compiled, couplet, character, examined);
            } else if (lead >= 0 && lead < couplet.leads().size()) {
                statement(couplet.leads().get(lead), character).ifPresent(s -> holds(compiled, s, examined));
            }
        }
    }

    private static Optional<KeyView.StatementView> statement(KeyView.LeadView lead, String character) {
        return lead.statements().stream()
                .filter(s -> s.character().equals(character))
                .findFirst();
    }

    /** What editions tell no states or limits of, from before they were told, is no evidence. */
    private static void holds(CompiledStudy compiled, KeyView.StatementView statement, ExaminedStatements examined) {
        int c = compiled.characterIndex(statement.character());
        int states = c < 0 ? 0 : mask(compiled.characters().get(c), statement);
        KeyView.LimitsView limits = statement.limits();
        if (states != 0) {
            examined.shows(c, states);
        } else if (c >= 0 && limits != null) {
            examined.measures(
                    c,
                    limits.min() == null ? Double.NEGATIVE_INFINITY : limits.min(),
                    limits.max() == null ? Double.POSITIVE_INFINITY : limits.max());
        }
    }

    /** Of states it is another one; of a number only that its limits were not to be trusted. */
    private static void holdsNowhere(
            CompiledStudy compiled, KeyView.CoupletView couplet, String character, ExaminedStatements examined) {
        int c = compiled.characterIndex(character);
        int states = c < 0
                ? 0
                : couplet.leads().stream()
                        .flatMap(l -> statement(l, character).stream())
                        .mapToInt(s -> mask(compiled.characters().get(c), s))
                        .reduce(0, (a, b) -> a | b);
        if (states != 0) {
            examined.showsNone(c, states);
        }
    }

    private static int mask(StudyCharacter character, KeyView.StatementView statement) {
        return IntStream.range(0, character.states().size())
                .filter(s ->
                        statement.states().contains(character.states().get(s).id()))
                .reduce(0, (mask, s) -> mask | 1 << s);
    }
}
