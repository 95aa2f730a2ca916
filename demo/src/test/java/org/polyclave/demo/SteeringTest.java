package org.polyclave.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.polyclave.core.key.Atoms;
import org.polyclave.core.key.Key;
import org.polyclave.core.key.KeyGenerator;
import org.polyclave.core.key.KeyObjective;
import org.polyclave.core.key.KeyOptions;
import org.polyclave.core.key.KeyOutcome;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.reading.ExaminedStatements;
import org.polyclave.core.run.CancelSignal;
import org.polyclave.core.testkit.SteeringSearch;
import org.polyclave.study.compile.StudyCompiler;
import org.polyclave.study.model.Study;

/**
 * Nobody can be steered to a settled harmless name while a danger is near. A few thousand sets of answers each time; all of them
 * to the depth of {@code -Dpolyclave.steering=2}, with a beam of 200 and 100,000 random ones.
 */
final class SteeringTest {
    private static final int DEPTH = Integer.getInteger("polyclave.steering", 1);
    private static final boolean WIDE = DEPTH > 1;

    static List<Study> studies() {
        return DemoStudies.all();
    }

    @ParameterizedTest
    @MethodSource("studies")
    void noAnswersInAnyOrderSteerPastADanger(Study study) {
        SteeringSearch search =
                new SteeringSearch(StudyCompiler.compile(study).scoredOnly().matrix());
        List<SteeringSearch.Trap> traps = new ArrayList<>(search.exhaustive(DEPTH));
        traps.addAll(search.beam(WIDE ? 200 : 1));
        traps.addAll(search.random(WIDE ? 100_000 : 1_000, 7));
        System.out.println(
                study.title() + ": " + search.tried() + " sets of answers, " + search.settled() + " settled");
        assertThat(traps).isEmpty();
        assertThat(search.settled()).isGreaterThan(10);
    }

    @ParameterizedTest
    @MethodSource("studies")
    void noWayThroughACoupletKeySteersPastADanger(Study study) {
        Matrix matrix = StudyCompiler.compile(study).scoredOnly().matrix();
        SteeringSearch search = new SteeringSearch(matrix);
        KeyOptions options =
                KeyOptions.DEFAULT.withObjective(KeyObjective.CAUTIOUS).withNodeBudget(500);
        KeyOutcome made = new KeyGenerator().generate(matrix, options, CancelSignal.NEVER);
        Key key = ((KeyOutcome.Generated) made).result().key();
        Map<Integer, Key.Couplet> couplets = new HashMap<>();
        key.couplets().forEach(c -> couplets.put(c.number(), c));
        List<SteeringSearch.Trap> traps = new ArrayList<>();
        walk(matrix, couplets, key.couplets().get(0), List.of(), search, traps);
        assertThat(search.tried()).isGreaterThan(2 * key.couplets().size());
        assertThat(traps).isEmpty();
    }

    /** Every end, with what decides examined, and with everything that confirms it, too. */
    private static void walk(
            Matrix matrix,
            Map<Integer, Key.Couplet> couplets,
            Key.Couplet at,
            List<Key.Lead> taken,
            SteeringSearch search,
            List<SteeringSearch.Trap> traps) {
        for (Key.Lead lead : at.leads()) {
            List<Key.Lead> way = new ArrayList<>(taken);
            way.add(lead);
            if (lead.to() instanceof Key.ToCouplet next) {
                walk(matrix, couplets, couplets.get(next.number()), way, search, traps);
            } else {
                search.trap(examined(matrix, way, false).answers()).ifPresent(traps::add);
                search.trap(examined(matrix, way, true).answers()).ifPresent(traps::add);
            }
        }
    }

    private static ExaminedStatements examined(Matrix matrix, List<Key.Lead> way, boolean all) {
        ExaminedStatements examined = new ExaminedStatements(matrix);
        for (Key.Lead lead : way) {
            for (Key.Statement statement : lead.statements()) {
                if (all || statement.role() == Key.Role.DECIDING) {
                    if (statement.atoms() instanceof Atoms.States states) {
                        examined.shows(statement.character(), states.mask());
                    } else if (statement.atoms() instanceof Atoms.Interval interval) {
                        examined.measures(statement.character(), interval.min(), interval.max());
                    }
                }
            }
        }
        return examined;
    }
}
