package org.polyclave.study.testkit;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.matrix.CharacterRole;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.study.model.BodyPlan;
import org.polyclave.study.model.Claim;
import org.polyclave.study.model.GlossaryTerm;
import org.polyclave.study.model.Mark;
import org.polyclave.study.model.Opinion;
import org.polyclave.study.model.OutsideTaxon;
import org.polyclave.study.model.Picture;
import org.polyclave.study.model.Reading;
import org.polyclave.study.model.Reference;
import org.polyclave.study.model.Scale;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.ScoreValue.Combination;
import org.polyclave.study.model.ScoreValue.Count;
import org.polyclave.study.model.ScoreValue.Frequency;
import org.polyclave.study.model.ScoreValue.Shown;
import org.polyclave.study.model.Slug;
import org.polyclave.study.model.Specimen;
import org.polyclave.study.model.Specimen.Determination;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyCharacter.StudyState;
import org.polyclave.study.model.StudyCharacter.Trust;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScope;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.notation.NotationPrinter;

/** Seeded scores and studies for round trips. */
@SuppressWarnings("EnumOrdinal") // a random constant of each enum is wanted
public final class RandomScores {
    private static final List<String> AWKWARD =
            List.of("=SUM", "+plus", "-minus", "@at", "'quote", "\"said\"", "naïve β", "a; b", "tab\there");

    private RandomScores() {}

    public static ScoreValue of(StudyCharacter character, Random random) {
        int special = random.nextInt(12);
        if (special == 0) {
            return new ScoreValue.Unknown();
        }
        if (special == 1) {
            return new ScoreValue.NotApplicable();
        }
        if (special == 2) {
            return new ScoreValue.Any();
        }
        if (character.type() == CharacterType.MONTHS) {
            TreeSet<Integer> months = new TreeSet<>();
            for (int k = 0; k <= random.nextInt(5); k++) {
                months.add(1 + random.nextInt(12));
            }
            return new ScoreValue.Months(List.copyOf(months));
        }
        return character.type().isNumeric() ? range(character, random) : states(character, random);
    }

    private static ScoreValue states(StudyCharacter character, Random random) {
        List<StudyState> order = new ArrayList<>(character.states());
        Collections.shuffle(order, random);
        List<Shown> shown = new ArrayList<>();
        for (StudyState state : order.subList(0, 1 + random.nextInt(order.size()))) {
            Frequency frequency =
                    shown.isEmpty() ? Frequency.values()[random.nextInt(5)] : Frequency.values()[random.nextInt(6)];
            shown.add(new Shown(state.id(), frequency));
        }
        Combination combination = shown.size() == 1 ? Combination.VARY : Combination.values()[random.nextInt(3)];
        return new ScoreValue.States(shown, combination);
    }

    private static ScoreValue range(StudyCharacter character, Random random) {
        double unit = character.type() == CharacterType.COUNT ? 1 : 0.5;
        double min = random.nextInt(20) * unit;
        double low = min + random.nextInt(3) * unit;
        if (random.nextInt(8) == 0 && character.type() == CharacterType.COUNT) {
            return new ScoreValue.Range(low, low, null, null);
        }
        if (random.nextInt(4) == 0 && character.type() == CharacterType.COUNT) {
            return counts((int) low, random);
        }
        double high = low + random.nextInt(9) * unit;
        return new ScoreValue.Range(min, low, high, high + random.nextInt(3) * unit);
    }

    /** "Usually 5, sometimes 2–3, rarely 9". */
    private static ScoreValue counts(int usual, Random random) {
        List<Count> counts = new ArrayList<>(List.of(new Count(usual, usual, Frequency.USUALLY)));
        int min = usual;
        int max = usual;
        for (Frequency frequency : List.of(Frequency.SOMETIMES, Frequency.RARELY)) {
            int from = random.nextInt(20);
            int to = from + random.nextInt(3);
            counts.add(new Count(from, to, frequency));
            min = Math.min(min, from);
            max = Math.max(max, to);
        }
        return new ScoreValue.Range(min, usual, (double) usual, (double) max, counts);
    }

    /** A study with awkward names, every type of character, stages, parents and dependencies. */
    public static Study study(long seed) {
        Random random = new Random(seed);
        List<StudyRow> rows = new ArrayList<>();
        rows.add(row("Genus " + AWKWARD.get(random.nextInt(AWKWARD.size())), null, "", random)
                .withRank("genus"));
        for (int i = 0; i < 5; i++) {
            rows.add(row(
                    AWKWARD.get(random.nextInt(AWKWARD.size())) + " species " + i,
                    rows.get(0).id(),
                    "",
                    random));
        }
        rows.add(row(rows.get(1).label(), rows.get(1).id(), "male", random));
        List<StudyCharacter> characters = new ArrayList<>();
        for (CharacterType type : CharacterType.values()) {
            characters.add(character(type, characters, random, rows.get(0).id()));
        }
        List<StudyScore> scores = new ArrayList<>();
        for (StudyRow row : rows) {
            for (StudyCharacter character : characters) {
                if (random.nextInt(4) > 0) {
                    ScoreValue value = of(character, random);
                    scores.add(new StudyScore(
                            row.id(),
                            character.id(),
                            value,
                            NotationPrinter.print(value, character),
                            StudyScore.Basis.values()[random.nextInt(4)],
                            AWKWARD.get(random.nextInt(AWKWARD.size())),
                            random.nextBoolean(),
                            "note",
                            random.nextInt(3) == 0 ? List.of(2, 3) : List.of(),
                            random.nextBoolean() ? "A. Scorer" : "",
                            random.nextBoolean() ? "2031-05-04" : "",
                            random.nextBoolean() ? "sensu A. Scorer" : "",
                            random.nextInt(3) == 0 ? sample(value, random) : null));
                }
            }
        }
        StudyScope scope = new StudyScope(
                "group",
                "covers \"x\"",
                "leaves out",
                "region",
                "stages",
                "audience",
                "kit",
                List.of(1, 12),
                true,
                List.of("caution"),
                new BodyPlan("mushroom", List.of(new BodyPlan.Part("cap", "pileus"))),
                List.of(new StudyScope.Loss(rows.get(1).id(), rows.get(2).id(), 20, "burns")),
                List.of(new StudyScope.Lookalikes(
                        "rosettes", List.of(rows.get(1).id(), rows.get(2).id()), "a rosette is a rosette")));
        return new Study(
                "random-" + seed,
                "Random " + seed,
                scope,
                rows,
                List.of(new OutsideTaxon("Near one", "why", Hazard.SERIOUS)),
                characters,
                scores,
                List.of(new GlossaryTerm(
                        "awn", "awn", "a bristle", "a hair", List.of("arista"), List.of("aun"), "bristle")),
                List.of(new Reference("scorer-2031", "Scorer, A. (2031) Keys.", "10.1234/abc")),
                List.of(new Claim(
                        "claim-1",
                        rows.get(1).id(),
                        Claim.Kind.ONLY,
                        characters.get(0).id(),
                        List.of("one"),
                        "only this one")),
                List.of(new Picture(
                        "bristle",
                        "0".repeat(64),
                        "image/png",
                        4,
                        3,
                        "a bristle",
                        "A. Scorer",
                        "",
                        rows.get(1).id(),
                        "",
                        "v-1",
                        new Scale(new Mark.Point(0, 0.5), new Mark.Point(4, 0.5), "1 mm", "", "lens 4", 5),
                        "AAAA")),
                List.of(new Opinion(
                        Opinion.idOf(rows.get(0).id(), characters.get(0).id(), "B. Scorer"),
                        rows.get(0).id(),
                        characters.get(0).id(),
                        "B. Scorer",
                        new ScoreValue.Unknown(),
                        "?",
                        true,
                        "",
                        "2031-05-05",
                        false)),
                List.of(new Specimen(
                        "v-1",
                        "V 1",
                        List.of(
                                new Determination(
                                        rows.get(1).id(),
                                        "cf.",
                                        Specimen.Kind.DETERMINED,
                                        "A. Scorer",
                                        "2031",
                                        "lens",
                                        List.of(characters.get(0).id())),
                                new Determination(
                                        rows.get(2).id(), "", Specimen.Kind.CONFIRMED, "", "", "", List.of())),
                        new Specimen.Event(
                                "2031-05-04", "the weir", "54°07'24\"N 2°20'42\"W", 25.0, "A. Scorer", "wet", "reed"),
                        "adult",
                        "female",
                        List.of(new Specimen.Treatment(Specimen.Treated.DRIED, "2031-05-05", "in paper")),
                        "cupboard 3",
                        "dried")),
                readings(characters, random));
    }

    private static List<Reading> readings(List<StudyCharacter> characters, Random random) {
        List<Reading> readings = new ArrayList<>();
        for (StudyCharacter character : characters) {
            boolean numeric = character.type().isNumeric();
            if (character.type() != CharacterType.MONTHS && random.nextBoolean()) {
                readings.add(new Reading(
                        "r-" + character.id(),
                        "v-1",
                        character.id(),
                        random.nextBoolean() ? "leaf 1" : "",
                        numeric ? "4" : "one",
                        numeric ? 4.0 : null,
                        numeric ? List.of() : List.of("one"),
                        numeric ? 0.5 : null,
                        "lens",
                        "A. Scorer",
                        "2031-05-04",
                        numeric
                                ? new Mark(
                                        "bristle",
                                        Mark.Shape.LINE,
                                        List.of(List.of(new Mark.Point(0, 0), new Mark.Point(4, 1.5))))
                                : null,
                        Reading.Standing.values()[random.nextInt(3)],
                        random.nextBoolean() ? "bent" : ""));
            }
        }
        return readings;
    }

    private static StudyScore.Sample sample(ScoreValue value, Random random) {
        boolean spread = value instanceof ScoreValue.Range && random.nextBoolean();
        return new StudyScore.Sample(
                null,
                spread ? Integer.valueOf(12) : random.nextBoolean() ? Integer.valueOf(4) : null,
                2,
                List.of("v-1"),
                spread ? ((ScoreValue.Range) value).low() : null,
                spread ? 0.25 : null,
                random.nextBoolean(),
                random.nextBoolean() ? "0123456789abcdef" : "");
    }

    private static StudyCharacter character(
            CharacterType type, List<StudyCharacter> earlier, Random random, String root) {
        boolean states = type == CharacterType.STATES || type == CharacterType.ORDERED;
        List<StudyState> alternatives = states
                ? List.of(
                        new StudyState("one", "one", "plain one", "the first"),
                        StudyState.of("two"),
                        StudyState.of("three " + random.nextInt(9)))
                : List.of();
        String unit = type == CharacterType.LENGTH
                ? List.of("mm", "cm", "um").get(random.nextInt(3))
                : type == CharacterType.MASS
                        ? "g"
                        : type == CharacterType.ANGLE ? "°" : type == CharacterType.PERCENT ? "%" : "";
        List<StudyCharacter.AppliesWhen> conditions = earlier.isEmpty() || random.nextBoolean()
                ? List.of()
                : List.of(new StudyCharacter.AppliesWhen(earlier.get(0).id(), List.of("one", "two")));
        String label = "=part " + type;
        return new StudyCharacter(
                Slug.of(label),
                label,
                "How?",
                "",
                type,
                unit,
                "organ " + random.nextInt(3),
                "eye",
                "look, well",
                alternatives,
                conditions,
                random.nextBoolean() ? List.of() : List.of(5, 6, 9),
                0.5 * random.nextInt(5),
                false,
                random.nextBoolean(),
                false,
                0.07,
                random.nextBoolean() ? "" : "group a",
                0,
                StudyCharacter.Where.NOT_SAID,
                random.nextInt(3) == 0
                        ? new StudyCharacter.Looking(
                                "",
                                List.of(),
                                0,
                                "fades",
                                StudyCharacter.Subject.ORGANISM,
                                List.of(Specimen.Treated.FLUID))
                        : StudyCharacter.Looking.PLAIN,
                "",
                List.of(),
                random.nextInt(3) == 0
                        ? new Trust(
                                random.nextBoolean() ? 0.2 : null,
                                StudyCharacter.RateOrigin.EXPERT,
                                List.of(new StudyCharacter.InGroup(root, 0.3, null, "washed off")))
                        : Trust.USUAL,
                random.nextInt(3) == 0
                        ? new StudyCharacter.Use(
                                CharacterRole.values()[random.nextInt(4)],
                                random.nextBoolean() ? 0.25 * (1 + random.nextInt(4)) : null)
                        : StudyCharacter.Use.FREE,
                earlier.size() % 2 == 1 && states
                        ? new StudyCharacter.LeadPattern("part {states}", "the part {states}")
                        : StudyCharacter.LeadPattern.MADE);
    }

    private static StudyRow row(String label, @Nullable String parent, String stage, Random random) {
        String id = Slug.of(stage.isEmpty() ? label : label + " " + stage);
        return new StudyRow(
                id,
                label,
                "",
                "species",
                parent,
                stage,
                Hazard.values()[random.nextInt(5)],
                List.of(),
                List.of(),
                1 + random.nextInt(5),
                false,
                List.of(),
                "");
    }
}
