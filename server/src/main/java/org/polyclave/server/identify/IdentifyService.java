package org.polyclave.server.identify;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.evidence.Certainty;
import org.polyclave.core.evidence.Look;
import org.polyclave.core.evidence.Observation;
import org.polyclave.core.identify.Answer;
import org.polyclave.core.identify.AnyOrderIdentifier;
import org.polyclave.core.identify.Identification;
import org.polyclave.core.identify.IdentifyOptions;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Handling;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.Observer;
import org.polyclave.core.measuring.RuleOfThumb;
import org.polyclave.core.reading.ExaminedStatements;
import org.polyclave.core.reading.Handful;
import org.polyclave.server.account.RulesOfThumb;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.compile.KeyContext;
import org.polyclave.study.model.Specimen;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.Units;
import org.polyclave.wording.key.KeyView;
import org.polyclave.wording.key.KeyWording;
import org.polyclave.wording.key.StatementWording;
import org.polyclave.wording.lead.RecordedClause;
import org.springframework.stereotype.Service;

/** Any-order identification on a compiled study; nothing about a reader is kept. */
@Service
public class IdentifyService {
    private static final int FULL_YEAR = 0xFFF;
    private static final int TOLD_APART = 3;
    private static final int MOST_INDIVIDUALS = 60;
    /** Standard uncertainties that make a "give or take". */
    private static final double BOTH_SIDES = 2;

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
            List<AnswerRequest> answers,
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

    /**
     * Where a row stands.
     *
     * @param taxon the name that it belongs to: its sexes, stages and morphs share it
     * @param namePosterior what the rows of that name have together
     * @param outOfSeason whether it is not met in the month of the question
     */
    public record StandingView(
            KeyView.NameView name,
            KeyView.NameView taxon,
            double posterior,
            double namePosterior,
            boolean outOfSeason,
            double score,
            double prior,
            int mismatches,
            boolean struckOut,
            int compared,
            List<ContributionView> why) {}

    public record ContributionView(
            String character, String label, double bits, boolean implied, boolean contradicts, boolean known) {}

    /**
     * @param tells names of likely rows that the answer would separate
     * @param protection whether it takes gloves and a tool while what it may be is open
     */
    public record QuestionView(String character, double bits, List<String> tells, boolean protection) {}

    /**
     * Whether a danger is ruled out, and what is missing.
     *
     * @param agreeing looks that speak against it so far
     * @param features usable characters on different parts that separate it from the leader, 0, 1, or 2 and more
     * @param looks ids of characters to look at, one a look; empty if what can be seen now is not enough
     * @param later ids of characters that would help in other months
     * @param laterMonths numbers of the months in which these can be seen
     */
    public record MarginView(
            KeyView.NameView name,
            boolean ruledOut,
            int agreeing,
            int features,
            List<String> safeQuestions,
            List<String> looks,
            List<String> later,
            List<Integer> laterMonths) {}

    /** An answer as a clause, in field terms and in plain words: "Leaf margin toothed". */
    public record SaidView(String character, String text, String plain) {}

    /** What an answer by a rule of thumb came to, in the character's unit. */
    public record RoughView(String character, double value, double uncertainty) {}

    /**
     * @param mustShow ids of characters that the likeliest must show, and that nobody has looked at
     * @param contradicted ids of characters of which the statements on the way cannot all be true; they do not count
     * @param check what was asked for, held against its description
     */
    public record IdentifyResponse(
            List<StandingView> standings,
            double outside,
            List<QuestionView> questions,
            List<MarginView> margins,
            String conclusion,
            List<String> remaining,
            List<String> notCompared,
            List<String> mustShow,
            List<SaidView> said,
            List<RoughView> rough,
            List<String> contradicted,
            NameCheck.@Nullable CheckView check) {}

    /** Several individuals that were picked together. */
    public record HandfulRequest(
            List<List<AnswerRequest>> individuals,
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
            List<Integer> individuals, List<SaidView> differing, List<String> missing, IdentifyResponse found) {}

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
                        .map(a -> answer(compiled, a))
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
                        .map(a -> said(compiled, a))
                        .toList(),
                characters(compiled, group.missing()),
                view(compiled, group.found(), answers, List.of(), null));
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
    public IdentifyResponse identify(CompiledStudy study, List<KeyView> keys, IdentifyRequest request) {
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
        for (AnswerRequest answer : request.answers()) {
            answers.add(answer(compiled, answer));
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
        return view(compiled, found, answers, examined.contradicted(), check(compiled, own, found, request.check()));
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

    private static Answer answer(CompiledStudy compiled, AnswerRequest request) {
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

    private static IdentifyResponse view(
            CompiledStudy compiled,
            Identification found,
            List<Answer> answers,
            List<Integer> contradicted,
            NameCheck.@Nullable CheckView check) {
        Map<Integer, KeyView.NameView> taxa = new HashMap<>();
        found.standings().stream()
                .map(Identification.Standing::row)
                .collect(Collectors.groupingBy(r -> compiled.matrix().row(r).name()))
                .forEach((name, rows) -> taxa.put(name, KeyWording.taxon(compiled, rows)));
        List<StandingView> standings = new ArrayList<>();
        for (Identification.Standing standing : found.standings()) {
            standings.add(new StandingView(
                    name(compiled, standing.row()),
                    taxa.getOrDefault(compiled.matrix().row(standing.row()).name(), name(compiled, standing.row())),
                    standing.posterior(),
                    standing.namePosterior(),
                    standing.outOfSeason(),
                    standing.score(),
                    standing.prior(),
                    standing.mismatches(),
                    standing.struckOut(),
                    standing.compared(),
                    standing.contributions().stream()
                            .map(k -> new ContributionView(
                                    compiled.characters().get(k.character()).id(),
                                    subject(compiled, k.character()),
                                    k.bits(),
                                    k.implied(),
                                    k.contradicts(),
                                    k.known()))
                            .toList()));
        }
        List<QuestionView> questions = found.questions().stream()
                .map(q -> new QuestionView(
                        compiled.characters().get(q.character()).id(),
                        q.bits(),
                        toldApart(compiled, found, q.character()),
                        q.advice() == Handling.Advice.PROTECTED))
                .toList();
        List<MarginView> margins = found.margins().stream()
                .map(m -> new MarginView(
                        name(compiled, m.row()),
                        m.ruledOut(),
                        m.agreeing(),
                        m.features(),
                        characters(compiled, m.safeQuestions()),
                        characters(compiled, m.looks()),
                        characters(compiled, m.later()),
                        months(compiled, m)))
                .toList();
        return new IdentifyResponse(
                standings,
                found.outside(),
                questions,
                margins,
                found.conclusion().kind().name(),
                ids(compiled, found.conclusion().rows()),
                ids(compiled, found.conclusion().notCompared()),
                characters(compiled, found.conclusion().mustShow()),
                answers.stream().map(a -> said(compiled, a)).toList(),
                answers.stream()
                        .filter(Answer::rough)
                        .map(a -> rough(compiled.characters().get(a.character()), (Observation.MeasuredObservation)
                                a.observation()))
                        .toList(),
                characters(compiled, contradicted),
                check);
    }

    private static List<String> characters(CompiledStudy compiled, List<Integer> characters) {
        return characters.stream().map(c -> compiled.characters().get(c).id()).toList();
    }

    private static List<Integer> months(CompiledStudy compiled, Identification.Margin margin) {
        int months = 0;
        for (int c : margin.later()) {
            months |= compiled.matrix().months(margin.row(), c);
        }
        int all = months;
        return IntStream.rangeClosed(1, 12)
                .filter(m -> (all & (1 << (m - 1))) != 0)
                .boxed()
                .toList();
    }

    private static SaidView said(CompiledStudy compiled, Answer answer) {
        StudyCharacter character = compiled.characters().get(answer.character());
        double usual = answer.observation() instanceof Observation.MeasuredObservation reading
                ? compiled.matrix().character(answer.character()).giveOrTake(reading.value())
                : 0;
        return new SaidView(
                character.id(),
                RecordedClause.of(character, answer.observation(), usual, false),
                RecordedClause.of(character, answer.observation(), usual, true));
    }

    private static RoughView rough(StudyCharacter character, Observation.MeasuredObservation reading) {
        double factor = factor(character);
        return new RoughView(character.id(), reading.value() / factor, reading.uncertainty() / factor);
    }

    private static double factor(StudyCharacter character) {
        return Units.factor(character.type(), character.unit()).orElse(1.0);
    }

    /** The likeliest names that show something different for a character: the reason to look there. */
    private static List<String> toldApart(CompiledStudy compiled, Identification found, int character) {
        List<String> names = new ArrayList<>();
        List<Cell> seen = new ArrayList<>();
        for (Identification.Standing standing : found.standings()) {
            Cell cell = compiled.matrix().cell(standing.row(), character);
            boolean scored = cell instanceof Cell.Categorical || cell instanceof Cell.Numeric;
            boolean another = !names.contains(compiled.nameOf(standing.row()).name());
            if (scored && another && !standing.struckOut() && names.size() < TOLD_APART && !seen.contains(cell)) {
                seen.add(cell);
                names.add(compiled.nameOf(standing.row()).name());
            }
        }
        return names;
    }

    private static List<String> ids(CompiledStudy compiled, List<Integer> rows) {
        return rows.stream().map(r -> compiled.rows().get(r).id()).toList();
    }

    private static String subject(CompiledStudy compiled, int character) {
        return StatementWording.subject(compiled.characters().get(character));
    }

    private static KeyView.NameView name(CompiledStudy compiled, int row) {
        return KeyWording.name(compiled, row);
    }
}
