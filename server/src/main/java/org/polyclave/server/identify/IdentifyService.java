package org.polyclave.server.identify;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.identify.Answer;
import org.polyclave.core.identify.AnyOrderIdentifier;
import org.polyclave.core.identify.Identification;
import org.polyclave.core.identify.IdentifyOptions;
import org.polyclave.core.matrix.Observer;
import org.polyclave.core.reading.ExaminedStatements;
import org.polyclave.core.reading.Handful;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.compile.KeyContext;
import org.polyclave.study.model.Specimen;
import org.polyclave.wording.key.KeyView;
import org.springframework.stereotype.Service;

/** Any-order identification on a compiled study; nothing about a reader is kept. */
@Service
public class IdentifyService {
    private static final int FULL_YEAR = 0xFFF;
    private static final int MOST_INDIVIDUALS = 60;

    private final Cache<CompiledStudy, Ready> ready =
            Caffeine.newBuilder().weakKeys().build();

    /**
     * What a study needs to answer.
     *
     * @param scored the study without the rows of which nothing is known; empty if there are none, so that no study is kept
     *     by what is kept of it
     * @param identifiers by observer
     * @param checks by row
     */
    private record Ready(
            Optional<CompiledStudy> scored,
            Map<String, AnyOrderIdentifier> identifiers,
            Map<Integer, NameCheck> checks) {}

    /**
     * @param strikeOut whether contradicting rows fall away
     * @param month 1 to 12, 0 for any
     * @param unavailable ids of characters that the reader cannot see
     * @param observer who looks; null: a trained observer
     * @param presence whether a taxon that is not met in the month counts as less likely; null: it does
     * @param atHand what can be seen, and with what; null: everything
     * @param way through a couplet key of the edition: what was examined on it counts, too, unless it is answered here
     * @param check id of a row whose description is to be held against the answers
     */
    public record IdentifyRequest(
            List<ReadersAnswers.AnswerRequest> answers,
            boolean strikeOut,
            int tolerance,
            int month,
            List<String> unavailable,
            @Schema(nullable = true) @Nullable Observer observer,
            @Schema(nullable = true) @Nullable Boolean presence,
            @Nullable AtHandRequest atHand,
            WayAnswers.@Nullable WayRequest way,
            @Schema(nullable = true) @Nullable String check) {}

    /**
     * What is at hand; what is empty is no limit.
     *
     * @param magnification how many times things can be magnified at most; null: as needed
     */
    public record AtHandRequest(
            Set<String> organs,
            Set<String> methods,
            Set<Specimen.Treated> preserved,
            @Schema(nullable = true) @Nullable Integer magnification) {
        private KeyContext context() {
            int most = magnification == null ? 0 : magnification;
            return new KeyContext(Set.of(), names(organs), names(methods), preserved, most);
        }

        private static Set<String> names(Set<String> names) {
            return names.stream().map(n -> n.toLowerCase(Locale.ROOT)).collect(Collectors.toUnmodifiableSet());
        }
    }

    /** Several individuals that were picked together. */
    public record HandfulRequest(
            List<List<ReadersAnswers.AnswerRequest>> individuals,
            int month,
            @Schema(nullable = true) @Nullable Observer observer) {}

    /**
     * Individuals of which the same was seen.
     *
     * @param individuals their places, from 1
     * @param differing what they show, where most of the others cannot show it
     * @param missing ids of characters that were looked at in most of the others
     */
    public record HandfulGroup(
            List<Integer> individuals,
            List<IdentificationView.SaidView> differing,
            List<String> missing,
            IdentificationView.IdentifyResponse found) {}

    public record HandfulResponse(List<HandfulGroup> groups) {}

    /** Each is judged by itself, in one sitting; what differs from the others is told. */
    public HandfulResponse handful(CompiledStudy study, HandfulRequest request) {
        if (request.individuals().isEmpty() || request.individuals().size() > MOST_INDIVIDUALS) {
            throw Problems.badRequest(
                    ProblemCode.HANDFUL, "A handful is of 1 to " + MOST_INDIVIDUALS + " individuals.");
        }
        Ready own = ready(study);
        CompiledStudy compiled = own.scored().orElse(study);
        List<List<Answer>> individuals = request.individuals().stream()
                .map(answers -> answers.stream()
                        .map(a -> ReadersAnswers.of(compiled, a))
                        .sorted(Comparator.comparing(Answer::character))
                        .toList())
                .toList();
        IdentifyOptions options = new IdentifyOptions(false, 0, months(request.month()), new boolean[0], true);
        List<Handful.Group> groups = Handful.of(identifier(compiled, own, request.observer()), individuals, options);
        return new HandfulResponse(groups.stream()
                .map(g -> group(compiled, individuals.get(g.individuals().get(0)), g))
                .toList());
    }

    private static HandfulGroup group(CompiledStudy compiled, List<Answer> answers, Handful.Group group) {
        return new HandfulGroup(
                group.individuals().stream().map(i -> i + 1).toList(),
                answers.stream()
                        .filter(a -> group.differing().contains(a.character()))
                        .map(a -> IdentificationView.said(compiled, a))
                        .toList(),
                IdentificationView.characters(compiled, group.missing()),
                IdentificationView.of(compiled, group.found(), answers, List.of(), null));
    }

    private static int months(int month) {
        if (month < 0 || month > 12) {
            throw Problems.badRequest(ProblemCode.MONTH, "A month is a number from 1 to 12, or 0 for any.");
        }
        return month == 0 ? FULL_YEAR : 1 << (month - 1);
    }

    /**
     * Rows of which nothing is known are no answer: nothing could speak for or against them.
     *
     * @param keys through which a way may lead
     */
    public IdentificationView.IdentifyResponse identify(
            CompiledStudy study, List<KeyView> keys, IdentifyRequest request) {
        Ready own = ready(study);
        CompiledStudy compiled = own.scored().orElse(study);
        AnyOrderIdentifier identifier = identifier(compiled, own, request.observer());
        WayAnswers.WayRequest way = request.way();
        ExaminedStatements examined =
                way == null ? new ExaminedStatements(compiled.matrix()) : WayAnswers.of(compiled, keys, way);
        // What is answered by itself stands in the place of what was read on the way.
        List<Answer> answers = new ArrayList<>();
        for (Answer read : examined.answers()) {
            String id = compiled.characters().get(read.character()).id();
            if (request.answers().stream().noneMatch(a -> a.character().equals(id))) {
                answers.add(read);
            }
        }
        for (ReadersAnswers.AnswerRequest answer : request.answers()) {
            answers.add(ReadersAnswers.of(compiled, answer));
        }
        AtHandRequest atHand = request.atHand();
        boolean[] unavailable = new boolean[compiled.characters().size()];
        for (int c = 0; c < unavailable.length && atHand != null; c++) {
            unavailable[c] =
                    atHand.context().lacks(compiled.characters().get(c)).isPresent();
        }
        for (String id : request.unavailable()) {
            int c = compiled.characterIndex(id);
            if (c >= 0) {
                unavailable[c] = true;
            }
        }
        if (request.tolerance() < 0 || request.tolerance() > IdentifyOptions.MOST_TOLERANCE) {
            throw Problems.badRequest(ProblemCode.TOLERANCE, "The tolerance is 0 to 3 answers.");
        }
        int months = months(request.month());
        boolean presence = request.presence() == null || request.presence();
        IdentifyOptions options =
                new IdentifyOptions(request.strikeOut(), request.tolerance(), months, unavailable, presence);
        Identification found = identifier.identify(answers, options);
        return IdentificationView.of(
                compiled, found, answers, examined.contradicted(), check(compiled, own, found, request.check()));
    }

    private static NameCheck.@Nullable CheckView check(
            CompiledStudy compiled, Ready own, Identification found, @Nullable String id) {
        if (id == null) {
            return null;
        }
        int row = IntStream.range(0, compiled.rows().size())
                .filter(r -> compiled.rows().get(r).id().equals(id))
                .findFirst()
                .orElseThrow(
                        () -> Problems.badRequest(ProblemCode.NO_SUCH_ROW, "This key does not name '" + id + "'."));
        return own.checks()
                .computeIfAbsent(row, r -> new NameCheck(compiled, r))
                .against(compiled, found);
    }

    private Ready ready(CompiledStudy study) {
        return ready.get(
                study,
                s -> new Ready(
                        Optional.of(s.scoredOnly()).filter(c -> !c.equals(s)),
                        new ConcurrentHashMap<>(),
                        new ConcurrentHashMap<>()));
    }

    private static AnyOrderIdentifier identifier(CompiledStudy compiled, Ready ready, @Nullable Observer observer) {
        return ready.identifiers()
                .computeIfAbsent(
                        observer == null ? "" : observer.name(),
                        o -> observer == null
                                ? new AnyOrderIdentifier(compiled.matrix())
                                : new AnyOrderIdentifier(compiled.matrix(), observer));
    }
}
