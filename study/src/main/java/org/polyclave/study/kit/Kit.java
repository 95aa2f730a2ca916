package org.polyclave.study.kit;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.regex.Pattern;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Handling;
import org.polyclave.core.matrix.Harm;
import org.polyclave.study.compile.HazardTree;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;

/**
 * What has to be at hand: things, from how a study's characters are looked at and from the ways in which its taxa harm. A method
 * that nobody knows names no thing; where handling is asked for and anything may harm, gloves and washing are.
 */
public final class Kit {
    private static final int LENS = 10;
    /** Things by the words of a method, in the order in which they are listed. */
    private static final Map<String, Pattern> THINGS = new LinkedHashMap<>();

    static {
        thing("lens", "lens|loupe|magnif\\w*");
        thing("stereo microscope", "stereo\\w*|binocular");
        thing("microscope", "(?<!stereo )(?<!stereo-)microscop\\w*");
        thing("ruler", "ruler|measur\\w*|tape");
        thing("caliper", "calip\\w*|callip\\w*");
        thing("balance", "weigh\\w*|balance|scales?");
        thing("camera", "photo\\w*|picture");
        thing("white and dark paper", "print");
        thing("needle", "needle|tease\\w*");
        thing("knife or snips", "cut\\w*|section\\w*|slic\\w*|dissect\\w*");
        thing("trowel", "dig\\w*|dug|uproot\\w*");
        thing("reagents", "reagents?|stain\\w*|drops?|salts?");
    }

    private Kit() {}

    private static void thing(String name, String words) {
        THINGS.put(name, Pattern.compile("(?iU)\\b(" + words + ")\\b"));
    }

    /** The things, each once: to look with, to handle with, to be safe with. */
    public static List<String> of(Study study) {
        List<String> things = new ArrayList<>();
        THINGS.forEach((thing, words) -> {
            List<StudyCharacter> with = study.characters().stream()
                    .filter(c -> isNeeded(thing, words, c))
                    .toList();
            if (!with.isEmpty()) {
                things.add(thing + magnification(thing, with));
            }
        });
        things.addAll(protection(study, things.contains("reagents")));
        return List.copyOf(things);
    }

    private static boolean isNeeded(String thing, Pattern words, StudyCharacter character) {
        boolean unsaid = character.method().isBlank()
                || "eye".equalsIgnoreCase(character.method().strip());
        return words.matcher(character.method()).find()
                || ("ruler".equals(thing) && character.type() == CharacterType.LENGTH && unsaid)
                || ("balance".equals(thing) && character.type() == CharacterType.MASS && unsaid);
    }

    private static String magnification(String thing, List<StudyCharacter> with) {
        OptionalInt most =
                with.stream().flatMapToInt(c -> c.where().times().stream()).max();
        boolean magnifies = "lens".equals(thing) || thing.endsWith("microscope");
        if (!magnifies || (most.isEmpty() && !"lens".equals(thing))) {
            return "";
        }
        return " ×" + most.orElse(LENS);
    }

    private static List<String> protection(Study study, boolean reagents) {
        HazardTree hazards = new HazardTree(study.rows());
        Harm harm = Harm.NONE;
        for (StudyRow row : study.rows()) {
            harm = harm.and(hazards.harm(row));
        }
        boolean handled = study.characters().stream().anyMatch(c -> c.handling() != Handling.NONE);
        List<String> things = new ArrayList<>();
        if (harm.bySkin() || (handled && !harm.isNone())) {
            things.add("gloves");
        }
        if (harm.bySkin()) {
            things.add("long sleeves");
        }
        if (reagents) {
            things.add("safety glasses");
        }
        if (handled && !harm.isNone()) {
            things.add("water and soap");
        }
        return things;
    }
}
