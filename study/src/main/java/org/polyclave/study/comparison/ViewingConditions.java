package org.polyclave.study.comparison;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.Observer;
import org.polyclave.core.separation.SeparationContext;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.compile.KeyContext;

/**
 * Under which conditions somebody compares rows.
 *
 * @param context months, organs, methods and how the material is preserved
 * @param stages sexes and stages that it may be of; empty: any. A row that tells nothing of these may be any
 * @param safely whether only what may count against a dangerous row counts: nothing that is smelled, cut or touched
 */
public record ViewingConditions(KeyContext context, Set<String> stages, Observer observer, boolean safely) {
    public static final ViewingConditions EVERYTHING =
            new ViewingConditions(KeyContext.EVERYTHING, Set.of(), Observer.TRAINED, false);

    public ViewingConditions {
        stages = stages.stream().map(s -> s.toLowerCase(Locale.ROOT)).collect(Collectors.toUnmodifiableSet());
    }

    /** Why a character does not help now. */
    public enum Lack {
        SEASON,
        ORGAN,
        METHOD,
        FRESH,
        /** It takes smelling, cutting or touching where that may harm, or it is not evidence against a danger. */
        UNSAFE
    }

    public SeparationContext separation(CompiledStudy compiled) {
        return separation(compiled, false);
    }

    /**
     * What may be looked at to recognise a row: whoever looks does not know yet that it is not the dangerous one, so that
     * nothing takes smelling, cutting or touching where a dangerous row may be handled.
     */
    public SeparationContext recognising(CompiledStudy compiled) {
        return separation(compiled, isDangerous(compiled));
    }

    /** Whether a dangerous row is possible under these conditions. */
    public boolean isDangerous(CompiledStudy compiled) {
        return rows(compiled).stream()
                .anyMatch(r -> compiled.matrix().row(r).hazard().isDangerous());
    }

    /** @param gently without what takes smelling, cutting or touching */
    public SeparationContext separation(CompiledStudy compiled, boolean gently) {
        SeparationContext all = context.separation(compiled);
        boolean[] unusable = new boolean[compiled.characters().size()];
        for (int c = 0; c < unusable.length; c++) {
            unusable[c] = !all.isUsable(c) || isUnsafe(compiled, c, gently);
        }
        return new SeparationContext(all.months(), unusable);
    }

    private boolean isUnsafe(CompiledStudy compiled, int c, boolean gently) {
        MatrixCharacter character = compiled.matrix().character(c);
        return (character.isHandling() && (gently || safely)) || (safely && !character.countsForSafety());
    }

    /** What is missing to see a character in its season; empty: nothing. */
    public Optional<Lack> lack(CompiledStudy compiled, int c, boolean gently) {
        return isUnsafe(compiled, c, gently)
                ? Optional.of(Lack.UNSAFE)
                : context.lacks(compiled.characters().get(c)).map(l -> Lack.valueOf(l.name()));
    }

    /** Rows that it may be, in the order of the matrix. */
    public List<Integer> rows(CompiledStudy compiled) {
        return compiled.rowsOfStages(stages);
    }
}
