package org.polyclave.study.checks;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.polyclave.files.table.TableReader;
import org.polyclave.study.compile.StudyCompiler;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyRow;

/** Slips put into made-up tables of 26 taxa and 16 characters, each into a table of its own, and what is found in clean ones. */
class SeededSlipsTest {
    private static final int TAXA = 26;
    private static final int TABLES = 20;
    private static final List<String> GENERA = List.of("Aldena", "Brimora", "Cavella", "Delmora", "Estrina");
    private static final String HEADER = """
            taxon,leaf length,leaf width,petal length,stem height,seed weight,petals,veins,bracts,leaf margin,leaf hairs,stem shape,flower colour,fruit shape,pod wings,root kind,sepal tip
            #type,length,length,length,length,mass,count,count,count,states,states,states,states,states,states,states,states
            #unit,mm,mm,mm,cm,mg,,,,,,,,,,,
            #organ,leaf,leaf,petal,stem,seed,flower,leaf,flower,leaf,leaf,stem,flower,fruit,pod,root,sepal
            """;
    private static final int FIRST_STATES = 8;
    private static final String[][] STATES = {
        {"toothed", "entire", "lobed"},
        {"present", "absent"},
        {"round", "angled"},
        {"white", "yellow", "purple", "green"},
        {"globose", "oblong", "flattened"},
        {"present", "absent"},
        {"fibrous", "tuberous", "creeping"},
        {"blunt", "pointed"}
    };
    private static final Set<FindingKind> SLIPS = EnumSet.of(
            FindingKind.OUT_OF_SCALE,
            FindingKind.ORDER_REVERSED,
            FindingKind.NUMBER_AGAINST_SCORE,
            FindingKind.TEXT_AGAINST_SCORE,
            FindingKind.NEAR_COPY,
            FindingKind.COPIED_TEXT,
            FindingKind.LABEL_IS_SIZE);

    /** A table before it is written: low and high ends, states, and a sentence or two for each taxon. */
    private static final class Draft {
        final String[] names = new String[TAXA];
        final double[][] low = new double[TAXA][FIRST_STATES];
        final double[][] high = new double[TAXA][FIRST_STATES];
        final String[][] states = new String[TAXA][STATES.length];
        final String[] texts = new String[TAXA];

        Draft(long seed) {
            Random random = new Random(seed);
            for (int i = 0; i < TAXA; i++) {
                String genus = GENERA.get(i % GENERA.size());
                names[i] = genus + " " + "nova" + (char) ('a' + i) + "ta";
                double of = Math.exp(0.25 * random.nextGaussian()) * (1 + 0.5 * (i % GENERA.size()));
                sizes(i, 0, 40 * of, random);
                sizes(i, 1, 9 * of, random);
                sizes(i, 2, 12 * of, random);
                sizes(i, 3, 350 * of, random);
                sizes(i, 4, 3 * of, random);
                counts(i, 5, 4 + random.nextInt(3), 0);
                counts(i, 6, 5 + random.nextInt(3), 1 + random.nextInt(2));
                counts(i, 7, 3 + random.nextInt(4), random.nextInt(3));
                for (int k = 0; k < STATES.length; k++) {
                    states[i][k] = STATES[k][random.nextInt(STATES[k].length)];
                }
                texts[i] = text(i);
            }
        }

        private void sizes(int i, int c, double middle, Random random) {
            double own = middle * Math.exp(0.15 * random.nextGaussian());
            low[i][c] = Math.round(own * 8) / 10.0;
            high[i][c] = Math.round(own * 12) / 10.0;
        }

        private void counts(int i, int c, int least, int more) {
            low[i][c] = least;
            high[i][c] = least + more;
        }

        /** As three authors write. */
        String text(int i) {
            double[] l = low[i];
            double[] h = high[i];
            String[] of = states[i];
            boolean hairs = "present".equals(of[1]);
            boolean wings = "present".equals(of[5]);
            return switch (i % 3) {
                case 0 ->
                    "%s grows in tufts. Leaves %s, %s–%s mm long, %s–%s mm wide, hairs %s. Stems %s, %s–%s cm tall. Flowers %s with %.0f petals, petals %s–%s mm long. Pods %s wings."
                            .formatted(
                                    names[i],
                                    of[0],
                                    l[0],
                                    h[0],
                                    l[1],
                                    h[1],
                                    of[1],
                                    of[2],
                                    l[3] / 10,
                                    h[3] / 10,
                                    of[3],
                                    l[5],
                                    l[2],
                                    h[2],
                                    wings ? "with" : "without");
                case 1 ->
                    "%s: a plant of ditches. Leaf margin %s; leaf length %s–%s mm, leaf width %s to %s mm; leaf hairs %s. Stem height %s–%s cm, stem %s. Petals %.0f, petal length %s–%s mm. Flower %s. Pod wings %s."
                            .formatted(
                                    names[i], of[0], l[0], h[0], l[1], h[1], of[1], l[3] / 10, h[3] / 10, of[2], l[5],
                                    l[2], h[2], of[3], of[5]);
                default ->
                    "The leaves of %s are %s, %s to %s mm long and %s to %s mm broad, %s. The stem is %s, and %s to %s cm high. There are %s petals, each %s to %s mm long; the flower is %s. The pod has %s."
                            .formatted(
                                    names[i],
                                    of[0],
                                    l[0],
                                    h[0],
                                    l[1],
                                    h[1],
                                    hairs ? "with hairs" : "hairless",
                                    of[2],
                                    l[3] / 10,
                                    h[3] / 10,
                                    List.of(
                                                    "zero", "one", "two", "three", "four", "five", "six", "seven",
                                                    "eight", "nine", "ten")
                                            .get((int) Math.min(10, l[5])),
                                    l[2],
                                    h[2],
                                    of[3],
                                    wings ? "broad wings" : "no wings");
            };
        }

        Study study() {
            StringBuilder table = new StringBuilder(HEADER);
            for (int i = 0; i < TAXA; i++) {
                List<String> cells = new ArrayList<>(List.of(names[i]));
                for (int c = 0; c < FIRST_STATES; c++) {
                    double unit = c == 3 ? 10 : 1;
                    String from = shown(low[i][c] / unit);
                    String to = shown(high[i][c] / unit);
                    cells.add(from.equals(to) ? from : from + "–" + to);
                }
                cells.addAll(Arrays.asList(states[i]));
                table.append(String.join(",", cells)).append('\n');
            }
            Study study = TableReader.read(table.toString().getBytes(StandardCharsets.UTF_8), "t.csv")
                    .study();
            List<StudyRow> rows = IntStream.range(0, TAXA)
                    .mapToObj(i -> study.rows().get(i).withDescription(texts[i]))
                    .toList();
            return study.withRows(rows);
        }

        private static String shown(double x) {
            return x == Math.rint(x) ? String.valueOf((long) x) : String.valueOf(Math.round(x * 100) / 100.0);
        }
    }

    private enum Slip {
        DECIMAL_POINT {
            @Override
            void into(Draft d, int i, Random random) {
                times(d, i, random.nextInt(5), random.nextBoolean() ? 10 : 0.1);
            }
        },
        UNIT {
            @Override
            void into(Draft d, int i, Random random) {
                times(d, i, random.nextInt(5), random.nextBoolean() ? 1000 : 0.01);
            }
        },
        INCH {
            @Override
            void into(Draft d, int i, Random random) {
                times(d, i, random.nextInt(5), random.nextBoolean() ? 25.4 : 1 / 25.4);
            }
        },
        COUNT_TYPED_TWICE {
            @Override
            void into(Draft d, int i, Random random) {
                int c = 5 + random.nextInt(3);
                d.low[i][c] *= 11;
                d.high[i][c] = d.low[i][c];
            }
        },
        SWAPPED {
            @Override
            void into(Draft d, int i, Random random) {
                int other = random.nextBoolean() ? 1 : 3;
                for (double[][] end : List.of(d.low, d.high)) {
                    double kept = end[i][0];
                    end[i][0] = end[i][other];
                    end[i][other] = kept;
                }
                d.texts[i] = d.text(i);
            }
        },
        COPIED_ROW {
            @Override
            void into(Draft d, int i, Random random) {
                int from = (i + 1) % TAXA;
                d.low[i] = d.low[from].clone();
                d.high[i] = d.high[from].clone();
                d.states[i] = d.states[from].clone();
                int changed = 1 + random.nextInt(2);
                for (int k = 0; k < changed; k++) {
                    int c = random.nextInt(STATES.length);
                    d.states[i][c] = another(d.states[i][c], STATES[c]);
                }
                d.texts[i] = "";
            }
        },
        NUMBER_IN_TEXT {
            @Override
            void into(Draft d, int i, Random random) {
                int c = random.nextInt(4);
                double[] kept = {d.low[i][c], d.high[i][c]};
                double wrong = random.nextBoolean() ? 1.8 : 0.5;
                d.low[i][c] = Math.round(10 * kept[0] * wrong) / 10.0;
                d.high[i][c] = Math.round(10 * kept[1] * wrong) / 10.0;
                d.texts[i] = d.text(i);
                d.low[i][c] = kept[0];
                d.high[i][c] = kept[1];
            }
        },
        DENIED_IN_TEXT {
            @Override
            void into(Draft d, int i, Random random) {
                int[] spoken = {0, 1, 2, 3, 5};
                int c = spoken[random.nextInt(spoken.length)];
                String kept = d.states[i][c];
                d.states[i][c] = another(kept, STATES[c]);
                d.texts[i] = d.text(i);
                d.states[i][c] = kept;
            }
        },
        COPIED_TEXT {
            @Override
            void into(Draft d, int i, Random random) {
                int from = (i + 7) % TAXA;
                d.texts[i] = d.texts[from].replace(d.names[from], d.names[i]);
            }
        },
        SIZE_AS_STATE {
            @Override
            void into(Draft d, int i, Random random) {
                int c = random.nextInt(STATES.length);
                String unit = List.of("lb", "mm", "in", "cm", "oz").get(random.nextInt(5));
                for (int k = 0; k < TAXA; k++) {
                    d.states[k][c] = (k % 3 + 1) * 10 + "-" + (k % 3 + 2) * 10 + " " + unit;
                }
            }
        };

        abstract void into(Draft d, int i, Random random);

        void times(Draft d, int i, int c, double factor) {
            d.low[i][c] *= factor;
            d.high[i][c] *= factor;
            d.texts[i] = d.text(i);
        }
    }

    private static String another(String state, String[] of) {
        return of[(List.of(of).indexOf(state) + 1) % of.length];
    }

    private static List<StudyFinding> slips(Study study) {
        return findings(study).stream().filter(f -> SLIPS.contains(f.kind())).toList();
    }

    private static List<StudyFinding> findings(Study study) {
        return StudyCheck.of(StudyCompiler.compile(study)).findings();
    }

    /** Whether something is told of the taxon that the slip is in, or of the character. */
    private static boolean isFound(Slip slip, Draft draft, int i) {
        Study study = draft.study();
        String row = study.rows().get(i).id();
        return slips(study).stream()
                .anyMatch(f -> f.row().equals(row)
                        || f.other().equals(row)
                        || (slip == Slip.SIZE_AS_STATE && f.kind() == FindingKind.LABEL_IS_SIZE));
    }

    @ParameterizedTest
    @EnumSource(Slip.class)
    void nineInTenAreFound(Slip slip) {
        List<Integer> missed = new ArrayList<>();
        for (int table = 1; table <= TABLES; table++) {
            Random random = new Random(1000L * slip.name().length() + table);
            Draft draft = new Draft(table);
            int i = random.nextInt(TAXA);
            slip.into(draft, i, random);
            if (!isFound(slip, draft, i)) {
                missed.add(table);
            }
        }
        assertThat(missed).as("tables in which %s was not found", slip).hasSizeLessThanOrEqualTo(TABLES / 10);
    }

    @Test
    void aCleanTableRaisesHardlyAnyAlarm() {
        int alarms = 0;
        for (int table = 1; table <= TABLES; table++) {
            List<StudyFinding> found = findings(new Draft(table).study()).stream()
                    .filter(f -> f.kind().isProbablyWrong())
                    .toList();
            assertThat(found).as("table %d", table).hasSizeLessThanOrEqualTo(4);
            alarms += found.size();
        }
        assertThat(alarms).as("in all tables").isLessThanOrEqualTo(TABLES);
    }

    @Test
    void whatIsTrivialStandsBehindTheSlips() {
        for (int table = 1; table <= TABLES; table++) {
            Draft draft = new Draft(table);
            int row = 1;
            for (Slip slip : EnumSet.complementOf(EnumSet.of(Slip.SIZE_AS_STATE))) {
                slip.into(draft, row, new Random(table));
                row += 2;
            }
            List<StudyFinding> first =
                    findings(draft.study()).stream().limit(10).toList();
            assertThat(first.stream().filter(f -> SLIPS.contains(f.kind())).count())
                    .as(
                            "of the first ten of table %d: %s",
                            table, first.stream().map(StudyFinding::key).collect(Collectors.joining(" ")))
                    .isGreaterThanOrEqualTo(8);
        }
    }
}
