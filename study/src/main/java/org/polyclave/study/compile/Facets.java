package org.polyclave.study.compile;

import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.polyclave.study.model.Facet;
import org.polyclave.study.model.RowTree;
import org.polyclave.study.model.StudyRow;

/**
 * What sexes and stages stand for: each is told by facets (its sex, its life stage ...), and the values of a facet are those
 * that the study has. The words of a stage tell its facets ("juvenile male"); words that are none of the known ones are a
 * morph.
 */
public final class Facets {
    private static final Map<Facet, Set<String>> WORDS = Map.of(
            Facet.SEX, Set.of("male", "female", "hermaphrodite", "gynandromorph"),
            Facet.LIFE_STAGE,
                    Set.of(
                            "adult",
                            "juvenile",
                            "subadult",
                            "larva",
                            "nymph",
                            "pupa",
                            "egg",
                            "seedling",
                            "sapling",
                            "button",
                            "hatchling",
                            "tadpole",
                            "fry",
                            "chick",
                            "caterpillar",
                            "instar",
                            "zoea",
                            "megalopa",
                            "sporeling",
                            "primordium"),
            Facet.DRESS,
                    Set.of(
                            "breeding",
                            "non-breeding",
                            "winter",
                            "summer",
                            "spring",
                            "autumn",
                            "eclipse",
                            "nuptial",
                            "flowering",
                            "fruiting",
                            "vegetative",
                            "sterile",
                            "dormant"),
            Facet.CASTE, Set.of("worker", "queen", "soldier", "drone", "king", "gyne"),
            Facet.CANE_YEAR, Set.of("first-year", "second-year", "third-year"));

    /** Signs and abbreviations of sexes and stages, with plurals. */
    private static final Map<String, String> IN_FULL = Map.ofEntries(
            Map.entry("♂", "male"),
            Map.entry("♂♂", "male"),
            Map.entry("m", "male"),
            Map.entry("males", "male"),
            Map.entry("♀", "female"),
            Map.entry("♀♀", "female"),
            Map.entry("f", "female"),
            Map.entry("females", "female"),
            Map.entry("ad", "adult"),
            Map.entry("adults", "adult"),
            Map.entry("imm", "immature"),
            Map.entry("juv", "juvenile"),
            Map.entry("juveniles", "juvenile"));

    private static final Map<String, String> ALIKE = Map.ofEntries(
            Map.entry("mature", "adult"),
            Map.entry("full-grown", "adult"),
            Map.entry("full grown", "adult"),
            Map.entry("immature", "juvenile"),
            Map.entry("young", "juvenile"),
            Map.entry("seedlings", "seedling"),
            Map.entry("larvae", "larva"),
            Map.entry("nymphs", "nymph"),
            Map.entry("pupae", "pupa"),
            Map.entry("buttons", "button"),
            Map.entry("workers", "worker"),
            Map.entry("queens", "queen"),
            Map.entry("nonbreeding", "non-breeding"),
            Map.entry("in flower", "flowering"),
            Map.entry("in fruit", "fruiting"),
            Map.entry("first year", "first-year"),
            Map.entry("1st year", "first-year"),
            Map.entry("1st-year", "first-year"),
            Map.entry("primocane", "first-year"),
            Map.entry("second year", "second-year"),
            Map.entry("2nd year", "second-year"),
            Map.entry("2nd-year", "second-year"),
            Map.entry("floricane", "second-year"));

    /** Say nothing by themselves. */
    private static final Set<String> FILLERS = Set.of(
            "in",
            "and",
            "the",
            "of",
            "dress",
            "plumage",
            "plant",
            "plants",
            "cane",
            "canes",
            "stage",
            "form",
            "morph",
            "phase",
            "specimen",
            "specimens",
            "individual",
            "individuals");

    private final Map<String, Map<Facet, String>> ofRow = new TreeMap<>();
    private final Map<Facet, Set<String>> values = new EnumMap<>(Facet.class);

    public Facets(List<StudyRow> rows) {
        RowTree tree = new RowTree(rows);
        for (StudyRow row : rows) {
            Map<Facet, String> told = new EnumMap<>(Facet.class);
            List<StudyRow> chain = tree.upward(row.id());
            // What is nearest to the row counts: the juveniles of the males of a taxon.
            for (int k = chain.size() - 1; k >= 0; k--) {
                told.putAll(of(chain.get(k).stage()));
            }
            ofRow.put(row.id(), told);
            told.forEach((facet, value) ->
                    values.computeIfAbsent(facet, f -> new LinkedHashSet<>()).add(value));
        }
        if (values.containsKey(Facet.SEX)) {
            values.computeIfAbsent(Facet.SEX, f -> new LinkedHashSet<>()).addAll(List.of("male", "female"));
        }
        if (values.containsKey(Facet.LIFE_STAGE)) {
            values.computeIfAbsent(Facet.LIFE_STAGE, f -> new LinkedHashSet<>()).add("adult");
        }
    }

    /** A word for a sex or stage without sign or abbreviation: "♂" is "male", "juv." is "juvenile"; others stay as they are. */
    public static String inFull(String word) {
        String bare = word.strip().toLowerCase(Locale.ROOT);
        bare = bare.endsWith(".") ? bare.substring(0, bare.length() - 1) : bare;
        return IN_FULL.getOrDefault(bare, word.strip());
    }

    /** What the words of a stage tell. */
    public static Map<Facet, String> of(String stage) {
        Map<Facet, String> told = new EnumMap<>(Facet.class);
        String text = stage.strip().toLowerCase(Locale.ROOT).replaceAll("[\\s,/]+", " ");
        List<String> rest = new ArrayList<>();
        for (String word : words(text)) {
            Optional<Facet> facet = facet(word);
            if (facet.isPresent()) {
                told.putIfAbsent(facet.get(), word);
            } else if (!FILLERS.contains(word)) {
                rest.add(word);
            }
        }
        if (!rest.isEmpty() && told.containsKey(Facet.DRESS)) {
            // "Spring shoot" is one thing, not a morph that is met in spring.
            told.merge(Facet.DRESS, String.join(" ", rest), (dress, more) -> dress + " " + more);
        } else if (!rest.isEmpty()) {
            told.put(Facet.MORPH, String.join(" ", rest));
        } else if (told.isEmpty() && !text.isEmpty()) {
            told.put(Facet.MORPH, text);
        }
        return told;
    }

    /** Single words, and those pairs of words that mean one thing. */
    private static List<String> words(String text) {
        if (text.isEmpty()) {
            return List.of();
        }
        List<String> words = new ArrayList<>();
        String[] all = text.split(" ");
        for (int k = 0; k < all.length; k++) {
            String pair = k + 1 < all.length ? all[k] + " " + all[k + 1] : "";
            if (ALIKE.containsKey(pair)) {
                words.add(ALIKE.getOrDefault(pair, pair));
                k++;
            } else {
                String word = inFull(all[k]);
                words.add(ALIKE.getOrDefault(word, word));
            }
        }
        return words;
    }

    private static Optional<Facet> facet(String word) {
        return WORDS.entrySet().stream()
                .filter(e -> e.getValue().contains(word))
                .map(Map.Entry::getKey)
                .findFirst();
    }

    /**
     * Whether some sexes and stages together stand for all that another row is.
     *
     * <p>Each stands for the values that it tells, and for all values of a facet of which it tells nothing; but where the study
     * has life stages, what tells none is adult: "male" and "female" are not juveniles. A facet with one value in the whole
     * study is not divided by it: a taxon with one child, "juvenile", is not covered by it.
     */
    public boolean cover(StudyRow parent, List<StudyRow> children) {
        Map<Facet, String> above = ofRow.getOrDefault(parent.id(), Map.of());
        Set<Facet> asked = new LinkedHashSet<>();
        children.forEach(c -> asked.addAll(ofRow.getOrDefault(c.id(), Map.of()).keySet()));
        if (values.containsKey(Facet.LIFE_STAGE)) {
            asked.add(Facet.LIFE_STAGE);
        }
        asked.removeAll(above.keySet());
        boolean divided = asked.stream()
                .anyMatch(f -> valuesOf(f).size() > 1
                        && children.stream()
                                .anyMatch(c ->
                                        ofRow.getOrDefault(c.id(), Map.of()).containsKey(f)));
        return divided && covers(new ArrayList<>(asked), 0, new EnumMap<>(Facet.class), children, isLifeStage(above));
    }

    /**
     * Whether a row may be one of some sexes and stages: in no facet in which these tell anything does it tell something else. What tells
     * a sex or caste, and no life stage, is adult, where the study has life stages. So a female may be of any colour, and what
     * nothing is told of may be anything.
     *
     * @param stages as they are written; none: any
     */
    public boolean mayBe(StudyRow row, Collection<String> stages) {
        Map<Facet, Set<String>> wanted = new EnumMap<>(Facet.class);
        for (String stage : stages) {
            withLifeStage(of(stage))
                    .forEach((facet, value) ->
                            wanted.computeIfAbsent(facet, f -> new HashSet<>()).add(value));
        }
        return withLifeStage(ofRow.getOrDefault(row.id(), Map.of())).entrySet().stream()
                .allMatch(told -> !wanted.containsKey(told.getKey())
                        || wanted.get(told.getKey()).contains(told.getValue()));
    }

    private Map<Facet, String> withLifeStage(Map<Facet, String> told) {
        boolean grown = told.containsKey(Facet.SEX) || told.containsKey(Facet.CASTE);
        if (!grown || told.containsKey(Facet.LIFE_STAGE) || !values.containsKey(Facet.LIFE_STAGE)) {
            return told;
        }
        Map<Facet, String> adult = new EnumMap<>(told);
        adult.put(Facet.LIFE_STAGE, "adult");
        return adult;
    }

    private static boolean isLifeStage(Map<Facet, String> told) {
        return told.containsKey(Facet.LIFE_STAGE);
    }

    private Set<String> valuesOf(Facet facet) {
        return values.getOrDefault(facet, Set.of());
    }

    private boolean covers(
            List<Facet> asked, int next, Map<Facet, String> individual, List<StudyRow> children, boolean isStageKnown) {
        if (next == asked.size()) {
            return children.stream().anyMatch(c -> standsFor(c, individual, isStageKnown));
        }
        Facet facet = asked.get(next);
        Set<String> possible = new HashSet<>(valuesOf(facet));
        if (possible.size() < 2) {
            // There must be others, or nobody would have named it.
            possible.add("");
        }
        for (String value : possible) {
            individual.put(facet, value);
            if (!covers(asked, next + 1, individual, children, isStageKnown)) {
                return false;
            }
        }
        return true;
    }

    private boolean standsFor(StudyRow child, Map<Facet, String> individual, boolean isStageKnown) {
        Map<Facet, String> told = ofRow.getOrDefault(child.id(), Map.of());
        boolean fits = told.entrySet().stream()
                .allMatch(
                        e -> !individual.containsKey(e.getKey()) || e.getValue().equals(individual.get(e.getKey())));
        boolean adultByDefault = !isStageKnown
                && !told.containsKey(Facet.LIFE_STAGE)
                && individual.containsKey(Facet.LIFE_STAGE)
                && !"adult".equals(individual.get(Facet.LIFE_STAGE));
        return fits && !adultByDefault;
    }
}
