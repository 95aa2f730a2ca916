package org.polyclave.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.Set;
import java.util.SortedSet;
import java.util.TreeSet;
import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.polyclave.core.key.Atoms;
import org.polyclave.core.key.Key;
import org.polyclave.core.key.KeyGenerator;
import org.polyclave.core.key.KeyObjective;
import org.polyclave.core.key.KeyOptions;
import org.polyclave.core.key.KeyOutcome;
import org.polyclave.core.key.KeyResult;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.run.CancelSignal;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.compile.KeyContext;
import org.polyclave.study.compile.StudyCompiler;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.Units;
import org.polyclave.wording.key.KeyView;
import org.polyclave.wording.key.KeyWording;

/**
 * Every lead of every demo key, in every context and both choices of words, is one that an author would write. What is looked
 * for shares nothing with what makes the leads: words are cut short by length, rows in play are the generator's.
 */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
final class LeadsTest {
    private static final Pattern BARE = Pattern.compile("\\byes\\b|\\bno\\b(?=$|[,;)]| or\\b)|\\bthere\\b");
    private static final Pattern NUMBER = Pattern.compile("\\d+(?:\\.\\d+)?");
    private static final double NOISE = 1e-9;
    private static final List<String> IN_WORDS =
            List.of("none", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten");
    private static final Set<String> ENDINGS = Set.of("", "s", "es", "e", "d", "ed", "ing", "ly", "y", "al", "ness");
    private static final Set<String> SMALL = Set.of("with", "than", "from", "more", "less", "that", "long", "they");

    private final SortedSet<String> faults = new TreeSet<>();
    private final SortedSet<String> written = new TreeSet<>();
    private final List<String> unproven = new ArrayList<>();
    private final List<String> beaten = new ArrayList<>();
    private int leads;
    private int keys;
    /** Couplets of more than two leads. */
    private int several;

    @Test
    void noLeadSaysAWordTwiceABareYesOrWhatNoRowShows() {
        assertThat(leads).isGreaterThan(1_000);
        assertThat(faults).isEmpty();
    }

    @Test
    void everyKeyIsProven() {
        assertThat(keys).isGreaterThan(200);
        assertThat(several).isGreaterThan(20);
        assertThat(unproven).isEmpty();
    }

    @BeforeAll
    void everyKey() {
        for (CompiledStudy study :
                DemoStudies.all().stream().map(StudyCompiler::compile).toList()) {
            for (KeyContext context : contexts(study)) {
                for (KeyObjective objective : List.of(KeyObjective.FEWEST, KeyObjective.CAUTIOUS)) {
                    key(context.apply(study), objective, 2);
                }
            }
            for (int most : List.of(3, 8)) {
                key(KeyContext.EVERYTHING.apply(study), KeyObjective.FEWEST, most);
                key(KeyContext.EVERYTHING.apply(study), KeyObjective.CAUTIOUS, most);
            }
        }
    }

    /** What readers of the documents see is what the product says: where it differs, copy what the test wrote. */
    @Test
    void sixtyLeadsAreWrittenOut() throws IOException {
        List<String> drawn = new ArrayList<>(written);
        Collections.shuffle(drawn, new Random(60));
        String page = """
                # Sixty leads

                Drawn at random from all leads of the demo keys (`LeadsTest`): every study, month, part and means, shortest and most
                cautious keys. How they are made is in [computation.md](computation.md#leads-in-words).

                | technical | plain |
                |---|---|
                """ + String.join("\n", drawn.subList(0, 60)) + "\n";
        Path here = Path.of("target", "leads.md");
        Files.writeString(here, page);
        assertThat(Path.of("..", "docs", "leads.md"))
                .as("copy demo/target/leads.md to docs/leads.md")
                .hasContent(page);
    }

    /**
     * Any month and each month, with everything and by eye; with a ruler, and each part of the organism alone. With
     * {@code -Dpolyclave.contexts=all}, each month with every set of equipment.
     */
    private static List<KeyContext> contexts(CompiledStudy study) {
        List<KeyContext> contexts = new ArrayList<>();
        if ("all".equals(System.getProperty("polyclave.contexts"))) {
            List<String> means = study.characters().stream()
                    .map(c -> c.method().toLowerCase(Locale.ROOT))
                    .filter(m -> !m.isEmpty() && !m.equals("eye"))
                    .distinct()
                    .toList();
            for (int set = 0; set < 1 << means.size(); set++) {
                Set<String> held = new TreeSet<>(Set.of("eye"));
                for (int m = 0; m < means.size(); m++) {
                    held.addAll((set >> m & 1) == 1 ? Set.of(means.get(m)) : Set.of());
                }
                for (int month = 0; month <= 12; month++) {
                    contexts.add(new KeyContext(month == 0 ? Set.of() : Set.of(month), Set.of(), held));
                }
            }
        }
        contexts.add(new KeyContext(new TreeSet<>(), Set.of(), Set.of()));
        IntStream.rangeClosed(1, 12).forEach(m -> {
            contexts.add(new KeyContext(new TreeSet<>(Set.of(m)), Set.of(), Set.of()));
            contexts.add(new KeyContext(new TreeSet<>(Set.of(m)), Set.of(), Set.of("eye")));
        });
        contexts.add(new KeyContext(new TreeSet<>(), Set.of(), Set.of("eye", "ruler")));
        study.characters().stream()
                .map(StudyCharacter::organ)
                .distinct()
                .forEach(o -> contexts.add(new KeyContext(new TreeSet<>(), Set.of(o), Set.of())));
        return contexts;
    }

    @Test
    void noKeyIsShorterThanTheShortestOrSaferThanTheCautious() {
        assertThat(beaten).isEmpty();
    }

    private static double harm(KeyResult.Compared key) {
        return key.trained().dangerousWrong() + key.novice().dangerousWrong();
    }

    private void compare(CompiledStudy study, List<KeyResult.Compared> keys) {
        KeyResult.Compared shortest = of(keys, KeyObjective.FEWEST);
        KeyResult.Compared cautious = of(keys, KeyObjective.CAUTIOUS);
        for (KeyResult.Compared key : keys) {
            if (key.expectedSteps() < shortest.expectedSteps() - NOISE || harm(key) < harm(cautious) - NOISE) {
                beaten.add(study.study().title() + ": " + key);
            }
        }
    }

    private static KeyResult.Compared of(List<KeyResult.Compared> keys, KeyObjective objective) {
        return keys.stream().filter(k -> k.objective() == objective).findFirst().orElseThrow();
    }

    private void key(CompiledStudy study, KeyObjective objective, int most) {
        KeyOutcome outcome = new KeyGenerator()
                .generate(
                        study.matrix(),
                        KeyOptions.DEFAULT
                                .withNodeBudget(40)
                                .withObjective(objective)
                                .withLeads(most),
                        CancelSignal.NEVER);
        if (!(outcome instanceof KeyOutcome.Generated generated)) {
            return;
        }
        KeyResult result = generated.result();
        keys++;
        compare(study, result.compared());
        if (!result.proof().proven()) {
            unproven.add(study.study().title() + ": " + KeyWording.failures(study, result.proof()));
        }
        KeyView view = KeyWording.word(study, result);
        for (int k = 0; k < view.couplets().size(); k++) {
            List<Integer> rows = result.reasons().get(k).rows();
            Key.Couplet couplet = result.key().couplets().get(k);
            List<KeyView.LeadView> pair = view.couplets().get(k).leads();
            several += pair.size() > 2 ? 1 : 0;
            for (int l = 0; l < pair.size(); l++) {
                leads++;
                written.add("| " + pair.get(l).text() + " | " + pair.get(l).plainText() + " |");
                List<KeyView.StatementView> said = pair.get(l).statements();
                for (int s = 0; s < said.size(); s++) {
                    Key.Statement statement =
                            couplet.leads().get(l).statements().get(s);
                    KeyView.StatementView other =
                            pair.get((l + 1) % pair.size()).statements().get(s);
                    check(study, statement, rows, said.get(s).text(), other.text());
                    check(study, statement, rows, said.get(s).plainText(), other.plainText());
                }
            }
        }
    }

    private void check(CompiledStudy study, Key.Statement statement, List<Integer> rows, String text, String other) {
        StudyCharacter character = study.characters().get(statement.character());
        String clause = text.replaceAll(" \\([^)]*\\)", "");
        for (String part : clause.split(" or |, ")) {
            List<String> words = words(part);
            for (int i = 0; i < words.size(); i++) {
                for (int j = 0; j < i; j++) {
                    if (alike(words.get(i), words.get(j))) {
                        faults.add("twice: " + text);
                    }
                }
            }
        }
        if (BARE.matcher(clause.toLowerCase(Locale.ROOT)).find()) {
            faults.add("bare: " + text);
        }
        if (clause.split(" or ", -1).length > 4) {
            faults.add("too many: " + text);
        }
        if (statement.atoms() instanceof Atoms.Interval) {
            double factor = Units.factor(character.type(), character.unit()).orElse(1.0);
            double read = study.matrix().character(statement.character()).margin() + 1e-9;
            for (double number : numbers(clause)) {
                Predicate<Cell> shows = cell -> cell instanceof Cell.Numeric range
                        && number * factor >= range.min() - read
                        && number * factor <= range.max() + read;
                if (rows.stream()
                        .map(r -> study.matrix().cell(r, statement.character()))
                        .noneMatch(shows)) {
                    faults.add("not shown: " + text);
                }
            }
            if (!clause.contains(character.unit().replace("um", "µm"))) {
                faults.add("unit: " + text);
            }
        }
        // A clause may begin with its number: then what is counted has to be the same.
        if (!parallel(clause).equals(parallel(other))) {
            faults.add("not parallel: " + text + " / " + other);
        }
    }

    /** How a clause begins, after the number that it may begin with. */
    private static String parallel(String clause) {
        return Pattern.compile(" ")
                .splitAsStream(clause.toLowerCase(Locale.ROOT))
                .filter(w -> !w.matches("[\\d–.]+|no|or|to|up|more|usually") && !IN_WORDS.contains(w))
                .findFirst()
                .orElse("")
                .replaceAll("s$", "");
    }

    private static List<Double> numbers(String clause) {
        List<Double> numbers = new ArrayList<>();
        Matcher digits = NUMBER.matcher(clause);
        while (digits.find()) {
            numbers.add(Double.parseDouble(digits.group()));
        }
        for (String word : clause.split("[^\\p{L}]+")) {
            if (IN_WORDS.contains(word)) {
                numbers.add((double) IN_WORDS.indexOf(word));
            }
        }
        return numbers;
    }

    private static List<String> words(String part) {
        return Pattern.compile("[^\\p{L}]+")
                .splitAsStream(part.toLowerCase(Locale.ROOT))
                .filter(w -> w.length() > 3 && !SMALL.contains(w))
                .toList();
    }

    /** Of one beginning, three letters and more, and only an ending each; "un" before it does not count. */
    private static boolean alike(String first, String second) {
        String p = first.startsWith("un") ? first.substring(2) : first;
        String q = second.startsWith("un") ? second.substring(2) : second;
        int same = 0;
        while (same < Math.min(p.length(), q.length()) && p.charAt(same) == q.charAt(same)) {
            same++;
        }
        return same >= 3 && ENDINGS.contains(p.substring(same)) && ENDINGS.contains(q.substring(same));
    }
}
