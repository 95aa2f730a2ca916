package org.polyclave.core.key;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** A position of a search, with what is known of its trees. */
final class SearchNode {
    private static final List<Question> NOT_OPEN = List.of();

    /** A split that may be asked at a position. */
    static final class Question {
        static final double UNKNOWN = -1;

        final Candidate candidate;
        /** Mass times what asking costs. */
        double asking = UNKNOWN;
        /** Together the trees of its leads cost no less than this. */
        double below = UNKNOWN;
        /** How promising it is together with the best next question of each lead. */
        double promise;
        /** Where its first and its second lead go; null until somebody follows it. */
        final SearchNode[] leads = new SearchNode[2];

        Question(Candidate candidate) {
            this.candidate = candidate;
        }

        boolean isFollowed() {
            return leads[0] != null && leads[1] != null;
        }
    }

    final Position position;
    /** No tree costs less. */
    double bound;
    /** Cost of the cheapest tree that is known. */
    double best = Double.POSITIVE_INFINITY;
    /** Ends of that tree. */
    double ends;
    /** What that tree begins with; empty where none is known, or the key stops. */
    Optional<Question> chosen = Optional.empty();
    /** Best first; empty where the key stops. */
    List<Question> questions = NOT_OPEN;
    /** What is not asked here because the question is set. */
    List<Candidate> beside = List.of();
    /** Whether these are all the questions there are. */
    boolean all;

    boolean ranked;
    /** The last stage that was run to its end here, and how dear a tree it might find. */
    int stage = -1;

    double limit;

    SearchNode(Position position, double bound) {
        this.position = position;
        this.bound = bound;
    }

    boolean isOpen() {
        return questions != NOT_OPEN;
    }

    boolean isSolved() {
        return best - bound <= KeySearch.TOLERANCE;
    }

    /** Takes the candidates that were found; the question that was chosen among fewer stays what it is. */
    void open(List<Candidate> found, boolean areAll) {
        all = areAll;
        questions = new ArrayList<>();
        for (Candidate candidate : found) {
            boolean before = chosen.isPresent() && chosen.get().candidate.equals(candidate);
            questions.add(before ? chosen.get() : new Question(candidate));
        }
        if (chosen.isPresent() && !questions.contains(chosen.get())) {
            questions.add(chosen.get());
        }
    }

    /** Takes a question whose leads have trees, if that is cheaper than what there is, or as cheap with fewer ends. */
    void settle(Question question) {
        double sum = question.asking + question.leads[0].best + question.leads[1].best;
        double sumOfEnds = question.leads[0].ends + question.leads[1].ends;
        boolean isChosen = chosen.isPresent() && chosen.get() == question;
        boolean cheaper = sum < best - KeySearch.TOLERANCE
                || (sum <= best + KeySearch.TOLERANCE && sumOfEnds < ends)
                || (isChosen && sum <= best);
        if (cheaper) {
            best = sum;
            ends = sumOfEnds;
            chosen = Optional.of(question);
        }
    }

    /** What the best known tree is; a stop where none is. */
    KeyTree tree() {
        if (chosen.isEmpty()) {
            return new KeyTree.Stop(position.classes);
        }
        Question question = chosen.get();
        List<Candidate> candidates = new ArrayList<>(beside);
        questions.forEach(q -> candidates.add(q.candidate));
        return new KeyTree.Choice(
                question.candidate,
                Candidate.bestOfOthers(candidates, question.candidate),
                question.leads[0].tree(),
                question.leads[1].tree(),
                position.goesOn(question.candidate.split()));
    }
}
