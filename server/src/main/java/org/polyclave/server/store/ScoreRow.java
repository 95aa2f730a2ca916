package org.polyclave.server.store;

import java.util.AbstractMap;
import java.util.AbstractSet;
import java.util.HashMap;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.NoSuchElementException;
import java.util.Objects;
import java.util.Set;
import java.util.function.BiConsumer;
import org.jspecify.annotations.Nullable;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyScore;

/**
 * The scores of one row by character, in the order of the study's characters. All rows share the places of the characters,
 * so that a cell takes the room of one reference: a tenth of what an entry of a hash map takes, a million times.
 */
final class ScoreRow extends AbstractMap<String, StudyScore> {
    private final Map<String, Integer> places;
    private final String[] characters;
    private final @Nullable StudyScore[] scores;

    private ScoreRow(Map<String, Integer> places, String[] characters, @Nullable StudyScore[] scores) {
        this.places = places;
        this.characters = characters;
        this.scores = scores;
    }

    /** A row of a study with these characters, of which none is scored. */
    static ScoreRow empty(List<StudyCharacter> characters) {
        Map<String, Integer> places = new HashMap<>();
        characters.forEach(c -> places.put(c.id(), places.size()));
        String[] ids = characters.stream().map(StudyCharacter::id).toArray(String[]::new);
        return new ScoreRow(places, ids, new StudyScore[ids.length]);
    }

    /** The same scores, to be changed by themselves. */
    ScoreRow copy() {
        return new ScoreRow(places, characters, scores.clone());
    }

    /** Whether the study has a character. */
    boolean knows(String character) {
        return places.containsKey(character);
    }

    /** @throws IllegalArgumentException for a character that the study does not have */
    @Override
    public @Nullable StudyScore put(String character, StudyScore score) {
        return replace(place(character), score);
    }

    @Override
    public @Nullable StudyScore remove(Object character) {
        Integer place = places.get(character);
        return place == null ? null : replace(place, null);
    }

    private int place(String character) {
        Integer place = places.get(character);
        if (place == null) {
            throw new IllegalArgumentException("No character '" + character + "'");
        }
        return place;
    }

    private @Nullable StudyScore replace(int place, @Nullable StudyScore score) {
        StudyScore before = scores[place];
        scores[place] = score;
        return before;
    }

    @Override
    public @Nullable StudyScore get(Object character) {
        Integer place = places.get(character);
        return place == null ? null : scores[place];
    }

    @Override
    public boolean containsKey(Object character) {
        return get(character) != null;
    }

    /** Without an entry made for each cell: large studies are walked through cell by cell again and again. */
    @Override
    public void forEach(BiConsumer<? super String, ? super StudyScore> action) {
        for (int c = scoredFrom(0); c < scores.length; c = scoredFrom(c + 1)) {
            action.accept(characters[c], Objects.requireNonNull(scores[c]));
        }
    }

    private int scoredFrom(int from) {
        int place = from;
        while (place < scores.length && scores[place] == null) {
            place++;
        }
        return place;
    }

    @Override
    public Set<Entry<String, StudyScore>> entrySet() {
        return new AbstractSet<>() {
            @Override
            public int size() {
                int size = 0;
                for (StudyScore score : scores) {
                    size += score == null ? 0 : 1;
                }
                return size;
            }

            @Override
            public Iterator<Entry<String, StudyScore>> iterator() {
                return new Entries();
            }
        };
    }

    private final class Entries implements Iterator<Entry<String, StudyScore>> {
        private int at = scoredFrom(0);

        @Override
        public boolean hasNext() {
            return at < scores.length;
        }

        @Override
        public Entry<String, StudyScore> next() {
            StudyScore score = at < scores.length ? scores[at] : null;
            if (score == null) {
                throw new NoSuchElementException();
            }
            Entry<String, StudyScore> entry = Map.entry(characters[at], score);
            at = scoredFrom(at + 1);
            return entry;
        }
    }
}
