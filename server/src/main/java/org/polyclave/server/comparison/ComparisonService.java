package org.polyclave.server.comparison;

import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.separation.PairVerdicts;
import org.polyclave.core.separation.ScoringGains;
import org.polyclave.core.separation.SeparationContext;
import org.polyclave.core.separation.StrictSeparation;
import org.polyclave.core.separation.Verdict;
import org.polyclave.print.card.ContrastPrint;
import org.polyclave.print.card.PrintedPicture;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.store.PictureStore;
import org.polyclave.server.store.StudyStore;
import org.polyclave.study.comparison.PairJudgement;
import org.polyclave.study.comparison.Totals;
import org.polyclave.study.comparison.ViewingConditions;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.wording.comparison.Calendar;
import org.polyclave.wording.comparison.ContrastCard;
import org.polyclave.wording.comparison.ContrastCards;
import org.polyclave.wording.comparison.Recognition;
import org.polyclave.wording.comparison.Recognitions;
import org.springframework.stereotype.Service;

/** What tells rows of a study apart under viewing conditions. */
@Service
public class ComparisonService {
    private static final int MOST_CELLS = 200;
    private static final int MOST_GROUPS_LISTED = 100;
    private static final int MOST_SPECIMENS = 5;

    private final StudyStore store;
    private final PictureStore pictures;
    private final PairCache cache;
    private final Clock clock;

    ComparisonService(StudyStore store, PictureStore pictures, PairCache cache, Clock clock) {
        this.cache = cache;
        this.store = store;
        this.pictures = pictures;
        this.clock = clock;
    }

    /**
     * All pairs of rows.
     *
     * @param rows ids of the rows that what is in the hand may be, in the order of the matrix
     * @param similar their places in an order in which lookalikes sit together
     * @param verdicts for each row one sign for each row before it: 0 none, 1 tendency, 2 thin, 3 firm, - need not be told
     * @param groups places of rows that sit close together under viewing conditions
     */
    public record PairMap(
            long revision,
            List<String> rows,
            List<Integer> similar,
            List<String> verdicts,
            Totals totals,
            List<List<Integer>> groups) {}

    public PairMap map(OpenStudy open, ViewingConditions conditions) {
        StudyStore.Snapshot snapshot = store.load(open.id());
        CompiledStudy compiled = snapshot.compiled();
        Matrix matrix = compiled.matrix();
        PairCache.Pairs pairs = cache.pairs(open.id(), compiled, conditions);
        List<Integer> rows = conditions.rows(compiled);
        int[] place = new int[matrix.rowCount()];
        Arrays.fill(place, -1);
        for (int i = 0; i < rows.size(); i++) {
            place[rows.get(i)] = i;
        }
        PairJudgement judgement = PairJudgement.of(compiled, conditions, pairs.verdicts());
        List<String> signs =
                rows.stream().map(a -> signs(matrix, judgement, rows, a)).toList();
        List<List<Integer>> groups = pairs.groups().stream()
                .map(g -> places(g, place))
                .filter(g -> g.size() > 1 && needsTelling(matrix, rows, g))
                .limit(MOST_GROUPS_LISTED)
                .toList();
        return new PairMap(
                snapshot.revision(),
                ids(compiled, rows),
                places(cache.similar(open.id(), compiled), place),
                signs,
                Totals.of(matrix, judgement, rows, conditions.safely()),
                groups);
    }

    private static List<Integer> places(List<Integer> rows, int[] place) {
        return rows.stream().map(r -> place[r]).filter(p -> p >= 0).toList();
    }

    private static boolean needsTelling(Matrix matrix, List<Integer> rows, List<Integer> places) {
        return places.stream()
                        .map(p -> matrix.row(rows.get(p)).name())
                        .distinct()
                        .count()
                > 1;
    }

    private static String signs(Matrix matrix, PairJudgement verdicts, List<Integer> rows, int a) {
        StringBuilder signs = new StringBuilder();
        for (int b : rows) {
            if (b == a) {
                break;
            }
            signs.append(matrix.row(a).name() == matrix.row(b).name() ? '-' : sign(verdicts.verdict(a, b)));
        }
        return signs.toString();
    }

    private static char sign(Verdict verdict) {
        return switch (verdict) {
            case NONE -> '0';
            case TENDENCY -> '1';
            case THIN -> '2';
            case FIRM -> '3';
        };
    }

    private static List<String> ids(CompiledStudy compiled, List<Integer> rows) {
        return rows.stream().map(r -> compiled.rows().get(r).id()).toList();
    }

    public ContrastCard card(OpenStudy open, ViewingConditions conditions, List<String> ids) {
        CompiledStudy compiled = store.load(open.id()).compiled();
        return cards(open, compiled, conditions).of(cardRows(compiled, ids));
    }

    /** @param wallet as large as a bank card, else a page */
    public byte[] print(OpenStudy open, ViewingConditions conditions, List<String> ids, boolean wallet, boolean plain) {
        CompiledStudy compiled = store.load(open.id()).compiled();
        ContrastCard card = cards(open, compiled, conditions).of(cardRows(compiled, ids));
        ContrastPrint.Imprint imprint = new ContrastPrint.Imprint(
                open.title(), LocalDate.now(clock).toString(), plain, id -> printed(open, compiled, id));
        return wallet ? ContrastPrint.wallet(card, imprint) : ContrastPrint.plate(card, imprint);
    }

    private Optional<PrintedPicture> printed(OpenStudy open, CompiledStudy compiled, String id) {
        return compiled.study().pictures().stream()
                .filter(p -> p.id().equals(id))
                .findFirst()
                .flatMap(p -> pictures.find(open.id(), p.content(), true)
                        .map(c -> new PrintedPicture(c.mediaType(), p.width(), p.height(), c.bytes())));
    }

    private static List<Integer> cardRows(CompiledStudy compiled, List<String> ids) {
        List<Integer> rows = rows(compiled, ids);
        if (rows.size() < 2 || rows.size() > ContrastCards.MOST_ROWS) {
            throw Problems.badRequest(ProblemCode.ROWS, "A contrast card sets two to six taxa side by side.");
        }
        return rows;
    }

    private static List<Integer> rows(CompiledStudy compiled, List<String> ids) {
        List<Integer> rows = new ArrayList<>();
        for (String id : ids) {
            int row = compiled.rowIndex(id);
            if (row < 0) {
                throw Problems.badRequest(
                        ProblemCode.NO_SUCH_ROW, "'" + id + "' is not scored by itself in this study.");
            }
            if (!rows.contains(row)) {
                rows.add(row);
            }
        }
        return rows;
    }

    private ContrastCards cards(OpenStudy open, CompiledStudy compiled, ViewingConditions conditions) {
        return new ContrastCards(compiled, conditions, cache.strength(open.id(), compiled, conditions.observer()));
    }

    /** The cheapest ways to recognise some rows. */
    public List<Recognition> recognise(OpenStudy open, ViewingConditions conditions, List<String> ids) {
        CompiledStudy compiled = store.load(open.id()).compiled();
        Recognitions recognitions = new Recognitions(compiled, conditions, cards(open, compiled, conditions));
        return rows(compiled, ids).stream().map(recognitions::of).toList();
    }

    /** Of one row against all others, of several among themselves, of none: of all rows. */
    public Calendar calendar(OpenStudy open, ViewingConditions conditions, List<String> ids) {
        CompiledStudy compiled = store.load(open.id()).compiled();
        return Calendar.of(compiled, conditions, ids.isEmpty() ? conditions.rows(compiled) : rows(compiled, ids));
    }

    /**
     * What to score next.
     *
     * @param missing by row, how many independent groups its pairs lack until all are told firmly
     */
    public record NextView(List<WorthView> cells, Map<String, Integer> missing, Totals totals) {}

    /**
     * A cell that is worth scoring.
     *
     * @param pairs that it may be expected to separate
     * @param effort minutes
     * @param specimens of the row that it could be seen on
     */
    public record WorthView(
            String row, String character, double pairs, double effort, String method, List<OnSpecimen> specimens) {}

    public record OnSpecimen(String code, String storage) {}

    public NextView next(OpenStudy open, ViewingConditions conditions) {
        CompiledStudy compiled = store.load(open.id()).compiled();
        PairVerdicts verdicts = cache.pairs(open.id(), compiled, conditions).verdicts();
        SeparationContext context = conditions.separation(compiled);
        List<WorthView> cells = new ScoringGains(compiled.matrix(), context, verdicts)
                .best(MOST_CELLS).stream().map(g -> cell(compiled, g)).toList();
        Map<String, Integer> missing = new LinkedHashMap<>();
        conditions
                .rows(compiled)
                .forEach(r -> missing.put(compiled.rows().get(r).id(), missing(compiled, verdicts, r)));
        return new NextView(
                cells,
                missing,
                Totals.of(
                        compiled.matrix(),
                        PairJudgement.of(compiled, conditions, verdicts),
                        conditions.rows(compiled),
                        conditions.safely()));
    }

    private static WorthView cell(CompiledStudy compiled, ScoringGains.Gain gain) {
        String row = compiled.rows().get(gain.row()).id();
        var character = compiled.characters().get(gain.character());
        List<OnSpecimen> specimens = compiled.study().specimens().stream()
                .filter(s -> s.present().map(d -> d.row().equals(row)).orElse(false)
                        && !s.isDeterminedBy(character.id())
                        && s.treatments().stream()
                                .noneMatch(t -> character.looking().alteredBy().contains(t.how())))
                .limit(MOST_SPECIMENS)
                .map(s -> new OnSpecimen(s.code(), s.storage()))
                .toList();
        return new WorthView(row, character.id(), gain.pairs(), gain.effort(), character.method(), specimens);
    }

    private static int missing(CompiledStudy compiled, PairVerdicts verdicts, int row) {
        Matrix matrix = compiled.matrix();
        return IntStream.range(0, matrix.rowCount())
                .filter(i -> matrix.row(i).name() != matrix.row(row).name())
                .map(i -> switch (verdicts.verdict(row, i)) {
                    case FIRM -> 0;
                    case THIN -> 1;
                    default -> 2;
                })
                .sum();
    }

    /** All pairs that are not firmly separated, or all that there are, as a table. */
    public String table(OpenStudy open, ViewingConditions conditions, boolean all) {
        CompiledStudy compiled = store.load(open.id()).compiled();
        PairVerdicts verdicts = cache.pairs(open.id(), compiled, conditions).verdicts();
        StrictSeparation separation = new StrictSeparation(compiled.matrix(), conditions.separation(compiled));
        List<Integer> rows = conditions.rows(compiled);
        StringWriter out = new StringWriter();
        try (CSVPrinter csv = new CSVPrinter(out, CSVFormat.EXCEL)) {
            csv.printRecord("first", "second", "verdict", "separating");
            for (int i = 0; i < rows.size(); i++) {
                for (int j = i + 1; j < rows.size(); j++) {
                    int a = rows.get(i);
                    int b = rows.get(j);
                    Verdict verdict = verdicts.verdict(a, b);
                    boolean told = compiled.matrix().row(a).name()
                            != compiled.matrix().row(b).name();
                    if (told && (all || verdict != Verdict.FIRM)) {
                        csv.printRecord(
                                compiled.rows().get(a).name(),
                                compiled.rows().get(b).name(),
                                verdict.name().toLowerCase(java.util.Locale.ROOT),
                                String.join(
                                        "; ",
                                        separation.separating(a, b).stream()
                                                .map(c -> compiled.characters()
                                                        .get(c)
                                                        .label())
                                                .toList()));
                    }
                }
            }
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
        return out.toString();
    }
}
