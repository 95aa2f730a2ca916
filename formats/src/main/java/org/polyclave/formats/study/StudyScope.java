package org.polyclave.formats.study;

import java.util.List;

/**
 * What a study is about and for whom.
 *
 * @param months numbers 1 to 12 in which its keys claim to serve; empty: all year
 * @param gatheredForFood whether people gather organisms of this group for food
 * @param cautions sentences that every reader of an edition sees
 * @param bodyPlan outline on which organs are found
 * @param losses pairs of which one taken for the other is worse, or less bad, than an everyday wrong name
 */
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
        List<Loss> losses) {
    public static final StudyScope EMPTY =
            new StudyScope("", "", "", "", "", "", "", List.of(), false, List.of(), BodyPlan.NONE, List.of());

    public StudyScope {
        months = List.copyOf(months);
        cautions = List.copyOf(cautions);
        bodyPlan = Missing.or(bodyPlan, BodyPlan.NONE);
        losses = Missing.list(losses);
    }

    public StudyScope withLosses(List<Loss> newLosses) {
        return new StudyScope(
                group,
                covers,
                leavesOut,
                region,
                stages,
                audience,
                equipment,
                months,
                gatheredForFood,
                cautions,
                bodyPlan,
                newLosses);
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
            why = Missing.or(why, "");
        }
    }
}
