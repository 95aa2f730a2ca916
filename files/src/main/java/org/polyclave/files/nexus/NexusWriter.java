package org.polyclave.files.nexus;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.StringJoiner;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.compile.Shares;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.ScoreValue.Combination;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.model.Units;
import org.polyclave.study.notation.MonthNotation;
import org.polyclave.study.notation.NotationPrinter;

/**
 * Writes a study as NEXUS: taxa, a block of standard characters, a block of continuous ones (least and greatest value), and
 * which characters are ordered. What readers only mistake is left out; a state that words leave possible is in.
 */
public final class NexusWriter {
    private static final String SYMBOLS = "0123456789ABCDEFGHIJKLMNOPQRSTUV";
    private static final int MONTHS = 12;

    private final Study study;
    private final Map<String, Map<String, StudyScore>> scores;
    private final StringBuilder out = new StringBuilder("#NEXUS\n\n");

    private NexusWriter(Study study) {
        this.study = study;
        scores = study.scoresByRow();
    }

    /** @param supplement text that travels in a private block at the end; may be empty */
    public static String write(Study study, String supplement) {
        NexusWriter writer = new NexusWriter(study);
        writer.taxa();
        List<StudyCharacter> standard = new ArrayList<>();
        List<StudyCharacter> continuous = new ArrayList<>();
        for (StudyCharacter character : study.characters()) {
            (character.type().isNumeric() ? continuous : standard).add(character);
        }
        if (!standard.isEmpty()) {
            writer.standard(standard);
        }
        if (!continuous.isEmpty()) {
            writer.continuous(continuous);
        }
        writer.assumptions(standard);
        if (!supplement.isEmpty()) {
            writer.out
                    .append("\nBEGIN POLYCLAVE;\n  SUPPLEMENT ")
                    .append(quoted(supplement))
                    .append(";\nEND;\n");
        }
        return writer.out.toString();
    }

    private static String quoted(String name) {
        return name.matches("[A-Za-z][A-Za-z0-9]*") ? name : "'" + name.replace("'", "''") + "'";
    }

    private void taxa() {
        out.append("BEGIN TAXA;\n  DIMENSIONS NTAX=")
                .append(study.rows().size())
                .append(";\n  TAXLABELS\n");
        study.rows().forEach(r -> out.append("    ").append(quoted(r.name())).append('\n'));
        out.append("  ;\nEND;\n\n");
    }

    private static List<String> states(StudyCharacter character) {
        return character.type() == CharacterType.MONTHS
                ? IntStream.rangeClosed(1, MONTHS)
                        .mapToObj(m -> MonthNotation.print(List.of(m)))
                        .toList()
                : character.states().stream()
                        .map(StudyCharacter.StudyState::label)
                        .toList();
    }

    private void standard(List<StudyCharacter> characters) {
        int most = characters.stream().mapToInt(c -> states(c).size()).max().orElse(0);
        begin(
                characters.size(),
                "DATATYPE=STANDARD SYMBOLS=\"" + SYMBOLS.substring(0, Math.max(2, most)) + "\" MISSING=? GAP=-");
        StringJoiner labels = new StringJoiner(",\n    ", "  CHARSTATELABELS\n    ", "\n  ;\n");
        for (int c = 0; c < characters.size(); c++) {
            String names =
                    states(characters.get(c)).stream().map(NexusWriter::quoted).collect(Collectors.joining(" "));
            labels.add((c + 1) + " " + quoted(characters.get(c).label()) + (names.isEmpty() ? "" : " / " + names));
        }
        out.append(labels);
        matrix(characters, "");
    }

    private void continuous(List<StudyCharacter> characters) {
        begin(characters.size(), "DATATYPE=CONTINUOUS ITEMS=(MIN MAX) MISSING=?");
        StringJoiner labels = new StringJoiner("\n    ", "  CHARLABELS\n    ", "\n  ;\n");
        for (StudyCharacter character : characters) {
            labels.add(quoted(
                    character.unit().isEmpty()
                            ? character.label()
                            : character.label() + " (" + character.unit() + ")"));
        }
        out.append(labels);
        matrix(characters, " ");
    }

    private void begin(int characters, String format) {
        out.append("BEGIN CHARACTERS;\n  DIMENSIONS NCHAR=")
                .append(characters)
                .append(";\n  FORMAT ")
                .append(format)
                .append(";\n");
    }

    private void matrix(List<StudyCharacter> characters, String separator) {
        out.append("  MATRIX\n");
        for (StudyRow row : study.rows()) {
            out.append("    ").append(quoted(row.name())).append(' ');
            for (StudyCharacter character : characters) {
                StudyScore score = scores.getOrDefault(row.id(), Map.of()).get(character.id());
                out.append(separator).append(entry(score, character));
            }
            out.append('\n');
        }
        out.append("  ;\nEND;\n\n");
    }

    private static String entry(@Nullable StudyScore score, StudyCharacter character) {
        ScoreValue value = score == null ? new ScoreValue.Unknown() : score.value();
        if (value instanceof ScoreValue.Range range) {
            double factor = Units.factor(character.type(), character.unit()).orElse(1.0);
            return range.max() == null
                    ? "?"
                    : "(" + NotationPrinter.number(range.min() / factor) + " "
                            + NotationPrinter.number(range.max() / factor) + ")";
        }
        if (value instanceof ScoreValue.NotApplicable) {
            return character.type().isNumeric() ? "?" : "-";
        }
        if (value instanceof ScoreValue.Months months) {
            return bracketed(months.months().stream().map(m -> m - 1).toList(), false);
        }
        if (value instanceof ScoreValue.Any && !states(character).isEmpty()) {
            List<Integer> all =
                    IntStream.range(0, states(character).size()).boxed().toList();
            return bracketed(all, true);
        }
        return value instanceof ScoreValue.States states
                ? bracketed(shown(states, character), states.combination() == Combination.EITHER)
                : "?";
    }

    /** States that the organism may show, those that are named first. */
    private static List<Integer> shown(ScoreValue.States states, StudyCharacter character) {
        double[] shares = Shares.of(states, character);
        List<Integer> shown = new ArrayList<>();
        for (ScoreValue.Shown one : states.shown()) {
            if (one.frequency() != ScoreValue.Frequency.MISTAKEN) {
                shown.add(character.indexOf(one.state()));
            }
        }
        for (int s = 0; s < shares.length; s++) {
            if (shares[s] > 0 && !shown.contains(s)) {
                shown.add(s);
            }
        }
        return shown;
    }

    private static String bracketed(List<Integer> states, boolean either) {
        String symbols =
                states.stream().map(s -> String.valueOf(SYMBOLS.charAt(s))).collect(Collectors.joining());
        return states.size() == 1 ? symbols : either ? "{" + symbols + "}" : "(" + symbols + ")";
    }

    private void assumptions(List<StudyCharacter> standard) {
        String ordered = IntStream.range(0, standard.size())
                .filter(c -> standard.get(c).type() == CharacterType.ORDERED)
                .mapToObj(c -> String.valueOf(c + 1))
                .collect(Collectors.joining(" "));
        if (!ordered.isEmpty()) {
            out.append("BEGIN ASSUMPTIONS;\n  TYPESET * kinds = ord: ")
                    .append(ordered)
                    .append(";\nEND;\n");
        }
    }
}
