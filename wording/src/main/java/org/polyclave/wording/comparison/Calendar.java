package org.polyclave.wording.comparison;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.core.separation.PairSeasonality;
import org.polyclave.study.comparison.SeparationCalendar;
import org.polyclave.study.comparison.ViewingConditions;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.notation.MonthNotation;
import org.polyclave.wording.key.StatementWording;
import org.polyclave.wording.lead.English;

/**
 * When some rows can be distinguished from one another, or one row from all others, under viewing conditions.
 *
 * @param months twelve, from January
 * @param pairs those that are not firmly separated all year, worst first
 * @param more how many such pairs are left out
 */
public record Calendar(int count, List<MonthView> months, List<CalendarPair> pairs, int more) {
    private static final int MOST_PAIRS = 200;

    /** How many pairs are separated by two independent groups, by one, and not at all. */
    public record MonthView(int firm, int thin, int open) {}

    /**
     * @param firm months, 1 to 12, in which it is firmly separated
     * @param thin in which one group alone separates it
     * @param durable subjects of characters that separate it all year
     * @param fleeting those that separate it in some months only
     * @param next what to check next and when, as a sentence
     */
    public record CalendarPair(
            String first,
            String second,
            List<Integer> firm,
            List<Integer> thin,
            List<String> durable,
            List<FleetingView> fleeting,
            String next) {}

    public record FleetingView(String character, String subject, List<Integer> months) {}

    /** @param rows one row: against every other of another taxon; several: all pairs of them */
    public static Calendar of(CompiledStudy compiled, ViewingConditions conditions, List<Integer> rows) {
        SeparationCalendar found = SeparationCalendar.of(compiled, conditions, rows);
        List<MonthView> months = found.months().stream()
                .map(m -> new MonthView(m.firm(), m.thin(), m.open()))
                .toList();
        List<CalendarPair> pairs = found.weak().stream()
                .limit(MOST_PAIRS)
                .map(p -> pair(compiled, p.a(), p.b(), p.year()))
                .toList();
        return new Calendar(found.count(), months, pairs, found.weak().size() - pairs.size());
    }

    private static CalendarPair pair(CompiledStudy compiled, int a, int b, PairSeasonality year) {
        List<String> durable = year.signs().stream()
                .filter(PairSeasonality.Sign::isDurable)
                .map(s -> subject(compiled, s.character()))
                .toList();
        List<FleetingView> fleeting = year.signs().stream()
                .filter(s -> !s.isDurable())
                .map(s -> new FleetingView(
                        compiled.characters().get(s.character()).id(),
                        subject(compiled, s.character()),
                        ContrastCards.numbers(s.months())))
                .toList();
        return new CalendarPair(
                compiled.rows().get(a).id(),
                compiled.rows().get(b).id(),
                ContrastCards.numbers(year.firm()),
                ContrastCards.numbers(year.thin()),
                durable,
                fleeting,
                next(durable, fleeting));
    }

    private static String subject(CompiledStudy compiled, int c) {
        return StatementWording.subject(compiled.characters().get(c));
    }

    private static String next(List<String> durable, List<FleetingView> fleeting) {
        if (durable.isEmpty() && fleeting.isEmpty()) {
            return "Under these conditions nothing separates them, in any month.";
        }
        List<String> parts = new ArrayList<>();
        for (String subject : durable) {
            parts.add(English.lower(subject) + " (all year)");
        }
        for (FleetingView sign : fleeting) {
            parts.add(English.lower(sign.subject()) + " (" + MonthNotation.print(sign.months()) + ")");
        }
        return "Check " + String.join("; ", parts) + ".";
    }
}
