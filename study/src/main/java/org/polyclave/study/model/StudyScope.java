package org.polyclave.study.model;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;

/**
 * What a study is about and for whom.
 *
 * @param months numbers 1 to 12 in which its keys claim to serve; empty: all year
 * @param gatheredForFood whether people gather organisms of this group for food
 * @param cautions sentences that every reader of an edition sees
 * @param bodyPlan outline on which organs are found
 * @param losses pairs of which one taken for the other is worse, or less bad, than an everyday wrong name
 * @param lookalikes groups of taxa that people mix up, across unrelated ones too, named by the author
 */
@RecordBuilder
public record StudyScope(
        String group,
        String covers,
        String leavesOut,
        String region,
        String stages,
        String audience,
        String equipment,
        List<Integer> months,
        boolean gatheredForFood,
        List<String> cautions,
        BodyPlan bodyPlan,
        List<Loss> losses,
        List<Lookalikes> lookalikes)
        implements StudyScopeBuilder.With {
    public static final StudyScope EMPTY = new StudyScope(
            "", "", "", "", "", "", "", List.of(), false, List.of(), BodyPlan.NONE, List.of(), List.of());

    public StudyScope {
        months = List.copyOf(months);
        cautions = List.copyOf(cautions);
        bodyPlan = Defaults.or(bodyPlan, BodyPlan.NONE);
        losses = Defaults.list(losses);
        lookalikes = Defaults.list(lookalikes);
    }

    public StudyScope withPairs(List<Loss> newLosses, List<Lookalikes> newLookalikes) {
        return with().losses(newLosses).lookalikes(newLookalikes).build();
    }

    /**
     * How bad it is to take one taxon, with all that belongs to it, for another.
     *
     * @param row what the specimen is
     * @param named what it is taken for
     * @param times how many times as bad as an everyday wrong name
     */
    public record Loss(String row, String named, double times, String why) {
        public Loss {
            why = Defaults.or(why, "");
        }
    }

    /**
     * Taxa that people mix up.
     *
     * @param rows ids of two taxa or more, or of their sexes and stages
     */
    public record Lookalikes(String name, List<String> rows, String note) {
        public Lookalikes {
            rows = List.copyOf(rows);
            note = Defaults.or(note, "");
        }
    }
}
