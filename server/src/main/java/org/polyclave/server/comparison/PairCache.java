package org.polyclave.server.comparison;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.Observer;
import org.polyclave.core.separation.Lookalikes;
import org.polyclave.core.separation.PairCounts;
import org.polyclave.core.separation.PairVerdicts;
import org.polyclave.core.separation.SeparationContext;
import org.polyclave.core.separation.Strength;
import org.polyclave.study.comparison.ViewingConditions;
import org.polyclave.study.compile.CompiledStudy;
import org.springframework.stereotype.Component;

/**
 * What was worked out of all pairs of the studies that were looked at last, for the last few viewing conditions. After an edit of scores
 * only the rows that it changed are worked out again.
 */
@Component
class PairCache {
    private static final int STUDIES_KEPT = 4;
    private static final int CONDITIONS_KEPT = 6;
    /** Of more rows at once, everything is computed again. */
    private static final int MOST_ROWS = 8;
    /** Edits after which the order of rows is computed again: meanwhile they keep their places under the eyes of whoever scores. */
    private static final int MOST_EDITS = 25;

    private final Cache<Long, StudyPairs> studies =
            Caffeine.newBuilder().maximumSize(STUDIES_KEPT).build();

    /** The pairs of one matrix under viewing conditions. */
    static final class Pairs {
        private final Matrix matrix;
        private final SeparationContext context;
        private final PairVerdicts verdicts;
        private @Nullable PairCounts counts;
        private @Nullable List<List<Integer>> groups;

        Pairs(Matrix matrix, SeparationContext context, PairVerdicts verdicts, @Nullable PairCounts counts) {
            this.matrix = matrix;
            this.context = context;
            this.verdicts = verdicts;
            this.counts = counts;
        }

        PairVerdicts verdicts() {
            return verdicts;
        }

        /** Rows that sit close together. */
        synchronized List<List<Integer>> groups() {
            PairCounts apart = counts == null ? PairCounts.of(matrix, context) : counts;
            List<List<Integer>> found = groups == null ? new Lookalikes(apart).groups() : groups;
            counts = apart;
            groups = found;
            return found;
        }

        private synchronized Pairs with(Matrix changed, List<Integer> rows) {
            PairVerdicts newVerdicts = verdicts;
            PairCounts newCounts = counts;
            for (int row : rows) {
                newVerdicts = newVerdicts.withRow(changed, row);
                newCounts = newCounts == null ? null : newCounts.withRow(changed, context, row);
            }
            return new Pairs(changed, context, newVerdicts, newCounts);
        }
    }

    /** One revision of a study. */
    private static final class StudyPairs {
        private final CompiledStudy compiled;
        private final Cache<ViewingConditions, Pairs> conditions =
                Caffeine.newBuilder().maximumSize(CONDITIONS_KEPT).build();
        private final Map<Observer, Strength> strengths = new EnumMap<>(Observer.class);
        private List<Integer> similar = List.of();
        private int edits;

        StudyPairs(CompiledStudy compiled) {
            this.compiled = compiled;
        }

        synchronized StudyPairs at(CompiledStudy later) {
            StudyPairs next = new StudyPairs(later);
            Optional<List<Integer>> rows = later.matrix().rowsUnlike(compiled.matrix());
            if (rows.isPresent() && rows.get().size() <= MOST_ROWS) {
                next.edits = (edits + 1) % MOST_EDITS;
                next.similar = next.edits == 0 ? List.of() : similar;
                conditions
                        .asMap()
                        .forEach((seen, pairs) -> next.conditions.put(seen, pairs.with(later.matrix(), rows.get())));
            }
            return next;
        }

        synchronized Pairs pairs(ViewingConditions viewing) {
            return conditions.get(viewing, h -> {
                SeparationContext context = h.separation(compiled);
                return new Pairs(compiled.matrix(), context, PairVerdicts.of(compiled.matrix(), context), null);
            });
        }

        synchronized Strength strength(Observer observer) {
            return strengths.computeIfAbsent(observer, o -> new Strength(compiled.matrix(), o));
        }

        synchronized List<Integer> similar(Supplier<int[]> computed) {
            if (similar.isEmpty()) {
                similar = Arrays.stream(computed.get()).boxed().toList();
            }
            return similar;
        }
    }

    private StudyPairs of(long study, CompiledStudy compiled) {
        return studies.asMap().compute(study, (id, known) -> {
            if (known == null) {
                return new StudyPairs(compiled);
            }
            return known.compiled.equals(compiled) ? known : known.at(compiled);
        });
    }

    Pairs pairs(long study, CompiledStudy compiled, ViewingConditions viewing) {
        return of(study, compiled).pairs(viewing);
    }

    Strength strength(long study, CompiledStudy compiled, Observer observer) {
        return of(study, compiled).strength(observer);
    }

    /** Rows in an order in which lookalikes sit together, by everything there is to see, whatever the viewing conditions. */
    List<Integer> similar(long study, CompiledStudy compiled) {
        return of(study, compiled)
                .similar(() -> new Lookalikes(PairCounts.of(compiled.matrix(), SeparationContext.EVERYTHING)).order());
    }
}
