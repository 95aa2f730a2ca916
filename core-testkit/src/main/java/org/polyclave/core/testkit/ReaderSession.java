package org.polyclave.core.testkit;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.polyclave.core.evidence.Certainty;
import org.polyclave.core.evidence.Look;
import org.polyclave.core.evidence.Observation;
import org.polyclave.core.identify.Answer;
import org.polyclave.core.identify.IdentifyOptions;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;

/** One specimen in the hands of one reader. */
final class ReaderSession {
    private final Matrix matrix;
    private final ReaderHabits habits;
    private final Random random;
    private final double[] shown;
    /** By part: how badly its characters are looked at together. */
    private final Map<Integer, Double> carelessness = new HashMap<>();

    private final Map<Integer, List<Look>> looks = new HashMap<>();
    private final boolean[] unavailable;
    private final int months;

    ReaderSession(Matrix matrix, ReaderHabits habits, int row, Random random) {
        this.matrix = matrix;
        this.habits = habits;
        this.random = random;
        shown = new double[matrix.characterCount()];
        Map<Integer, Boolean> misleads = new HashMap<>();
        for (int c = 0; c < shown.length; c++) {
            boolean off = misleads.computeIfAbsent(
                    matrix.character(c).organ(), o -> random.nextDouble() < habits.misleading());
            shown[c] = drawn(off ? random.nextInt(matrix.rowCount()) : row, c);
        }
        unavailable = new boolean[shown.length];
        months = habits.unseen() > 0 ? 1 << random.nextInt(12) : MatrixCharacter.ALL_MONTHS;
        Map<Integer, Boolean> lacking = new HashMap<>();
        for (int c = 0; c < shown.length && habits.unseen() > 0; c++) {
            int part = matrix.character(c).organ();
            unavailable[c] = lacking.computeIfAbsent(part, o -> random.nextDouble() < habits.unseen());
        }
    }

    IdentifyOptions options() {
        return new IdentifyOptions(false, 0, months, unavailable.clone());
    }

    /** Whether the specimen has what the character is about. */
    private boolean applies(int c) {
        return matrix.character(c).appliesWhen().stream()
                .allMatch(w -> (1 << (int) shown[w.character()] & w.states()) != 0 && applies(w.character()));
    }

    /** What a specimen of a row shows; of one that is not scored, what any row shows. */
    private double drawn(int row, int c) {
        for (int tries = 0, at = row; tries < 100; tries++, at = random.nextInt(matrix.rowCount())) {
            if (matrix.cell(at, c) instanceof Cell.Categorical states) {
                return drawn(states.shares());
            }
            if (matrix.cell(at, c) instanceof Cell.Numeric range) {
                double x = range.low() + random.nextDouble() * (range.high() - range.low());
                return matrix.character(c).type() == CharacterType.COUNT ? Math.rint(x) : x;
            }
        }
        return 0;
    }

    private int drawn(double[] shares) {
        double x = random.nextDouble();
        for (int s = 0; s < shares.length; s++) {
            x -= shares[s];
            if (x < 0) {
                return s;
            }
        }
        return shares.length - 1;
    }

    private double carelessness(MatrixCharacter character) {
        double own = random.nextDouble();
        if (habits.shared() == 0 || random.nextDouble() >= habits.shared()) {
            return own;
        }
        return carelessness.computeIfAbsent(character.organ(), o -> random.nextDouble());
    }

    int times(int c) {
        return looks.getOrDefault(c, List.of()).size();
    }

    void look(int c) {
        if (!applies(c)) {
            unavailable[c] = true;
            return;
        }
        List<Look> before = looks.computeIfAbsent(c, k -> new ArrayList<>());
        if (!before.isEmpty() && random.nextDouble() < habits.repeated()) {
            before.add(before.get(0));
            return;
        }
        MatrixCharacter character = matrix.character(c);
        double rate = Math.min(0.6, habits.rates() * character.misreading().rate(habits.observer(), 0));
        boolean misread = carelessness(character) < rate;
        if (character.type().isNumeric()) {
            double x = misread ? drawn(random.nextInt(matrix.rowCount()), c) : shown[c];
            before.add(new Look(new Observation.MeasuredObservation(x, character.giveOrTake(x)), Certainty.SURE));
            return;
        }
        int n = character.stateCount();
        int seen = (int) shown[c];
        seen = n > 1 && misread ? (seen + 1 + random.nextInt(n - 1)) % n : seen;
        before.add(new Look(new Observation.Seen(1 << seen), Certainty.SURE));
    }

    List<Answer> answers() {
        List<Answer> answers = new ArrayList<>();
        looks.forEach((c, of) -> answers.add(
                new Answer(c, of.get(0).observation(), of.get(0).certainty(), false, of.subList(1, of.size()))));
        return answers;
    }
}
