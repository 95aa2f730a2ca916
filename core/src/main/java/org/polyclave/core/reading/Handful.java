package org.polyclave.core.reading;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.core.evidence.Observation;
import org.polyclave.core.identify.Answer;
import org.polyclave.core.identify.AnyOrderIdentifier;
import org.polyclave.core.identify.Identification;
import org.polyclave.core.identify.IdentifyOptions;

/**
 * Several individuals that were picked together. Each is judged by what was seen of it alone: that the others are of one name
 * says nothing about it. What one of them shows and most others cannot is told, for it may be of another name, or misread.
 */
public final class Handful {
    private Handful() {}

    /**
     * Individuals of which the same was seen.
     *
     * @param individuals their places, ascending
     * @param differing characters in which what they show cannot be what is seen most often in the handful
     * @param missing characters that were looked at in most of the others, but not in these
     */
    public record Group(
            List<Integer> individuals, Identification found, List<Integer> differing, List<Integer> missing) {}

    /** In the order of their first individuals; of answers to one character the last counts. O(individuals² · answers). */
    public static List<Group> of(
            AnyOrderIdentifier identifier, List<List<Answer>> individuals, IdentifyOptions options) {
        List<Group> groups = new ArrayList<>();
        List<Integer> placed = new ArrayList<>();
        for (int i = 0; i < individuals.size(); i++) {
            if (placed.contains(i)) {
                continue;
            }
            List<Integer> alike = new ArrayList<>();
            for (int k = i; k < individuals.size(); k++) {
                if (individuals.get(k).equals(individuals.get(i))) {
                    alike.add(k);
                }
            }
            placed.addAll(alike);
            groups.add(new Group(
                    alike,
                    identifier.identify(individuals.get(i), options),
                    differing(individuals, i),
                    missing(individuals, i)));
        }
        return groups;
    }

    private static List<Integer> differing(List<List<Answer>> individuals, int i) {
        List<Integer> differing = new ArrayList<>();
        for (int k = 0; k < individuals.get(i).size(); k++) {
            Answer own = individuals.get(i).get(k);
            if (areApart(own.observation(), mostOften(individuals, own.character()))) {
                differing.add(own.character());
            }
        }
        return differing;
    }

    private static boolean areApart(Observation a, Observation b) {
        if (a instanceof Observation.Seen one && b instanceof Observation.Seen other) {
            return (one.states() & other.states()) == 0;
        }
        return a instanceof Observation.MeasuredObservation one
                && b instanceof Observation.MeasuredObservation other
                && distance(one, other) > one.uncertainty() + other.uncertainty();
    }

    private static double distance(Observation.MeasuredObservation a, Observation.MeasuredObservation b) {
        return a.value() > b.value() ? a.value() - b.value() : b.value() - a.value();
    }

    /** What agrees with most individuals; of several the first. */
    private static Observation mostOften(List<List<Answer>> individuals, int character) {
        Observation best = new Observation.Seen(0);
        int most = 0;
        for (int i = 0; i < individuals.size(); i++) {
            int at = answerTo(individuals.get(i), character);
            if (at >= 0) {
                Observation seen = individuals.get(i).get(at).observation();
                int agreeing = agreeing(individuals, character, seen);
                if (agreeing > most) {
                    most = agreeing;
                    best = seen;
                }
            }
        }
        return best;
    }

    private static int agreeing(List<List<Answer>> individuals, int character, Observation seen) {
        int agreeing = 0;
        for (int i = 0; i < individuals.size(); i++) {
            int at = answerTo(individuals.get(i), character);
            boolean agrees = at >= 0 && !areApart(individuals.get(i).get(at).observation(), seen);
            agreeing += agrees ? 1 : 0;
        }
        return agreeing;
    }

    private static List<Integer> missing(List<List<Answer>> individuals, int i) {
        List<Integer> missing = new ArrayList<>();
        for (int k = 0; k < individuals.size(); k++) {
            for (int n = 0; n < individuals.get(k).size(); n++) {
                int character = individuals.get(k).get(n).character();
                boolean own = answerTo(individuals.get(i), character) >= 0;
                if (!own && !missing.contains(character) && isAnsweredByMost(individuals, character)) {
                    missing.add(character);
                }
            }
        }
        return missing;
    }

    private static boolean isAnsweredByMost(List<List<Answer>> individuals, int character) {
        int answered = 0;
        for (int i = 0; i < individuals.size(); i++) {
            answered += answerTo(individuals.get(i), character) >= 0 ? 1 : 0;
        }
        return 2 * answered > individuals.size();
    }

    private static int answerTo(List<Answer> answers, int character) {
        for (int k = answers.size() - 1; k >= 0; k--) {
            if (answers.get(k).character() == character) {
                return k;
            }
        }
        return -1;
    }
}
