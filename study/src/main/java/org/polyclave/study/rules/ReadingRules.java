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
                rules.wrong(reading, "id", "The reading '" + reading.id() + "' occurs twice.");
            }
        }
    }

    private void check(Picture picture) {
        String place = "picture/" + picture.id();
        if (!picture.specimen().isEmpty() && !specimens.contains(picture.specimen())) {
            found.add(new Violation(
                    place,
                    "specimen",
                    "A picture shows the specimen '" + picture.specimen() + "', which is not in the study."));
        }
        Scale scale = picture.scale();
        if (scale != null && !(scale.tilt() >= 0 && scale.tilt() <= STEEPEST)) {
            found.add(new Violation(place, "scale.tilt", "A tilt lies between 0 and " + (int) STEEPEST + " degrees."));
        }
        if (scale != null && !scale.like().isEmpty() && !pictures.containsKey(scale.like())) {
            found.add(new Violation(
                    place,
                    "scale.like",
                    "A picture shares the scale of '" + scale.like()
                            + "', which is not in the study. Choose another first."));
        }
    }

    private void check(Reading reading) {
        StudyCharacter character = characters.get(reading.character());
        if (!specimens.contains(reading.specimen())) {
            wrong(
                    reading,
                    "specimen",
                    "A reading needs its specimen; '" + reading.specimen()
                            + "' is not in the study. Remove its readings first.");
        }
        if (character == null) {
            wrong(
                    reading,
                    "character",
                    "A reading is of '" + reading.character()
                            + "', which is not a character of the study. Remove its readings first.");
        } else if (!fits(reading, character)) {
            wrong(
                    reading,
                    "value",
                    "The reading '" + reading.typed() + "' of '" + reading.specimen() + "' does not fit '"
                            + character.label() + "'. Read it again, or remove it, first.");
        }
        Double uncertainty = reading.uncertainty();
        if (uncertainty != null && !(uncertainty >= 0 && Double.isFinite(uncertainty))) {
            wrong(reading, "uncertainty", "An uncertainty is at least 0, not " + uncertainty + ".");
        }
        if (!StudyRules.isDate(reading.date())) {
            wrong(reading, "date", "'" + reading.date() + "' is not a date. Write it as '2031-05-04'.");
        }
        Mark mark = reading.mark();
        if (mark != null) {
            Picture picture = pictures.get(mark.picture());
            if (picture == null || !picture.specimen().equals(reading.specimen())) {
                wrong(
                        reading,
                        "mark",
                        "A reading of '" + reading.specimen() + "' is marked on the picture '" + mark.picture()
                                + "', which does not show that specimen.");
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

    private void wrong(Reading reading, String field, String sentence) {
        found.add(new Violation("reading/" + reading.id(), field, sentence));
    }
}
