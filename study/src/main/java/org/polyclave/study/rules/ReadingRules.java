package org.polyclave.study.rules;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.model.Mark;
import org.polyclave.study.model.Picture;
import org.polyclave.study.model.Reading;
import org.polyclave.study.model.Scale;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.rules.StudyRules.Violation;

/** What must hold of readings and of the pictures they are taken from. */
final class ReadingRules {
    private static final double STEEPEST = 60;

    private final List<Violation> found;
    private final Map<String, StudyCharacter> characters = new HashMap<>();
    private final Map<String, Picture> pictures = new HashMap<>();
    private final Set<String> specimens = new HashSet<>();

    private ReadingRules(Study study, List<Violation> found) {
        this.found = found;
        study.characters().forEach(c -> characters.put(c.id(), c));
        study.pictures().forEach(p -> pictures.put(p.id(), p));
        study.specimens().forEach(s -> specimens.add(s.id()));
    }

    static void check(Study study, List<Violation> found) {
        if (study.readings().isEmpty() && study.pictures().isEmpty()) {
            return;
        }
        ReadingRules rules = new ReadingRules(study, found);
        study.pictures().forEach(rules::check);
        Set<String> ids = new HashSet<>();
        for (Reading reading : study.readings()) {
            rules.check(reading);
            if (!ids.add(reading.id())) {
                rules.wrong(reading, "id", Rule.READING_TWICE, "reading", reading.id());
            }
        }
    }

    private void check(Picture picture) {
        String place = "picture/" + picture.id();
        if (!picture.specimen().isEmpty() && !specimens.contains(picture.specimen())) {
            found.add(
                    Violation.of(place, "specimen", Rule.PICTURE_OF_UNKNOWN_SPECIMEN, "specimen", picture.specimen()));
        }
        Scale scale = picture.scale();
        if (scale != null && !(scale.tilt() >= 0 && scale.tilt() <= STEEPEST)) {
            found.add(Violation.of(place, "scale.tilt", Rule.TILT, "most", STEEPEST));
        }
        if (scale != null && !scale.like().isEmpty() && !pictures.containsKey(scale.like())) {
            found.add(Violation.of(place, "scale.like", Rule.SHARED_SCALE, "picture", scale.like()));
        }
    }

    private void check(Reading reading) {
        StudyCharacter character = characters.get(reading.character());
        if (!specimens.contains(reading.specimen())) {
            wrong(reading, "specimen", Rule.READING_OF_UNKNOWN_SPECIMEN, "specimen", reading.specimen());
        }
        if (character == null) {
            wrong(reading, "character", Rule.READING_OF_UNKNOWN_CHARACTER, "character", reading.character());
        } else if (!fits(reading, character)) {
            wrong(
                    reading,
                    "value",
                    Rule.READING_DOES_NOT_FIT,
                    "reading",
                    reading.typed(),
                    "specimen",
                    reading.specimen(),
                    "character",
                    character.label());
        }
        Double uncertainty = reading.uncertainty();
        if (uncertainty != null && !(uncertainty >= 0 && Double.isFinite(uncertainty))) {
            wrong(reading, "uncertainty", Rule.READING_UNCERTAINTY, "uncertainty", uncertainty);
        }
        if (!StudyRules.isDate(reading.date())) {
            wrong(reading, "date", Rule.READING_DATE, "date", reading.date());
        }
        Mark mark = reading.mark();
        if (mark != null) {
            Picture picture = pictures.get(mark.picture());
            if (picture == null || !picture.specimen().equals(reading.specimen())) {
                wrong(
                        reading,
                        "mark",
                        Rule.MARK_ON_OTHER_PICTURE,
                        "specimen",
                        reading.specimen(),
                        "picture",
                        mark.picture());
            }
        }
    }

    private static boolean fits(Reading reading, StudyCharacter character) {
        Double value = reading.value();
        return character.type().isNumeric()
                ? value != null
                        && value >= 0
                        && Double.isFinite(value)
                        && reading.states().isEmpty()
                : character.type() != CharacterType.MONTHS
                        && value == null
                        && !reading.states().isEmpty()
                        && reading.states().stream().allMatch(s -> character.indexOf(s) >= 0);
    }

    private void wrong(Reading reading, String field, Rule rule, Object... facts) {
        found.add(Violation.of("reading/" + reading.id(), field, rule, facts));
    }
}
