package org.polyclave.files.nexus;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.files.source.CharacterSelection;
import org.polyclave.files.source.ImportedStudy;
import org.polyclave.files.source.ReadingWatch;
import org.polyclave.files.source.TextDecoder;
import org.polyclave.study.model.Slug;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.rules.Limits;
import org.polyclave.study.rules.Problem;
import org.polyclave.study.rules.StudyRules;
import org.polyclave.wording.rule.RuleWording;

/**
 * Reads TAXA, CHARACTERS and DATA blocks of NEXUS files: standard and continuous characters with their labels, interleaved
 * or not, with {@code (01)} for individuals that vary and <code>{01}</code> for one of these, missing, gap and matchchar;
 * of ASSUMPTIONS the types of characters. Other blocks are passed over. A missing entry is not scored, a gap is not
 * applicable.
 */
public final class NexusReader {
    private static final double MATRIX_READ = 0.6;

    private final List<Problem> problems = new ArrayList<>();
    private final List<String> taxa = new ArrayList<>();
    private final Map<String, Integer> taxonAt = new HashMap<>();
    private final List<NexusMatrix> matrices = new ArrayList<>();
    private final BitSet ordered = new BitSet();
    private final ReadingWatch watch;
    private int declaredTaxa = -1;
    private String supplement = "";
    private NexusOutline outline = new NexusOutline(0, Map.of());
    /** Characters that are read, numbered over all blocks from 0. */
    private BitSet wanted = new BitSet();
    /** Characters of the blocks before. */
    private int before;

    private NexusReader(ReadingWatch watch) {
        this.watch = watch;
    }

    public static ImportedStudy read(byte[] bytes, String fileName) {
        return read(bytes, fileName, "", ReadingWatch.NONE);
    }

    /** @param characters which characters are wanted, as {@link NexusSelection} reads it; empty: all */
    public static ImportedStudy read(byte[] bytes, String fileName, String characters, ReadingWatch watch) {
        NexusReader reader = new NexusReader(watch);
        String title = fileName.replaceAll("^.*[/\\\\]", "").replaceAll("\\.[^.]*$", "");
        if (bytes.length > Limits.TABLE_BYTES) {
            reader.problems.add(Problem.file("The file is larger than 25 MB. Split it, or import a study file."));
            return reader.result(title);
        }
        String text = TextDecoder.decode(bytes, reader.problems);
        reader.outline = NexusOutline.of(text);
        reader.choose(characters);
        NexusTokens in = new NexusTokens(text);
        try {
            reader.file(in);
        } catch (NexusTokens.Broken broken) {
            reader.problems.add(Problem.at(broken.line(), 0, "", String.valueOf(broken.getMessage())));
        }
        return reader.result(title.isBlank() ? "Imported matrix" : title);
    }

    /** Where too many are wanted, or some that are not there, none is read, and people are told to choose. */
    private void choose(String characters) {
        try {
            wanted = NexusSelection.of(characters.isBlank() ? "all" : characters, outline);
            if (wanted.cardinality() > Limits.CHARACTERS) {
                problems.add(Problem.file((characters.isBlank()
                                ? "The file has " + outline.characters() + " characters; at most "
                                : "These are " + wanted.cardinality() + " characters; at most ")
                        + Limits.CHARACTERS
                        + " can be read at once. Choose some of them: by numbers, such as 1-" + Limits.CHARACTERS
                        + ", or a set that the file names."));
                wanted = new BitSet();
            } else if (wanted.isEmpty() && outline.characters() > 0) {
                problems.add(Problem.file("No character is chosen. Choose at least one."));
            }
        } catch (NexusSelection.Wrong wrong) {
            problems.add(Problem.file("The choice of characters: " + wrong.getMessage()));
        }
    }

    private void matrix(NexusTokens in) {
        NexusMatrix matrix = NexusMatrix.read(in, this, before);
        before += matrix.count();
        matrices.add(matrix);
    }

    boolean isWanted(int character) {
        return wanted.get(character);
    }

    /** Called between rows. */
    void readUpTo(NexusTokens in) {
        watch.part(0, MATRIX_READ).at(in.position(), in.length());
    }

    private void file(NexusTokens in) {
        if (!in.take("#NEXUS")) {
            throw in.broken("The file must begin with #NEXUS.");
        }
        while (in.skip()) {
            String begin = in.command();
            if (!begin.equals("BEGIN")) {
                throw in.broken("'" + begin + "' is where a block should begin. Write BEGIN and the block's name.");
            }
            String block = in.command();
            in.take(";");
            switch (block) {
                case "TAXA" -> taxa(in);
                case "CHARACTERS", "DATA" -> matrix(in);
                case "ASSUMPTIONS" -> assumptions(in);
                case "POLYCLAVE" -> supplement(in);
                default -> passOver(in);
            }
        }
        if (matrices.isEmpty()) {
            throw in.broken("The file has neither a CHARACTERS nor a DATA block, so it holds no matrix.");
        }
    }

    static boolean isEnd(String command) {
        return command.equals("END") || command.equals("ENDBLOCK");
    }

    private void supplement(NexusTokens in) {
        for (String command = in.command(); !isEnd(command); command = in.command()) {
            if (command.equals("SUPPLEMENT")) {
                supplement = in.need("the supplement");
            }
            if (!command.equals(";")) {
                in.skipCommand();
            }
        }
        in.take(";");
    }

    private static void passOver(NexusTokens in) {
        while (true) {
            String command = in.command();
            if (isEnd(command)) {
                in.take(";");
                return;
            }
            if (!command.equals(";")) {
                in.skipCommand();
            }
        }
    }

    private void taxa(NexusTokens in) {
        while (true) {
            String command = in.command();
            switch (command) {
                case "END", "ENDBLOCK" -> {
                    in.take(";");
                    if (declaredTaxa >= 0 && declaredTaxa != taxa.size()) {
                        throw in.broken("NTAX says " + declaredTaxa + " taxa, but " + taxa.size()
                                + " are named. Correct NTAX or TAXLABELS.");
                    }
                    return;
                }
                case "DIMENSIONS" -> declaredTaxa = dimensions(in).getOrDefault("NTAX", -1);
                case "TAXLABELS" -> {
                    while (!in.take(";")) {
                        addTaxon(in.need("a taxon"), in);
                    }
                }
                case ";" -> {
                    // Somebody wrote one too many.
                }
                default -> in.skipCommand();
            }
        }
    }

    static Map<String, Integer> dimensions(NexusTokens in) {
        Map<String, Integer> found = new HashMap<>();
        while (!in.take(";")) {
            String name = in.command();
            if (in.take("=")) {
                String number = in.need("a number");
                if (!number.matches("\\d{1,7}")) {
                    throw in.broken("'" + number + "' after " + name + "= is not a number.");
                }
                found.put(name, Integer.parseInt(number));
            }
        }
        return found;
    }

    int addTaxon(String label, NexusTokens in) {
        Integer before = taxonAt.putIfAbsent(label.toLowerCase(Locale.ROOT), taxa.size());
        if (before != null) {
            throw in.broken("The taxon '" + label + "' is named twice. Rename one.");
        }
        if (taxa.size() >= Limits.TAXA) {
            throw in.broken("The file has more than " + Limits.TAXA + " taxa, which is the most that can be read.");
        }
        taxa.add(label);
        return taxa.size() - 1;
    }

    /** A taxon by label or number; empty if it is not known. */
    Optional<Integer> taxon(String label) {
        Integer at = taxonAt.get(label.toLowerCase(Locale.ROOT));
        if (at == null && label.matches("\\d{1,6}")) {
            int number = Integer.parseInt(label);
            return number >= 1 && number <= taxa.size() ? Optional.of(number - 1) : Optional.empty();
        }
        return Optional.ofNullable(at);
    }

    int taxonCount() {
        return taxa.size();
    }

    String taxonName(int taxon) {
        return taxa.get(taxon);
    }

    /** Of the assumptions only which characters are ordered. */
    private void assumptions(NexusTokens in) {
        while (true) {
            String command = in.command();
            if (isEnd(command)) {
                in.take(";");
                return;
            }
            if (command.equals("TYPESET")) {
                typeSet(in);
            } else if (!command.equals(";")) {
                in.skipCommand();
            }
        }
    }

    private void typeSet(NexusTokens in) {
        in.take("*");
        in.need("a name");
        in.take("=");
        boolean ord = false;
        int last = -1;
        while (!in.take(";")) {
            String token = in.need("';'");
            if (in.take(":")) {
                ord = token.equalsIgnoreCase("ord");
                continue;
            }
            String[] ends = token.split("-", 2);
            if (ord && ends[0].matches("[1-9]\\d{0,5}")) {
                last = ends.length > 1 && ends[1].matches("\\d{1,6}")
                        ? Integer.parseInt(ends[1])
                        : Integer.parseInt(ends[0]);
                for (int c = Integer.parseInt(ends[0]); c <= last; c++) {
                    ordered.set(c - 1);
                }
            }
        }
    }

    private ImportedStudy result(String title) {
        List<StudyRow> rows = new ArrayList<>();
        for (String taxon : taxa) {
            rows.add(StudyRow.of(taxon));
        }
        NexusStudy built = new NexusStudy(rows);
        boolean readable = problems.stream().noneMatch(Problem::blocking);
        for (NexusMatrix matrix : readable ? matrices : List.<NexusMatrix>of()) {
            built.add(matrix, ordered, watch.part(MATRIX_READ, 1));
        }
        if (matrices.stream().anyMatch(m -> m.format().saysBoth())) {
            problems.add(new Problem(
                    0,
                    0,
                    "",
                    "MISSING and GAP are the same sign in this file. Each was read as not scored; where the question makes"
                            + " no sense, score n/a.",
                    false));
        }
        String slug = Slug.of(title).isEmpty() ? "matrix" : Slug.of(title);
        Study study = built.study(slug, title);
        for (StudyRules.Violation violation : readable ? StudyRules.check(study) : List.<StudyRules.Violation>of()) {
            problems.add(Problem.file(RuleWording.sentence(violation)));
        }
        List<ImportedStudy.Column> columns = new ArrayList<>();
        for (int c = 0; c < study.characters().size(); c++) {
            columns.add(built.column(c));
        }
        if (columns.stream().anyMatch(c -> c.guessed() && c.type() == CharacterType.RATIO)) {
            problems.add(new Problem(
                    0,
                    0,
                    "",
                    "NEXUS does not say what continuous characters measure. Those without a unit in their name were taken as counts where all numbers are whole, otherwise as ratios.",
                    false));
        }
        ImportedStudy read = new ImportedStudy(study, problems, columns, List.of()).withSupplement(supplement);
        return outline.characters() > Limits.CHARACTERS || !outline.sets().isEmpty() ? read.choosing(choice()) : read;
    }

    private CharacterSelection choice() {
        List<CharacterSelection.CharacterSet> sets = new ArrayList<>();
        outline.sets().forEach((name, holds) -> {
            try {
                int size = NexusSelection.of(holds, outline).cardinality();
                sets.add(new CharacterSelection.CharacterSet(NexusSelection.written(name), size));
            } catch (NexusSelection.Wrong wrong) {
                // A set that names characters which are not there is not offered.
            }
        });
        return new CharacterSelection(outline.characters(), wanted.cardinality(), sets);
    }
}
