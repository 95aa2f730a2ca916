package org.polyclave.demo.specimen;

import java.util.ArrayList;
import java.util.Base64;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.polyclave.demo.specimen.SpecimenPicture.Rendered;
import org.polyclave.study.measuring.Evidence;
import org.polyclave.study.measuring.MarkedReading;
import org.polyclave.study.measuring.Proposals;
import org.polyclave.study.measuring.ReadingOutcome;
import org.polyclave.study.measuring.TypedReading;
import org.polyclave.study.model.Mark;
import org.polyclave.study.model.Mark.Point;
import org.polyclave.study.model.Picture;
import org.polyclave.study.model.Reading;
import org.polyclave.study.model.Scale;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.Slug;
import org.polyclave.study.model.Specimen;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScore;

/**
 * Specimens of the made-up taxa, with sizes that the matrix admits, a picture of each, and what two people read of them. Some
 * slips are planted among the readings. Everything follows from fixed seeds.
 */
public final class SimulatedSpecimens {
    private static final int WIDTH = 720;
    private static final int HEIGHT = 540;
    /** By hand, in pixels. */
    private static final double UNSTEADY = 0.6;

    private static final double TILT = 3;
    /** More of a row than were named in doubt at first. */
    private static final int LATER = 8;

    private static final List<String> PEOPLE = List.of("Isolde Quillane", "Oswin Brandreth");
    private static final List<String> PLACES = List.of(
            "Lower Sallow",
            "Reedfleet Carr",
            "Withy Bottom",
            "Gallows Pool",
            "Millrace Meadow",
            "Saltern Creek",
            "Hob Ings",
            "Far Marrow");

    /** Two that differ in little but the ripe fruit. */
    private static final List<String> WELL_MEASURED = List.of("tarnella-praecox", "tarnella-serotina");

    private final Study study;
    private final Random random;
    private final Map<String, StudyRow> rows = new HashMap<>();
    private final Map<String, Map<String, ScoreValue>> scores = new HashMap<>();
    private final List<Specimen> specimens;
    private final List<Picture> pictures;
    private final List<Reading> readings = new ArrayList<>();

    private SimulatedSpecimens(Study study, long seed) {
        this.study = study;
        random = new Random(seed);
        study.rows().forEach(r -> rows.put(r.id(), r));
        study.scores()
                .forEach(s ->
                        scores.computeIfAbsent(s.row(), r -> new HashMap<>()).put(s.character(), s.value()));
        specimens = new ArrayList<>(study.specimens());
        pictures = new ArrayList<>(study.pictures());
    }

    /** How a study's specimens are made. */
    private interface Kind {
        /** Characters of which a row needs a range. */
        List<String> needs();

        /** Code of the first specimens: collection and year. */
        String code();

        Rendered draw(Map<String, Double> sizes, long seed);

        /** Sizes of one individual of a row. */
        Map<String, Double> sizes(SimulatedSpecimens of, String row);

        /** How many specimens of the n-th row that has what is needed. */
        int count(int row);

        /** Individuals of a row that were found later. */
        default int later(String row) {
            return 0;
        }
    }

    /** A study with its simulated specimens. */
    public static Study of(Study study, long seed) {
        Kind kind =
                study.slug().contains("crab") ? new Crabs() : study.slug().contains("cap") ? new Caps() : new Fruits();
        SimulatedSpecimens simulated = new SimulatedSpecimens(study, seed);
        simulated.make(kind);
        return withSomeCellsMade(study.withSpecimens(simulated.specimens)
                .withPictures(simulated.pictures)
                .withReadings(simulated.readings));
    }

    /** Where the readings fit what the matrix says, it is made of them, so that the key tells where its limit is in doubt. */
    private static Study withSomeCellsMade(Study study) {
        List<StudyScore> scores = new ArrayList<>(study.scores());
        Evidence evidence = new Evidence(study);
        for (StudyCharacter character : evidence.read()) {
            for (Evidence.RowReadings of : evidence.of(character)) {
                scores.replaceAll(old -> isWellMeasured(old, of, character)
                        ? Proposals.of(of, character, old)
                                .score(old, PEOPLE.get(0), "2025-11-14")
                                .orElse(old)
                        : old);
            }
        }
        return study.withScores(scores);
    }

    private static boolean isWellMeasured(StudyScore score, Evidence.RowReadings of, StudyCharacter character) {
        return WELL_MEASURED.contains(score.row())
                && score.row().equals(of.row())
                && score.character().equals(character.id())
                && Proposals.of(of, character, score).flags().isEmpty();
    }

    private void make(Kind kind) {
        List<StudyRow> able = study.rows().stream()
                .filter(r ->
                        kind.needs().stream().allMatch(c -> range(r.id(), c).isPresent()))
                .filter(r -> study.rows().stream().noneMatch(s -> s.isSemaphoront() && r.id().equals(s.parent())))
                .toList();
        List<Planned> planned = new ArrayList<>();
        for (int r = 0; r < able.size(); r++) {
            for (int i = 0; i < kind.count(r); i++) {
                planned.add(planned(kind, able.get(r), planned.size(), i));
            }
        }
        take(kind, planned, 0);
        // Gathered later, so that the two can be told by a limit; numbers, names and sizes above stay what they are.
        List<Planned> later = new ArrayList<>();
        for (StudyRow row : able) {
            for (int i = 0; i < kind.later(row.id()); i++) {
                later.add(planned(kind, row, planned.size() + later.size(), LATER + i));
            }
        }
        take(kind, later, planned.size());
    }

    private record Planned(Specimen specimen, Map<String, Double> sizes, long seed) {}

    private Planned planned(Kind kind, StudyRow row, int number, int ofRow) {
        Specimen specimen = specimen(kind, row, number, ofRow);
        return new Planned(specimen, kind.sizes(this, row.id()), random.nextLong());
    }

    private void take(Kind kind, List<Planned> planned, int first) {
        // Drawing is most of the work, and one picture needs nothing of another.
        List<Rendered> drawn = IntStream.range(0, planned.size())
                .parallel()
                .mapToObj(i -> kind.draw(planned.get(i).sizes(), planned.get(i).seed()))
                .toList();
        for (int i = 0; i < planned.size(); i++) {
            specimens.add(planned.get(i).specimen());
            pictures.add(picture(planned.get(i).specimen(), drawn.get(i)));
        }
        Study pictured = study.withSpecimens(specimens).withPictures(pictures);
        for (int i = 0; i < planned.size(); i++) {
            // Every ninth was photographed, and waits to be measured.
            if ((first + i) % 9 != 8) {
                read(pictured, planned.get(i).specimen(), drawn.get(i), first + i);
            }
        }
    }

    private Optional<ScoreValue.Range> range(String row, String character) {
        String at = row;
        while (at != null) {
            ScoreValue value = scores.getOrDefault(at, Map.of()).get(character);
            if (value != null) {
                return value instanceof ScoreValue.Range range && range.high() != null
                        ? Optional.of(range)
                        : Optional.empty();
            }
            StudyRow of = rows.get(at);
            at = of == null ? null : of.parent();
        }
        return Optional.empty();
    }

    /** In the middle more often than at the ends, and within what the matrix admits. */
    private double size(String row, String character) {
        ScoreValue.Range range = range(row, character).orElseThrow();
        double low = range.low();
        double high = range.high() == null ? low : range.high();
        double size = (low + high) / 2 + (high - low) / 4.5 * random.nextGaussian();
        return Math.max(low, Math.min(high, size));
    }

    private Specimen specimen(Kind kind, StudyRow row, int number, int ofRow) {
        String code = String.format(Locale.ROOT, "%s-%03d", kind.code(), 101 + number);
        int gathering = random.nextInt(PLACES.size());
        String place = PLACES.get(gathering);
        String day = String.format(Locale.ROOT, "2025-%02d-%02d", 5 + (gathering + ofRow / 4) % 5, 3 + 2 * gathering);
        Specimen.Event event = new Specimen.Event(
                day,
                place,
                String.format(
                        Locale.ROOT,
                        "47.%04d, -33.%04d",
                        3050 + 140 * gathering + random.nextInt(20),
                        1700 + 260 * ((gathering * 5) % 8) + random.nextInt(20)),
                25.0,
                PEOPLE.get(gathering % 2),
                "",
                "");
        boolean semaphoront = row.isSemaphoront() && row.parent() != null;
        boolean sexed =
                semaphoront && (row.stage().equals("male") || row.stage().equals("female"));
        String named = semaphoront && row.parent() != null ? row.parent() : row.id();
        List<Specimen.Determination> names = new ArrayList<>();
        if (ofRow == 3) {
            // Named in the field, and again at the desk.
            names.add(determination(named, "cf.", PEOPLE.get(1), day, "in the field"));
        }
        names.add(determination(named, ofRow == 5 ? "cf." : "", PEOPLE.get(0), day, "hand lens"));
        List<Specimen.Treatment> treatments = kind instanceof Crabs
                ? List.of(new Specimen.Treatment(Specimen.Treated.FLUID, "2025-11-20", ""))
                : List.of(new Specimen.Treatment(Specimen.Treated.DRIED, "2025-11-20", ""));
        return new Specimen(
                Slug.of(code),
                code,
                names,
                event,
                semaphoront && !sexed ? row.stage() : "",
                sexed ? row.stage() : "",
                treatments,
                "Marrowmere study room, drawer " + (1 + number / 12),
                "");
    }

    private static Specimen.Determination determination(
            String row, String qualifier, String by, String day, String how) {
        return new Specimen.Determination(row, qualifier, Specimen.Kind.DETERMINED, by, day, how, List.of());
    }

    private static Picture picture(Specimen specimen, Rendered drawn) {
        Scale scale = new Scale(drawn.bar().get(0), drawn.bar().get(1), drawn.barText(), "", "", TILT);
        return new Picture(
                "photo-" + specimen.id(),
                "0".repeat(64),
                "image/jpeg",
                drawn.width(),
                drawn.height(),
                "Specimen " + specimen.code() + " beside a scale bar of " + drawn.barText(),
                PEOPLE.get(0),
                "",
                "",
                "",
                specimen.id(),
                scale,
                Base64.getEncoder().encodeToString(drawn.jpeg()));
    }

    private void read(Study pictured, Specimen specimen, Rendered drawn, int number) {
        drawn.ends().forEach((name, ends) -> {
            String character = name.substring(name.indexOf(' ') + 1);
            String item = name.contains(" ") ? "spore " + name.substring(0, name.indexOf(' ')) : "";
            Mark mark = new Mark(
                    "photo-" + specimen.id(),
                    Mark.Shape.LINE,
                    List.of(ends.stream().map(this::unsteadily).toList()));
            add(pictured, specimen, character, item, mark, "", number % 2);
        });
        String slip = slip(number);
        if (!slip.isEmpty() && drawn.ends().containsKey("carapace-width")) {
            add(pictured, specimen, "carapace-width", "", null, slip, 1);
        }
        if (number == 24 && drawn.ends().containsKey("claw-height")) {
            // Read of the other claw, of another crab: usual by itself, but out of proportion.
            add(pictured, specimen, "claw-height", "", null, "31", 1);
        }
        if (number == 9 && drawn.ends().containsKey("fruit-length")) {
            // Read off an inch rule, and typed as millimetres.
            add(pictured, specimen, "fruit-length", "", null, "0.12", 1);
        }
    }

    private Point unsteadily(Point at) {
        return new Point(
                Math.max(0, Math.min(WIDTH, at.x() + UNSTEADY * random.nextGaussian())),
                Math.max(0, Math.min(HEIGHT, at.y() + UNSTEADY * random.nextGaussian())));
    }

    /** A decimal mark that was lost, in the second reading of a crab. */
    private static String slip(int number) {
        return number == 4 ? "486" : "";
    }

    private void add(
            Study pictured,
            Specimen specimen,
            String character,
            String item,
            @Nullable Mark mark,
            String typed,
            int person) {
        StudyCharacter of = study.character(character).orElseThrow();
        ReadingOutcome taken = mark == null ? TypedReading.of(typed, of) : MarkedReading.of(pictured, mark, of);
        ReadingOutcome.Value value = (ReadingOutcome.Value) taken;
        readings.add(new Reading(
                Slug.of("r " + specimen.id() + " " + character + " " + item + (mark == null ? " again" : "")),
                specimen.id(),
                character,
                item,
                value.typed(),
                value.value(),
                value.states(),
                value.uncertainty(),
                mark == null ? "caliper" : "picture",
                PEOPLE.get(person),
                "2025-11-14",
                mark,
                Reading.Standing.TAKEN,
                ""));
    }

    /** Ripe fruits of tussock plants under a lens. */
    private static final class Fruits implements Kind {
        @Override
        public List<String> needs() {
            return List.of("fruit-length");
        }

        @Override
        public String code() {
            return "MM 25";
        }

        @Override
        public Map<String, Double> sizes(SimulatedSpecimens of, String row) {
            return Map.of("fruit-length", of.size(row, "fruit-length"));
        }

        @Override
        public Rendered draw(Map<String, Double> sizes, long seed) {
            return SpecimenPicture.fruit(sizes.getOrDefault("fruit-length", 1.0), 0.16, WIDTH, HEIGHT, 0.8, seed);
        }

        @Override
        public int later(String row) {
            return WELL_MEASURED.contains(row) ? 12 : 0;
        }

        @Override
        public int count(int row) {
            return row < 3 ? 9 : 3;
        }
    }

    /** Spores of each mushroom in one mount. */
    private static final class Caps implements Kind {
        private static final int SPORES = 12;

        @Override
        public List<String> needs() {
            return List.of("spore-length", "spore-width");
        }

        @Override
        public String code() {
            return "SW 25-S";
        }

        @Override
        public Map<String, Double> sizes(SimulatedSpecimens of, String row) {
            double length = of.size(row, "spore-length");
            double width = of.size(row, "spore-width");
            Map<String, Double> sizes = new HashMap<>();
            for (int i = 1; i <= SPORES; i++) {
                double share = 1 + 0.03 * of.random.nextGaussian();
                sizes.put(i + " spore-length", length * share);
                sizes.put(i + " spore-width", width * share * (1 + 0.015 * of.random.nextGaussian()));
            }
            return sizes;
        }

        @Override
        public Rendered draw(Map<String, Double> sizes, long seed) {
            List<double[]> spores = IntStream.rangeClosed(1, SPORES)
                    .mapToObj(i -> new double[] {
                        sizes.getOrDefault(i + " spore-length", 0.008), sizes.getOrDefault(i + " spore-width", 0.005)
                    })
                    .toList();
            return SpecimenPicture.spores(spores, WIDTH, HEIGHT, 0.8, seed);
        }

        @Override
        public int count(int row) {
            return row < 2 ? 7 : 2;
        }
    }

    /** Shore crabs from above. */
    private static final class Crabs implements Kind {
        @Override
        public List<String> needs() {
            return List.of("carapace-width", "carapace-ratio", "claw-by-carapace");
        }

        @Override
        public String code() {
            return "SC 25";
        }

        @Override
        public Map<String, Double> sizes(SimulatedSpecimens of, String row) {
            double width = of.size(row, "carapace-width");
            return Map.of(
                    "carapace-width",
                    width,
                    "carapace-length",
                    width / of.size(row, "carapace-ratio"),
                    "claw-height",
                    width * of.size(row, "claw-by-carapace"));
        }

        @Override
        public Rendered draw(Map<String, Double> sizes, long seed) {
            return SpecimenPicture.crab(
                    sizes.getOrDefault("carapace-width", 1.0),
                    sizes.getOrDefault("carapace-length", 1.0),
                    sizes.getOrDefault("claw-height", 1.0),
                    5,
                    WIDTH,
                    HEIGHT,
                    0.8,
                    seed);
        }

        @Override
        public int count(int row) {
            return row == 0 ? 46 : row < 4 ? 14 : 4;
        }
    }
}
