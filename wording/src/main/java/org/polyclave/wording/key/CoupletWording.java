package org.polyclave.wording.key;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.key.Atoms;
import org.polyclave.core.key.Key;
import org.polyclave.core.key.Occurring;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.ControllingCondition;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.model.Units;
import org.polyclave.study.notation.MonthNotation;
import org.polyclave.study.notation.NotationPrinter;
import org.polyclave.wording.lead.Clause;
import org.polyclave.wording.lead.English;
import org.polyclave.wording.lead.Seen;

/**
 * Words the statements of one couplet: parallel clauses that name what occurs, positive wherever the author gave no words that
 * deny, and once a couplet, in brackets, sex or stage, months, view and means.
 */
final class CoupletWording {
    private static final int YEAR = 12;

    private final CompiledStudy compiled;
    private final Key.Couplet couplet;
    private final Occurring occurring;
    /** What the couplet has said in brackets. */
    private final Set<String> said = new HashSet<>();

    CoupletWording(CompiledStudy compiled, Key.Couplet couplet, Occurring occurring) {
        this.compiled = compiled;
        this.couplet = couplet;
        this.occurring = occurring;
    }

    List<List<KeyView.StatementView>> statements() {
        List<List<KeyView.StatementView>> leads = new ArrayList<>();
        for (Key.Lead lead : couplet.leads()) {
            List<KeyView.StatementView> views = new ArrayList<>();
            for (Key.Statement statement : lead.statements()) {
                views.add(view(statement, leads.isEmpty()));
            }
            leads.add(views);
        }
        return leads;
    }

    private KeyView.StatementView view(Key.Statement statement, boolean first) {
        StudyCharacter character = compiled.characters().get(statement.character());
        List<String> asides = new ArrayList<>();
        if (first) {
            asides.addAll(conditions(character));
        }
        // Of several leads each has a limit of its own.
        if (first || couplet.leads().size() > 2) {
            asides.addAll(limits(statement, character));
        }
        List<String> plainAsides = new ArrayList<>(asides);
        handy(statement).ifPresent(plainAsides::add);
        return new KeyView.StatementView(
                character.id(),
                English.capital(text(statement, character, false)) + brackets(asides),
                English.capital(text(statement, character, true)) + brackets(plainAsides),
                statement.role().name(),
                statement.doubt().map(Key.Doubt::wrong).orElse(null),
                states(shown(statement), character),
                limits(statement.atoms(), character));
    }

    /** What a reader admits who says that a statement is true; of counts whole numbers. */
    private static KeyView.@Nullable LimitsView limits(Atoms atoms, StudyCharacter character) {
        if (!(atoms instanceof Atoms.Interval interval)) {
            return null;
        }
        boolean whole = character.type() == CharacterType.COUNT;
        double min = whole && interval.minExclusive() ? Math.floor(interval.min()) + 1 : interval.min();
        double max = whole && interval.maxExclusive() ? Math.ceil(interval.max()) - 1 : interval.max();
        return new KeyView.LimitsView(Double.isFinite(min) ? min : null, Double.isFinite(max) ? max : null);
    }

    private static List<String> states(Atoms shown, StudyCharacter character) {
        int mask = shown instanceof Atoms.States states ? states.mask() : 0;
        return IntStream.range(0, character.states().size())
                .filter(s -> (mask & 1 << s) != 0)
                .mapToObj(s -> character.states().get(s).id())
                .toList();
    }

    private String text(Key.Statement statement, StudyCharacter character, boolean plain) {
        Clause clause = Clause.of(character, plain);
        Atoms shown = shown(statement);
        Seen seen = denial(statement, clause).orElseGet(() -> Seen.of(character, clause, shown));
        return clause.fill(seen.words(), seen.count(), statement.role() == Key.Role.TENDENCY)
                + without(statement, plain);
    }

    private Atoms shown(Key.Statement statement) {
        return occurring.in(statement).atoms().orElse(statement.atoms());
    }

    /** What denies the one state of the only other lead, if its author gave words for that and this lead has several states. */
    private Optional<Seen> denial(Key.Statement statement, Clause clause) {
        Optional<Key.Statement> other = other(statement);
        if (other.isEmpty()
                || !(shown(statement) instanceof Atoms.States mine)
                || !(shown(other.get()) instanceof Atoms.States theirs)
                || Integer.bitCount(mine.mask()) < 2
                || Integer.bitCount(theirs.mask()) != 1
                || clause.negatives().isEmpty()) {
            return Optional.empty();
        }
        int state = Integer.numberOfTrailingZeros(theirs.mask());
        String words = (mine.mask() & theirs.mask()) == 0 ? clause.negatives().get(state) : "";
        return words.isEmpty() ? Optional.empty() : Optional.of(new Seen(words, 1));
    }

    /** The statement about the same character in the only other lead. */
    private Optional<Key.Statement> other(Key.Statement statement) {
        if (couplet.leads().size() != 2) {
            return Optional.empty();
        }
        boolean first = couplet.leads().get(0).statements().contains(statement);
        return couplet.leads().get(first ? 1 : 0).statements().stream()
                .filter(s -> s.character() == statement.character())
                .findFirst();
    }

    /** ", or ligule absent": rows to which the character does not apply go by every lead. */
    private String without(Key.Statement statement, boolean plain) {
        List<Integer> rows = occurring.in(statement).lacking();
        if (rows.isEmpty() || statement.role() != Key.Role.DECIDING) {
            return "";
        }
        int row = rows.get(0);
        for (ControllingCondition condition :
                compiled.matrix().character(statement.character()).appliesWhen()) {
            StudyCharacter controller = compiled.characters().get(condition.character());
            if (compiled.matrix().cell(row, condition.character())
                    instanceof org.polyclave.core.matrix.Cell.Categorical shown) {
                int other = shown.readable() & ~condition.states();
                if (other != 0) {
                    Clause clause = Clause.of(controller, plain);
                    Seen seen = Seen.of(controller, clause, new Atoms.States(other));
                    return ", or " + clause.fill(seen.words(), seen.count(), false);
                }
            }
        }
        return ", or " + Clause.noun(compiled.characters().get(statement.character())) + " absent";
    }

    /** Sex or stage, months, view and means, as far as the couplet has not said them yet. */
    private List<String> conditions(StudyCharacter character) {
        boolean seasonal = character.type() != CharacterType.MONTHS
                && !character.months().isEmpty()
                && character.months().size() < YEAR;
        return Stream.of(
                        String.join(", ", character.looking().stages()),
                        seasonal ? MonthNotation.words(character.months()) : "",
                        character.where().view(),
                        isSpecial(character) ? character.method() : "")
                .filter(s -> !s.isEmpty() && said.add(s))
                .toList();
    }

    /** What the naked eye sees at once needs no word, nor what the character is called by. */
    private static boolean isSpecial(StudyCharacter character) {
        return !List.of("", "eye", "naked eye", "ruler").contains(character.method())
                && !character.label().contains(character.method());
    }

    private static String brackets(List<String> asides) {
        return asides.isEmpty() ? "" : " (" + String.join("; ", asides) + ")";
    }

    private List<String> limits(Key.Statement statement, StudyCharacter character) {
        return Stream.of(doubt(statement, character), limit(statement, character), both(statement))
                .filter(s -> !s.isEmpty())
                .toList();
    }

    /** "24–26 mm: do not decide on this", rounded outward to what people read off; empty without a doubt. */
    private static String doubt(Key.Statement statement, StudyCharacter character) {
        if (statement.doubt().isEmpty()) {
            return "";
        }
        Band band = Band.of(statement.doubt().get(), character);
        String from = NotationPrinter.number(band.from());
        String to = NotationPrinter.number(band.to());
        return (from.equals(to) ? from : from + "–" + to) + Seen.unit(character) + ": do not decide on this";
    }

    /** "limit 6 mm", where the sizes named leave so wide a gap that what lies in it would be in doubt. */
    private String limit(Key.Statement statement, StudyCharacter character) {
        Optional<Key.Statement> other = other(statement);
        if (other.isEmpty()
                || statement.doubt().isPresent()
                || character.type() == CharacterType.COUNT
                || !(shown(statement) instanceof Atoms.Interval mine)
                || !(shown(other.get()) instanceof Atoms.Interval theirs)
                || !(statement.atoms() instanceof Atoms.Interval accepted)) {
            return "";
        }
        double gap = Math.max(theirs.min() - mine.max(), mine.min() - theirs.max());
        double width = Math.max(mine.max() - mine.min(), theirs.max() - theirs.min());
        double at = Double.isInfinite(accepted.min()) ? accepted.max() : accepted.min();
        double factor = Units.factor(character.type(), character.unit()).orElse(1.0);
        return gap > width && Double.isFinite(at) && Double.isFinite(width)
                ? "limit " + NotationPrinter.number(at / factor) + Seen.unit(character)
                : "";
    }

    /** Where one individual may show what both leads name. */
    private String both(Key.Statement statement) {
        Optional<Key.Statement> other = other(statement);
        if (other.isEmpty() || statement.role() != Key.Role.DECIDING) {
            return "";
        }
        String character = compiled.characters().get(statement.character()).id();
        List<Integer> rows = occurring.in(statement).rows();
        return rows.stream()
                        .filter(occurring.in(other.get()).rows()::contains)
                        .anyMatch(r -> showsBoth(compiled.rows().get(r).id(), character))
                ? "with both: either way"
                : "";
    }

    private boolean showsBoth(String row, String character) {
        StudyScore score =
                compiled.scores().getOrDefault(row, java.util.Map.of()).get(character);
        return score != null
                && score.value() instanceof ScoreValue.States states
                && states.combination() == ScoreValue.Combination.BOTH;
    }

    /** "limit about the width of a finger"; empty if no size that people carry with them will do. */
    private static Optional<String> handy(Key.Statement statement) {
        return statement.handy().map(h -> "limit about " + words(h));
    }

    private static String words(Key.Handy handy) {
        String one = switch (handy.rule()) {
            case FINGERNAIL -> "the width of a fingernail";
            case FINGER_WIDTH -> "the width of a finger";
            case PENCIL -> "the width of a pencil";
            case HAND_SPAN -> "a hand span";
        };
        if (handy.times() == 1) {
            return one;
        }
        return handy.times() == 0.5 ? "half " + one : NotationPrinter.number(handy.times()) + " times " + one;
    }

    /** Statements of a lead as a sentence: the first with a capital, the others after semicolons. */
    static String sentence(List<String> statements) {
        return English.capital(statements.stream().map(English::lower).collect(Collectors.joining("; ")));
    }

    /** A band of doubt in the character's own unit, rounded outward to 1 or 5 of the decimals that its quarter has. */
    record Band(double from, double to) {
        static Band of(Key.Doubt doubt, StudyCharacter character) {
            BigDecimal factor = BigDecimal.valueOf(
                    Units.factor(character.type(), character.unit()).orElse(1.0));
            BigDecimal from = BigDecimal.valueOf(doubt.from()).divide(factor, MathContext.DECIMAL64);
            BigDecimal to = BigDecimal.valueOf(doubt.to()).divide(factor, MathContext.DECIMAL64);
            BigDecimal width = to.subtract(from);
            if (character.type() == CharacterType.COUNT || width.signum() <= 0) {
                return new Band(from.doubleValue(), to.doubleValue());
            }
            BigDecimal quarter = width.divide(BigDecimal.valueOf(4), MathContext.DECIMAL64);
            BigDecimal power = BigDecimal.ONE.scaleByPowerOfTen(quarter.precision() - quarter.scale() - 1);
            BigDecimal five = power.multiply(BigDecimal.valueOf(5));
            BigDecimal step = five.compareTo(quarter) <= 0 ? five : power;
            return new Band(
                    from.divide(step, 0, RoundingMode.FLOOR).multiply(step).doubleValue(),
                    to.divide(step, 0, RoundingMode.CEILING).multiply(step).doubleValue());
        }
    }
}
