package org.polyclave.wording.comparison;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.separation.Strength;
import org.polyclave.study.comparison.CardThresholds;
import org.polyclave.study.comparison.Contrasts;
import org.polyclave.study.comparison.ViewingConditions;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.compile.Inheritance;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyCharacter.StudyState;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.model.Units;
import org.polyclave.study.notation.NotationPrinter;
import org.polyclave.wording.comparison.ContrastCard.CutView;
import org.polyclave.wording.comparison.ContrastCard.PairView;
import org.polyclave.wording.comparison.ContrastCard.PointView;
import org.polyclave.wording.comparison.ContrastCard.ShownCell;
import org.polyclave.wording.comparison.ContrastCard.ShownView;
import org.polyclave.wording.comparison.ContrastCard.SpanView;
import org.polyclave.wording.key.KeyWording;
import org.polyclave.wording.key.StatementWording;
import org.polyclave.wording.lead.CellClause;

/** Contrast cards of one study under viewing conditions, in words. */
public final class ContrastCards {
    /** A card of more rows is not a card. */
    public static final int MOST_ROWS = 6;

    private final CompiledStudy compiled;
    /** By character; cards are asked for by several threads. */
    private final Map<Integer, CellClause> clauses = new ConcurrentHashMap<>();

    private final Map<Integer, CellClause> plainClauses = new ConcurrentHashMap<>();
    private final Inheritance inheritance;
    private final Contrasts contrasts;

    public ContrastCards(CompiledStudy compiled, ViewingConditions conditions, Strength strength) {
        this.compiled = compiled;
        inheritance = new Inheritance(compiled.study().rows(), compiled.scores());
        contrasts = new Contrasts(compiled, conditions, strength, inheritance);
    }

    /** @param rows two to {@value #MOST_ROWS} rows of the matrix */
    public ContrastCard of(List<Integer> rows) {
        Contrasts.Contrast found = contrasts.of(rows);
        List<PointView> points = views(found.points(), rows);
        List<ContrastCard.OpenView> unscored = found.unscored().stream()
                .map(u -> new ContrastCard.OpenView(
                        compiled.characters().get(u.character()).id(),
                        StatementWording.subject(compiled.characters().get(u.character())),
                        u.places()))
                .toList();
        List<ContrastCard.OpenView> safe =
                unscored.stream().filter(o -> mayBeSeen(o, found.gently())).toList();
        return new ContrastCard(
                rows.stream().map(r -> KeyWording.name(compiled, r)).toList(),
                IntStream.range(0, found.pairs().size())
                        .mapToObj(p -> pair(p, found.pairs().get(p), rows, safe))
                        .toList(),
                new ContrastWording(compiled, rows).answer(points),
                found.gently(),
                points,
                views(found.later(), rows),
                views(found.shared(), rows),
                unscored);
    }

    private List<PointView> views(List<Contrasts.Point> points, List<Integer> rows) {
        return points.stream().map(p -> point(p, rows)).toList();
    }

    private PointView point(Contrasts.Point point, List<Integer> rows) {
        int c = point.character();
        StudyCharacter character = compiled.characters().get(c);
        return new PointView(
                character.id(),
                StatementWording.subject(character),
                character.question(),
                character.plainQuestion(),
                character.organ(),
                character.method(),
                where(character.where()),
                character.note(),
                character.looking().pitfalls(),
                character.effort(),
                character.harms(),
                compiled.matrix().character(c).isHandling(),
                point.kind(),
                point.bits(),
                point.tells(),
                numbers(point.months()),
                point.lack(),
                rows.stream().map(r -> cell(r, c)).toList(),
                point.cuts().stream().map(cut -> cut(cut, character)).toList());
    }

    private static CutView cut(CardThresholds.Cut cut, StudyCharacter character) {
        String unit = character.unit().isEmpty() ? "" : " " + character.unit();
        return new CutView(
                cut.at(),
                "up to " + NotationPrinter.number(cut.at()) + unit,
                cut.below(),
                cut.above(),
                cut.error(),
                cut.doubtFrom(),
                cut.doubtTo(),
                cut.individuals());
    }

    private PairView pair(
            int index, Contrasts.Standing standing, List<Integer> rows, List<ContrastCard.OpenView> unscored) {
        return new PairView(
                standing.pair().first(),
                standing.pair().second(),
                standing.verdict(),
                standing.bits(),
                numbers(standing.year().firm()),
                numbers(standing.year().thin()),
                ContrastWording.settles(standing, index, views(standing.later(), rows), unscored));
    }

    /** Where something may harm, nothing is suggested for which it had to be handled. */
    private boolean mayBeSeen(ContrastCard.OpenView unscored, boolean gently) {
        return !gently
                || !compiled.matrix()
                        .character(compiled.characterIndex(unscored.character()))
                        .isHandling();
    }

    private static String where(StudyCharacter.Where where) {
        String span = where.from().isEmpty() || where.to().isEmpty() ? "" : where.from() + " to " + where.to();
        return String.join(
                ", ",
                Stream.of(where.position(), where.side(), where.dimension(), span, where.view(), where.magnification())
                        .filter(s -> !s.isEmpty())
                        .toList());
    }

    static List<Integer> numbers(int months) {
        return IntStream.range(0, 12)
                .filter(m -> (months & (1 << m)) != 0)
                .map(m -> m + 1)
                .boxed()
                .toList();
    }

    /** What a row shows for a character, to recognise it by. */
    Recognition.SignView told(int row, int c) {
        StudyCharacter character = compiled.characters().get(c);
        ShownCell cell = cell(row, c);
        return new Recognition.SignView(
                character.id(),
                StatementWording.subject(character),
                cell.text(),
                cell.plain(),
                cell.clause(),
                cell.plainClause(),
                character.method());
    }

    private ShownCell cell(int row, int c) {
        StudyCharacter character = compiled.characters().get(c);
        Optional<StudyScore> score = inheritance
                .effective(compiled.rows().get(row).id(), character.id())
                .map(Inheritance.Effective::score);
        Cell cell = compiled.matrix().cell(row, c);
        ScoreValue value = score.map(StudyScore::value).orElseGet(() -> unscored(cell, character));
        double factor = Units.factor(character.type(), character.unit()).orElse(1.0);
        SpanView range = cell instanceof Cell.Numeric n
                ? new SpanView(n.min() / factor, n.low() / factor, n.high() / factor, n.max() / factor)
                : null;
        int individuals = cell instanceof Cell.Numeric n && n.measured().isPresent()
                ? n.measured().get().individuals()
                : 0;
        String unit = range == null || character.unit().isEmpty() ? "" : " " + character.unit();
        return new ShownCell(
                NotationPrinter.print(value, character) + unit,
                NotationPrinter.print(value, plain(character)) + unit,
                clauses.computeIfAbsent(c, k -> new CellClause(character, false))
                        .of(value),
                plainClauses
                        .computeIfAbsent(c, k -> new CellClause(character, true))
                        .of(value),
                cell instanceof Cell.Categorical shown ? states(shown, character) : List.of(),
                range,
                individuals,
                score.map(StudyScore::doubtful).orElse(false),
                score.map(StudyScore::source).orElse(""));
    }

    /** A hybrid's unscored cell admits what its parents show. */
    private static ScoreValue unscored(Cell cell, StudyCharacter character) {
        if (cell instanceof Cell.Numeric n) {
            return new ScoreValue.Range(n.min(), n.low(), n.high(), n.max());
        }
        if (cell instanceof Cell.Categorical shown && character.type() != CharacterType.MONTHS) {
            List<ScoreValue.Shown> states = IntStream.range(
                            0, character.states().size())
                    .filter(s -> (shown.support() & (1 << s)) != 0)
                    .mapToObj(
                            s -> new ScoreValue.Shown(character.states().get(s).id(), ScoreValue.Frequency.PLAIN))
                    .toList();
            return new ScoreValue.States(states, ScoreValue.Combination.EITHER);
        }
        return new ScoreValue.Unknown();
    }

    private static StudyCharacter plain(StudyCharacter character) {
        return character.withStates(character.states().stream()
                .map(s -> s.plain().isEmpty() ? s : new StudyState(s.id(), s.plain(), s.plain(), s.definition()))
                .toList());
    }

    private static List<ShownView> states(Cell.Categorical shown, StudyCharacter character) {
        List<ShownView> states = new ArrayList<>();
        for (int s = 0; s < character.states().size(); s++) {
            if ((shown.readable() & (1 << s)) != 0) {
                StudyState state = character.states().get(s);
                states.add(new ShownView(
                        state.label(),
                        state.plain().isEmpty() ? state.label() : state.plain(),
                        state.picture(),
                        (shown.support() & (1 << s)) == 0 ? 0 : shown.shares()[s]));
            }
        }
        return states;
    }
}
