package org.polyclave.wording.comparison;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.polyclave.core.separation.Verdict;
import org.polyclave.study.comparison.Contrasts;
import org.polyclave.study.comparison.Contrasts.Kind;
import org.polyclave.study.comparison.ViewingConditions;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.notation.MonthNotation;
import org.polyclave.wording.comparison.ContrastCard.AnswerView;
import org.polyclave.wording.comparison.ContrastCard.OpenView;
import org.polyclave.wording.comparison.ContrastCard.PointView;
import org.polyclave.wording.comparison.ContrastCard.ShownCell;
import org.polyclave.wording.lead.English;

/** Sentences of a contrast card. */
public final class ContrastWording {
    private static final int MOST_POINTS = 3;
    private static final int MOST_HINTS = 3;
    private static final int YEAR = 12;

    private final CompiledStudy compiled;
    private final List<Integer> rows;

    ContrastWording(CompiledStudy compiled, List<Integer> rows) {
        this.compiled = compiled;
        this.rows = rows;
    }

    /**
     * "A: leaf margin toothed; fruit red. B: leaf margin entire; fruit black." of the most trustworthy points that tell each
     * pair apart, two organs if there are; empty where nothing tells any.
     */
    AnswerView answer(List<PointView> points) {
        List<PointView> chosen = chosen(points);
        return chosen.isEmpty() ? new AnswerView("", "") : new AnswerView(lines(chosen, false), lines(chosen, true));
    }

    private List<PointView> chosen(List<PointView> points) {
        List<PointView> chosen = new ArrayList<>();
        Set<Integer> told = new HashSet<>();
        Set<String> organs = new HashSet<>();
        for (PointView point : points) {
            boolean news = !told.containsAll(point.tells()) || (rows.size() == 2 && organs.add(point.organ()));
            if (point.kind() == Kind.SEPARATES && news && chosen.size() < MOST_POINTS) {
                chosen.add(point);
                told.addAll(point.tells());
                organs.add(point.organ());
            }
        }
        return chosen;
    }

    private String lines(List<PointView> chosen, boolean plain) {
        List<String> lines = new ArrayList<>();
        for (int i = 0; i < rows.size(); i++) {
            int row = i;
            lines.add(name(i, plain) + ": "
                    + chosen.stream().map(p -> text(p.cells().get(row), plain)).collect(Collectors.joining("; "))
                    + ".");
        }
        return String.join(" ", lines);
    }

    private String name(int i, boolean plain) {
        var row = compiled.rows().get(rows.get(i));
        return plain && !row.plain().isEmpty() ? row.plain() : row.name();
    }

    private static String text(ShownCell cell, boolean plain) {
        return plain ? cell.plainClause() : cell.clause();
    }

    /** What will tell a pair apart firmly and when; empty where it is told so now, without handling where that may harm. */
    static String settles(Contrasts.Standing standing, int pair, List<PointView> later, List<OpenView> unscored) {
        Verdict verdict = least(standing.verdict(), standing.listed());
        if (verdict == Verdict.FIRM) {
            return "";
        }
        if (standing.verdict().compareTo(standing.listed()) < 0) {
            return verdict == Verdict.THIN
                    ? "Only one part of what is listed here counts against a danger."
                    : "Nothing listed here counts against a danger yet: cells have to be confirmed, on two parts.";
        }
        String now = now(verdict, verdict != standing.verdict());
        List<PointView> telling =
                later.stream().filter(p -> p.tells().contains(pair)).toList();
        Map<String, List<String>> hints = new LinkedHashMap<>();
        telling.stream()
                .filter(p -> p.lack() != ViewingConditions.Lack.UNSAFE)
                .limit(MOST_HINTS)
                .forEach(p -> hints.computeIfAbsent(condition(p), c -> new ArrayList<>())
                        .add(English.lower(p.subject())));
        if (!hints.isEmpty()) {
            return now + " What will: "
                    + hints.entrySet().stream()
                            .map(h -> h.getKey() + String.join(", ", h.getValue()))
                            .collect(Collectors.joining("; "))
                    + ".";
        }
        if (!unscored.isEmpty()) {
            return now + " Not scored for both yet: "
                    + unscored.stream()
                            .limit(MOST_HINTS)
                            .map(o -> English.lower(o.subject()))
                            .collect(Collectors.joining("; "))
                    + ".";
        }
        if (!telling.isEmpty()) {
            return now + " What would takes smelling, cutting or touching, or does not count against a danger.";
        }
        return now
                + (verdict == Verdict.THIN
                        ? " No other feature that is scored would, at any time and by any means."
                        : " Nothing scored would for sure, at any time and by any means.");
    }

    private static Verdict least(Verdict first, Verdict second) {
        return first.compareTo(second) <= 0 ? first : second;
    }

    private static String now(Verdict verdict, boolean handled) {
        String without = handled ? "Without smelling, cutting or touching, which may harm here: " : "";
        String now = switch (verdict) {
            case NONE -> "Nothing that can be seen now separates them.";
            case TENDENCY -> "What can be seen now usually differs, but not always.";
            default -> "Only one feature separates them now.";
        };
        return without.isEmpty() ? now : without + English.lower(now);
    }

    /** "with a lens, Jul–Sep: ", "on the fruit: ". */
    private static String condition(PointView point) {
        List<String> parts = new ArrayList<>();
        if (point.lack() == ViewingConditions.Lack.ORGAN && !point.organ().isEmpty()) {
            parts.add("on the " + point.organ());
        } else if (point.lack() == ViewingConditions.Lack.METHOD) {
            parts.add("by " + point.method());
        } else if (point.lack() == ViewingConditions.Lack.FRESH) {
            parts.add("on fresh material");
        }
        if (point.months().size() < YEAR && !point.months().isEmpty()) {
            parts.add(MonthNotation.print(point.months()));
        }
        return parts.isEmpty() ? "" : String.join(", ", parts) + ": ";
    }
}
