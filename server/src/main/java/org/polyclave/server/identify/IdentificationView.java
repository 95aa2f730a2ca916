package org.polyclave.server.identify;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.evidence.Observation;
import org.polyclave.core.identify.Answer;
import org.polyclave.core.identify.Identification;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.Handling;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.wording.key.KeyView;
import org.polyclave.wording.key.KeyWording;
import org.polyclave.wording.key.StatementWording;
import org.polyclave.wording.lead.RecordedClause;

/** An identification in the names and words of its study. */
public final class IdentificationView {
    private static final int TOLD_APART = 3;

    private IdentificationView() {}

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

    static IdentifyResponse of(
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

    static List<String> characters(CompiledStudy compiled, List<Integer> characters) {
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

    static SaidView said(CompiledStudy compiled, Answer answer) {
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
        double factor = ReadersAnswers.factor(character);
        return new RoughView(character.id(), reading.value() / factor, reading.uncertainty() / factor);
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
