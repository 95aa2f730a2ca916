package org.polyclave.formats.study;

import java.util.List;

/**
 * What a study is about and for whom.
 *
 * @param months numbers 1 to 12 in which its keys claim to serve; empty: all year
 * @param gatheredForFood whether people gather organisms of this group for food
 * @param cautions sentences that every reader of an edition sees
 * @param bodyPlan outline on which organs are found
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
        BodyPlan bodyPlan) {
    public static final StudyScope EMPTY =
            new StudyScope("", "", "", "", "", "", "", List.of(), false, List.of(), BodyPlan.NONE);

    public StudyScope {
        months = List.copyOf(months);
        cautions = List.copyOf(cautions);
        bodyPlan = Missing.or(bodyPlan, BodyPlan.NONE);
    }
}
