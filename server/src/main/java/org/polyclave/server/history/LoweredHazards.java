package org.polyclave.server.history;

import org.polyclave.core.matrix.Hazard;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyRow.Assessment;
import org.polyclave.study.model.StudyRow.Lowering;
import org.springframework.stereotype.Component;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/**
 * A severity that is lowered, by whatever way (a form, an import, undo, a snapshot), stands as it was until a second person
 * confirms: what was recorded before is kept beside what was written.
 */
@Component
public class LoweredHazards {
    private final JsonMapper json;

    LoweredHazards(JsonMapper json) {
        this.json = json;
    }

    /**
     * The new content of a row.
     *
     * @param before content as kept, with its position
     * @param who display name of whoever writes
     */
    String held(String before, String after, String who) {
        StudyRow old = row(before);
        StudyRow now = row(after);
        if (standing(now).compareTo(standing(old)) >= 0
                || standing(old).compareTo(Hazard.CAUTION) < 0
                || isConfirmation(old, now, who)) {
            return after;
        }
        Lowering pending = old.assessment().lowering();
        Lowering asked = now.assessment().lowering();
        Lowering held = new Lowering(
                standing(old),
                pending == null ? old.hazards() : pending.hazards(),
                asked == null ? "" : asked.reason(),
                asked == null ? now.assessment().source() : asked.source(),
                who);
        ObjectNode content = (ObjectNode) json.readTree(after);
        content.set(
                "body",
                json.valueToTree(
                        now.withAssessment(new Assessment(now.assessment().source(), held))));
        return json.writeValueAsString(content);
    }

    private StudyRow row(String content) {
        JsonNode body = json.readTree(content).path("body");
        return json.treeToValue(body, StudyRow.class);
    }

    public static Hazard standing(StudyRow row) {
        Lowering lowering = row.assessment().lowering();
        return lowering != null && lowering.hazard().compareTo(row.hazard()) > 0 ? lowering.hazard() : row.hazard();
    }

    /** Somebody else than who lowered it takes the higher severity away, and changes nothing of the assessment. */
    private static boolean isConfirmation(StudyRow old, StudyRow now, String who) {
        Lowering lowering = old.assessment().lowering();
        return lowering != null
                && now.assessment().lowering() == null
                && now.hazard() == old.hazard()
                && now.hazards().equals(old.hazards())
                && !lowering.by().equals(who)
                && !lowering.source().isBlank()
                && !lowering.reason().isBlank();
    }
}
