package org.polyclave.server.key;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.polyclave.core.key.KeyGenerator;
import org.polyclave.core.key.KeyOptions;
import org.polyclave.core.key.KeyOutcome;
import org.polyclave.core.key.KeyResult;
import org.polyclave.core.run.CancelSignal;
import org.polyclave.core.run.Progress;
import org.polyclave.files.key.KeyJson;
import org.polyclave.server.job.Job;
import org.polyclave.server.job.JobKind;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.store.StudyStore;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.wording.key.KeyNotes;
import org.polyclave.wording.key.KeyView;
import org.polyclave.wording.key.KeyWording;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** Makes keys: generates, proves, words and renders. */
@Component
class KeyJob implements JobKind {
    static final String KIND = "key";

    private final StudyStore store;
    private final JsonMapper json;
    private final int nodes;

    KeyJob(StudyStore store, JsonMapper json, @Value("${polyclave.keys.nodes}") int nodes) {
        this.store = store;
        this.json = json;
        this.nodes = nodes;
    }

    /**
     * A key, and what its files say besides.
     *
     * @param files what is written of it while its matrix is at hand, by format
     * @param cautions at its head on paper
     * @param compared the keys of all objectives; empty for keys from before they were compared
     */
    record KeyAnswer(
            KeyView view, Map<String, String> files, List<String> cautions, List<KeyView.ComparedView> compared) {
        KeyAnswer {
            cautions = cautions == null ? List.of() : List.copyOf(cautions);
            compared = compared == null ? List.of() : List.copyOf(compared);
        }
    }

    @Override
    public String name() {
        return KIND;
    }

    @Override
    public boolean keepsBestSoFar() {
        return true;
    }

    @Override
    public String answer(Job job, CancelSignal cancel, Progress progress, BestSoFar soFar) {
        StudyStore.Snapshot snapshot = store.load(job.study());
        if (snapshot.revision() != job.revision()) {
            throw Problems.conflict(
                    ProblemCode.STUDY_CHANGED,
                    "The study changed while its key was waiting. Ask for it again.",
                    Map.of());
        }
        KeyService.KeyRequest wish = json.readValue(job.question(), KeyService.KeyRequest.class);
        CompiledStudy whole = snapshot.compiled();
        CompiledStudy compiled = wish.applied(whole);
        KeyOptions options = KeyOptions.DEFAULT
                .withObjective(wish.objective())
                .withEvenWeights(wish.evenWeights())
                .withNodeBudget(nodes)
                .inMonths(wish.context().monthsOfUse())
                .withHazardsFirst(wish.hazardsFirst())
                .withQuestions(wish.questionsOf(compiled))
                .withLeads(wish.leads())
                .withReaders(Optional.ofNullable(wish.readers()));
        KeyOutcome outcome = new KeyGenerator()
                .generate(
                        compiled.matrix(),
                        options,
                        cancel,
                        progress,
                        key -> soFar.keep(() -> json.writeValueAsString(worded(whole, compiled, key.get()))));
        if (outcome instanceof KeyOutcome.Generated generated) {
            return json.writeValueAsString(worded(whole, compiled, generated.result()));
        }
        if (outcome instanceof KeyOutcome.TooManyTerminals many) {
            List<String> loose = many.looseCharacters().stream()
                    .map(c -> compiled.characters().get(c).label())
                    .toList();
            throw Problems.unprocessable(
                    ProblemCode.TOO_MANY_TERMINALS,
                    "The key would name the same taxa again and again. Characters that vary or are unknown most often: "
                            + String.join(", ", loose) + ". Score these, or leave them out.",
                    Map.of("characters", loose));
        }
        throw outcome instanceof KeyOutcome.NoRows
                ? Problems.unprocessable(
                        ProblemCode.NO_ROWS,
                        wish.taxa().isEmpty() && wish.stages().isEmpty()
                                ? "A key needs scored taxa, and this study has none. Import or score a matrix first."
                                : "None of the chosen taxa, sexes and stages has scores. Choose others, or score these first.",
                        Map.of())
                : Problems.unprocessable(
                        ProblemCode.STOPPED, "Key generation was cancelled before the key was complete.", Map.of());
    }

    private static KeyAnswer worded(CompiledStudy whole, CompiledStudy compiled, KeyResult key) {
        KeyView view = KeyWording.word(compiled, key).leavingOut(KeyWording.leftOut(whole.scoredOnly(), compiled));
        return new KeyAnswer(
                view,
                Map.of("json", KeyJson.write(compiled, key, view)),
                KeyNotes.cautionsOnPaper(view, compiled.study()),
                KeyWording.compared(key));
    }
}
