package org.polyclave.server.key;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.polyclave.core.key.KeyGenerator;
import org.polyclave.core.key.KeyOptions;
import org.polyclave.core.key.KeyOutcome;
import org.polyclave.core.run.CancelSignal;
import org.polyclave.core.run.Progress;
import org.polyclave.files.key.KeyJson;
import org.polyclave.print.key.KeyRenderer;
import org.polyclave.server.job.Job;
import org.polyclave.server.job.JobKind;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.store.StudyStore;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.compile.KeyContext;
import org.polyclave.study.model.Study;
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

    /** Before the name of a format: with its plain words. */
    static final String PLAIN = "plain-";

    /**
     * A key with the files it can be saved as, by format.
     *
     * @param compared the keys of all objectives; empty for keys from before they were compared
     */
    record KeyAnswer(KeyView view, Map<String, String> files, List<KeyView.ComparedView> compared) {
        KeyAnswer {
            compared = compared == null ? List.of() : List.copyOf(compared);
        }
    }

    @Override
    public String name() {
        return KIND;
    }

    @Override
    public String answer(Job job, CancelSignal cancel, Progress progress) {
        StudyStore.Snapshot snapshot = store.load(job.study());
        if (snapshot.revision() != job.revision()) {
            throw Problems.conflict(
                    ProblemCode.STUDY_CHANGED,
                    "The study changed while its key was waiting. Ask for it again.",
                    Map.of());
        }
        return json.writeValueAsString(make(
                snapshot.compiled(), json.readValue(job.question(), KeyService.KeyRequest.class), cancel, progress));
    }

    private KeyAnswer make(CompiledStudy whole, KeyService.KeyRequest wish, CancelSignal cancel, Progress progress) {
        KeyContext context =
                new KeyContext(wish.months(), lower(wish.organs()), lower(wish.methods()), wish.preserved());
        CompiledStudy wanted = wish.taxa().isEmpty() ? whole : whole.of(wish.taxa());
        CompiledStudy compiled = without(context.apply(wanted), wish.forbidden());
        KeyOptions options = KeyOptions.DEFAULT
                .withObjective(wish.objective())
                .withEvenWeights(wish.evenWeights())
                .withNodeBudget(nodes)
                .inMonths(context.monthsOfUse());
        KeyOutcome outcome = new KeyGenerator().generate(compiled.matrix(), options, cancel, progress);
        if (outcome instanceof KeyOutcome.Generated generated) {
            KeyView view = KeyWording.word(compiled, generated.result())
                    .leavingOut(KeyWording.leftOut(whole.scoredOnly(), compiled));
            Map<String, String> files = new LinkedHashMap<>();
            files.put("json", KeyJson.write(compiled, generated.result()));
            render(files, "", view, compiled.study());
            render(files, PLAIN, view.inPlainWords(), compiled.study());
            return new KeyAnswer(view, files, KeyWording.compared(generated.result()));
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
                        wish.taxa().isEmpty()
                                ? "A key needs scored taxa, and this study has none. Import or score a matrix first."
                                : "None of the chosen taxa has scores. Choose others, or score these first.",
                        Map.of())
                : Problems.unprocessable(
                        ProblemCode.STOPPED, "Key generation was cancelled before the key was complete.", Map.of());
    }

    private static void render(Map<String, String> files, String words, KeyView view, Study study) {
        files.put(words + "text", KeyRenderer.text(view, study));
        files.put(words + "markdown", KeyRenderer.markdown(view, study));
        files.put(words + "html", KeyRenderer.html(view, study));
    }

    private static Set<String> lower(Set<String> names) {
        return names.stream().map(n -> n.toLowerCase(Locale.ROOT)).collect(Collectors.toSet());
    }

    private static CompiledStudy without(CompiledStudy compiled, Set<String> forbidden) {
        List<Integer> dropped = new ArrayList<>();
        for (int c = 0; c < compiled.characters().size(); c++) {
            if (forbidden.contains(compiled.characters().get(c).id())) {
                dropped.add(c);
            }
        }
        return dropped.isEmpty() ? compiled : compiled.without(dropped);
    }
}
