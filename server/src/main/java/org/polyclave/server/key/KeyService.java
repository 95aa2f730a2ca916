package org.polyclave.server.key;

import java.time.Duration;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Set;
import java.util.SortedSet;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.key.KeyObjective;
import org.polyclave.core.key.KeyOptions;
import org.polyclave.core.matrix.Observer;
import org.polyclave.print.key.KeyRenderer;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.job.Job;
import org.polyclave.server.job.JobScope;
import org.polyclave.server.job.JobService;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.store.StudyStore;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.compile.KeyContext;
import org.polyclave.study.model.Specimen;
import org.polyclave.study.rules.InvalidInput;
import org.polyclave.wording.key.KeyView;
import org.springframework.stereotype.Service;
import tools.jackson.databind.json.JsonMapper;

/** Dichotomous keys of studies, made by jobs. */
@Service
public class KeyService {
    private final JobService jobs;
    private final StudyStore store;
    private final JsonMapper json;

    KeyService(JobService jobs, StudyStore store, JsonMapper json) {
        this.jobs = jobs;
        this.store = store;
        this.json = json;
    }

    /**
     * What key is wanted.
     *
     * @param months months in which every question must be answerable; empty: any
     * @param organs organs at hand; empty: all
     * @param methods methods at hand; empty: all
     * @param preserved what was done to the specimens; empty: they are fresh and whole
     * @param taxa ids of the taxa that the key is for, with all that belongs to them; empty: all
     * @param forbidden ids of characters that must not be asked
     * @param hazardsFirst whether dangerous taxa are separated early; where only steps count they are not
     * @param questions what must be asked in some places
     * @param stages sexes and stages that the specimens may be of; empty: any
     * @param groups ids of taxa at which the key stops
     * @param leads how many leads a couplet may have, 2 to 8
     * @param readers who is to read it; none: as the objective has it
     * @param magnification how many times things can be magnified at most; 0: as needed
     */
    public record KeyRequest(
            KeyObjective objective,
            boolean evenWeights,
            SortedSet<Integer> months,
            SortedSet<String> organs,
            SortedSet<String> methods,
            SortedSet<Specimen.Treated> preserved,
            SortedSet<String> taxa,
            SortedSet<String> forbidden,
            Boolean hazardsFirst,
            List<Question> questions,
            SortedSet<String> stages,
            SortedSet<String> groups,
            Integer leads,
            @Nullable Observer readers,
            Integer magnification) {
        /**
         * A character that is asked wherever exactly these rows are in play, if it can be asked there.
         *
         * @param rows ids; none: all, as at the first couplet
         */
        public record Question(SortedSet<String> rows, String character) {
            public Question {
                rows = Objects.requireNonNullElseGet(rows, TreeSet::new);
            }
        }

        /** What a request leaves out is wished as {@link #CAUTIOUS} has it, but for the weights, which must be said. */
        public KeyRequest {
            objective = Objects.requireNonNullElse(objective, KeyObjective.CAUTIOUS);
            months = Objects.requireNonNullElseGet(months, TreeSet::new);
            organs = Objects.requireNonNullElseGet(organs, TreeSet::new);
            methods = Objects.requireNonNullElseGet(methods, TreeSet::new);
            preserved = Objects.requireNonNullElseGet(preserved, TreeSet::new);
            taxa = Objects.requireNonNullElseGet(taxa, TreeSet::new);
            forbidden = Objects.requireNonNullElseGet(forbidden, TreeSet::new);
            hazardsFirst = Objects.requireNonNullElse(hazardsFirst, false);
            questions = questions == null ? List.of() : List.copyOf(questions);
            stages = Objects.requireNonNullElseGet(stages, TreeSet::new);
            groups = Objects.requireNonNullElseGet(groups, TreeSet::new);
            leads = Objects.requireNonNullElse(leads, KeyOptions.TWO_LEADS);
            magnification = Objects.requireNonNullElse(magnification, 0);
            if (leads < KeyOptions.TWO_LEADS || leads > KeyOptions.MOST_LEADS) {
                throw new InvalidInput("Couplets have 2 to " + KeyOptions.MOST_LEADS + " leads.");
            }
            if (magnification < 0) {
                throw new InvalidInput("A magnification is a number from 1; 0 stands for any.");
            }
            if (months.stream().anyMatch(m -> m < 1 || m > 12)) {
                throw new InvalidInput("Months are numbers from 1 to 12.");
            }
        }

        public static final KeyRequest CAUTIOUS = new KeyRequest(
                KeyObjective.CAUTIOUS,
                true,
                none(),
                none(),
                none(),
                none(),
                none(),
                none(),
                false,
                List.of(),
                none(),
                none(),
                KeyOptions.TWO_LEADS,
                null,
                0);

        /** What can be seen when the key is used. */
        KeyContext context() {
            return new KeyContext(months, lower(organs), lower(methods), preserved, magnification);
        }

        /** What must be asked of the study as this key may ask of it; of what is not there any more nothing. */
        List<KeyOptions.SetQuestion> questionsOf(CompiledStudy applied) {
            return questions.stream()
                    .filter(q -> applied.characterIndex(q.character()) >= 0
                            && q.rows().stream().allMatch(r -> applied.rowIndex(r) >= 0))
                    .map(q -> new KeyOptions.SetQuestion(
                            q.rows().stream().map(applied::rowIndex).collect(Collectors.toSet()),
                            applied.characterIndex(q.character())))
                    .toList();
        }

        /** The study as this key may ask of it. */
        CompiledStudy applied(CompiledStudy whole) {
            CompiledStudy wanted = (taxa.isEmpty() ? whole : whole.of(taxa)).ofStages(lower(stages));
            CompiledStudy compiled = context().apply(wanted).stoppingAt(groups);
            return compiled.without(IntStream.range(0, compiled.characters().size())
                    .filter(c -> forbidden.contains(compiled.characters().get(c).id()))
                    .boxed()
                    .toList());
        }

        private static Set<String> lower(Set<String> names) {
            return names.stream().map(n -> n.toLowerCase(Locale.ROOT)).collect(Collectors.toSet());
        }

        private static <T> SortedSet<T> none() {
            return new TreeSet<>();
        }
    }

    /**
     * A key, or how far it is.
     *
     * @param key the best so far while it is made, and when that was stopped
     * @param compared what the keys of all objectives are like; empty while there is none
     */
    public record Progressing(
            String id,
            long revision,
            Job.Status status,
            double progress,
            @Nullable KeyView key,
            List<KeyView.ComparedView> compared) {}

    /** Begins a key, or finds it. */
    public Progressing begin(OpenStudy study, KeyRequest wish, Duration patience) {
        long revision = store.load(study.id()).revision();
        Job job = jobs.submit(KeyJob.KIND, JobScope.of(study), revision, json.writeValueAsString(wish));
        return look(study, job.id().toString(), patience);
    }

    /** The key once it is made, or how far it is when {@code patience} is at an end. */
    public Progressing look(OpenStudy study, String id, Duration patience) {
        Job job = jobs.await(JobScope.of(study), id, patience);
        boolean ended = job.status() == Job.Status.DONE || job.status() == Job.Status.FAILED;
        KeyJob.KeyAnswer made = ended ? made(job) : madeSoFar(job);
        return new Progressing(
                id,
                job.revision(),
                job.status(),
                job.progress(),
                made == null ? null : made.view(),
                made == null ? List.of() : made.compared());
    }

    public void stop(OpenStudy study, String id) {
        jobs.stop(JobScope.of(study), id);
    }

    /** A key as a file: {@code text}, {@code markdown}, {@code json} or {@code html}. */
    public String file(OpenStudy study, String id, String format, boolean plain) {
        return file(finished(study, id).key(), format, plain);
    }

    static String file(KeyJob.KeyAnswer key, String format, boolean plain) {
        KeyView view = plain ? key.view().inPlainWords() : key.view();
        return switch (format) {
            // What it says in numbers and ids has no plain words.
            case "json" -> Objects.requireNonNull(key.files().get("json"));
            case "text" -> KeyRenderer.text(view, key.cautions());
            case "markdown" -> KeyRenderer.markdown(view, key.cautions());
            case "html" -> KeyRenderer.html(view, key.cautions());
            default ->
                throw Problems.badRequest(ProblemCode.FORMAT, "Keys are written as text, markdown, json or html.");
        };
    }

    /** A key that was made, and what for, as JSON. */
    record FinishedKey(String request, long revision, KeyJob.KeyAnswer key) {}

    /** The key of a job that is done, or the best that was found when it was stopped. */
    FinishedKey finished(OpenStudy study, String id) {
        Job job = jobs.find(JobScope.of(study), id);
        KeyJob.KeyAnswer stopped = job.status() == Job.Status.CANCELLED ? madeSoFar(job) : null;
        return new FinishedKey(job.question(), job.revision(), stopped == null ? made(job) : stopped);
    }

    private KeyJob.@Nullable KeyAnswer madeSoFar(Job job) {
        return jobs.answerSoFar(job)
                .map(answer -> json.readValue(answer, KeyJob.KeyAnswer.class))
                .orElse(null);
    }

    private KeyJob.KeyAnswer made(Job job) {
        return json.readValue(jobs.answer(job), KeyJob.KeyAnswer.class);
    }
}
