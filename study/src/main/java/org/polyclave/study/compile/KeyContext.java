package org.polyclave.study.compile;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Stream;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.separation.SeparationContext;
import org.polyclave.study.model.Specimen;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.rules.InvalidInput;

/**
 * What is at hand: months, organs and methods. Characters that cannot be seen then are left out of the key.
 *
 * @param months numbers 1 to 12; empty: any
 * @param organs names of organs; empty: all
 * @param methods names of methods; empty: all; "eye" is always at hand
 * @param preserved what was done to the specimen; what that alters cannot be seen
 * @param magnification how many times things can be magnified at most; 0: as needed
 */
public record KeyContext(
        Set<Integer> months,
        Set<String> organs,
        Set<String> methods,
        Set<Specimen.Treated> preserved,
        int magnification) {
    public static final KeyContext EVERYTHING = new KeyContext(Set.of(), Set.of(), Set.of());

    public KeyContext {
        months = Set.copyOf(months);
        organs = Set.copyOf(organs);
        methods = Set.copyOf(methods);
        preserved = Set.copyOf(preserved);
    }

    /** With whatever magnifies. */
    public KeyContext(Set<Integer> months, Set<String> organs, Set<String> methods, Set<Specimen.Treated> preserved) {
        this(months, organs, methods, preserved, 0);
    }

    /** Of fresh material. */
    public KeyContext(Set<Integer> months, Set<String> organs, Set<String> methods) {
        this(months, organs, methods, Set.of());
    }

    /**
     * Reads {@code months=1+2,organs=leaf+stem,methods=eye+lens,preserved=dried,magnification=10}.
     *
     * @throws InvalidInput with a sentence, if a part is not known
     */
    public static KeyContext parse(String text) {
        Map<String, Set<String>> parts = new LinkedHashMap<>();
        for (String part : text.split(",")) {
            String[] sides = part.strip().toLowerCase(Locale.ROOT).split("=", 2);
            boolean known = List.of("months", "organs", "methods", "preserved", "magnification")
                    .contains(sides[0].strip());
            if (sides.length < 2 || !known) {
                throw new InvalidInput(
                        "'" + part
                                + "' is not a context. Use months=, organs=, methods=, preserved= or magnification=, with values joined by '+'.");
            }
            Set<String> values = new TreeSet<>();
            for (String value : sides[1].split("\\+")) {
                values.add(value.strip());
            }
            parts.put(sides[0].strip(), values);
        }
        Set<Integer> months = new TreeSet<>();
        for (String month : parts.getOrDefault("months", Set.of())) {
            if (!month.matches("[1-9]|1[0-2]")) {
                throw new InvalidInput("'" + month + "' is not a month. Write a number from 1 to 12.");
            }
            months.add(Integer.parseInt(month));
        }
        return new KeyContext(
                months,
                parts.getOrDefault("organs", Set.of()),
                parts.getOrDefault("methods", Set.of()),
                treated(parts.getOrDefault("preserved", Set.of())),
                magnification(parts.getOrDefault("magnification", Set.of())));
    }

    private static int magnification(Set<String> told) {
        String most = String.join("+", told);
        if (!most.matches("[1-9]\\d{0,5}|")) {
            throw new InvalidInput("'" + most + "' is not a magnification. Write a number, such as 10.");
        }
        return most.isEmpty() ? 0 : Integer.parseInt(most);
    }

    private static Set<Specimen.Treated> treated(Set<String> told) {
        Set<Specimen.Treated> treated = EnumSet.noneOf(Specimen.Treated.class);
        for (String text : told) {
            List<Specimen.Treated> known = Stream.of(Specimen.Treated.values())
                    .filter(t -> t.name().toLowerCase(Locale.ROOT).equals(text))
                    .toList();
            if (known.isEmpty() && !text.equals("no")) {
                throw new InvalidInput(
                        "'" + text + "' is not a way to preserve. Write no, dried, fluid, mounted, cut or dissected.");
            }
            treated.addAll(known);
        }
        return treated;
    }

    /** Bit set of the months; 0: any. */
    private int monthMask() {
        int mask = 0;
        for (int month : months) {
            mask |= 1 << (month - 1);
        }
        return mask;
    }

    /** Bit set of the months in which a key that is made for this is to be used. */
    public int monthsOfUse() {
        return months.isEmpty() ? MatrixCharacter.ALL_MONTHS : monthMask();
    }

    /** The same for telling rows apart: a character counts where both rows show it in one of the months. */
    public SeparationContext separation(CompiledStudy whole) {
        int mask = monthMask();
        boolean[] unusable = new boolean[whole.characters().size()];
        for (int c = 0; c < unusable.length; c++) {
            unusable[c] = !isAtHand(whole.characters().get(c));
        }
        return new SeparationContext(mask, unusable);
    }

    /**
     * The study as it can be read in every one of the months, on these organs, by these methods: what no row shows then is
     * left out, and what a row does not show then is unknown of it. Rows of which nothing is known at all are left out, too.
     */
    public CompiledStudy apply(CompiledStudy whole) {
        int mask = monthMask();
        CompiledStudy scored = whole.scoredOnly();
        CompiledStudy seasonal = scored.withMatrix(scored.matrix().inEvery(mask));
        List<Integer> dropped = new ArrayList<>();
        for (int c = 0; c < scored.characters().size(); c++) {
            boolean season = (mask & ~scored.matrix().monthsOfAnyRow(c)) == 0;
            if (!season || !isAtHand(scored.characters().get(c))) {
                dropped.add(c);
            }
        }
        return dropped.isEmpty() ? seasonal : seasonal.without(dropped);
    }

    private boolean isAtHand(StudyCharacter character) {
        return lacks(character).isEmpty();
    }

    /** What is missing to see a character, whatever the month. */
    public enum Lack {
        ORGAN,
        METHOD,
        /** It is altered by what was done to the specimen. */
        FRESH
    }

    /** What is missing to see a character; empty where it can be seen in its season. */
    public Optional<Lack> lacks(StudyCharacter character) {
        String method = character.method().toLowerCase(Locale.ROOT);
        boolean eye = method.isEmpty() || method.equals("eye") || method.equals("naked eye");
        if (!organs.isEmpty() && !organs.contains(character.organ().toLowerCase(Locale.ROOT))) {
            return Optional.of(Lack.ORGAN);
        }
        if (!methods.isEmpty() && !eye && !methods.contains(method)) {
            return Optional.of(Lack.METHOD);
        }
        if (magnification > 0 && character.where().times().orElse(0) > magnification) {
            return Optional.of(Lack.METHOD);
        }
        boolean altered =
                preserved.stream().anyMatch(t -> character.looking().alteredBy().contains(t));
        return altered ? Optional.of(Lack.FRESH) : Optional.empty();
    }
}
