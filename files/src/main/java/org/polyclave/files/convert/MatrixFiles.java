package org.polyclave.files.convert;

import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import org.polyclave.files.nexus.NexusReader;
import org.polyclave.files.nexus.NexusWriter;
import org.polyclave.files.source.ImportedStudy;
import org.polyclave.files.source.ReadingWatch;
import org.polyclave.files.study.StudyJson;
import org.polyclave.files.table.TableChoices;
import org.polyclave.files.table.TableReader;
import org.polyclave.files.table.TableWriter;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyScope;
import org.polyclave.study.rules.Problem;

/** Matrices as files: the format is told by the name's ending. */
public final class MatrixFiles {
    private MatrixFiles() {}

    /** A format of matrices. */
    public enum Format {
        STUDY("polyclave.json", "application/json"),
        /** Taxa only; before the tables, whose endings its own ends in. */
        DARWIN_CORE("taxa.csv", "text/csv; charset=utf-8"),
        CSV("csv", "text/csv; charset=utf-8"),
        TSV("tsv", "text/tab-separated-values; charset=utf-8"),
        XLSX("xlsx", "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"),
        NEXUS("nex", "text/plain; charset=utf-8");

        private final String ending;
        private final String mediaType;

        Format(String ending, String mediaType) {
            this.ending = ending;
            this.mediaType = mediaType;
        }

        public String ending() {
            return ending;
        }

        public String mediaType() {
            return mediaType;
        }

        /** The format of a file; empty if its ending tells none. */
        public static Optional<Format> of(String fileName) {
            String name = fileName.toLowerCase(Locale.ROOT);
            for (Format format : values()) {
                if (name.endsWith("." + format.ending)) {
                    return Optional.of(format);
                }
            }
            return name.endsWith(".json")
                    ? Optional.of(STUDY)
                    : name.endsWith(".nexus") || name.endsWith(".nxs") ? Optional.of(NEXUS) : Optional.empty();
        }
    }

    /** Endings of the formats, for sentences. */
    public static String known() {
        return ".polyclave.json, .csv, .tsv, .xlsx, .nex or .taxa.csv";
    }

    /** Reads a matrix, with its supplement if it has one; a name without a known ending is taken for a text table. */
    public static ImportedStudy read(byte[] bytes, String fileName) {
        return read(bytes, fileName, "");
    }

    /** @param sheetName sheet of a workbook; empty: the first that holds something */
    public static ImportedStudy read(byte[] bytes, String fileName, String sheetName) {
        return read(bytes, fileName, sheetName, TableChoices.NONE);
    }

    /** @param choices what people decided of a table when they saw it read before */
    public static ImportedStudy read(byte[] bytes, String fileName, String sheetName, TableChoices choices) {
        return read(bytes, fileName, sheetName, choices, ReadingWatch.NONE);
    }

    /**
     * @param watch told how far tables and NEXUS files are read
     * @throws CancellationException if the watch stops it
     */
    public static ImportedStudy read(
            byte[] bytes, String fileName, String sheetName, TableChoices choices, ReadingWatch watch) {
        ImportedStudy plain = plain(bytes, fileName, sheetName, choices, watch);
        if (plain.supplement().isEmpty() || !plain.usable()) {
            return plain;
        }
        Supplemented.Result whole = Supplemented.of(plain.study(), plain.supplement());
        return plain.supplemented(whole.study(), whole.notices());
    }

    private static ImportedStudy plain(
            byte[] bytes, String fileName, String sheetName, TableChoices choices, ReadingWatch watch) {
        return switch (Format.of(fileName).orElse(Format.CSV)) {
            case STUDY -> study(bytes);
            case NEXUS -> NexusReader.read(bytes, fileName, choices.characters(), watch);
            case CSV, TSV, XLSX, DARWIN_CORE -> TableReader.read(bytes, fileName, sheetName, choices, watch);
        };
    }

    private static ImportedStudy study(byte[] bytes) {
        StudyJson.ReadStudy read = StudyJson.read(bytes);
        Study study = read.study();
        List<Problem> problems = read.problems().stream().map(Problem::file).toList();
        if (study == null) {
            Study none = new Study("", "", StudyScope.EMPTY, List.of(), List.of(), List.of(), List.of());
            return new ImportedStudy(none, problems, List.of(), List.of());
        }
        Map<String, Integer> scored = new HashMap<>();
        study.scores().forEach(s -> scored.merge(s.character(), 1, Integer::sum));
        List<ImportedStudy.Column> columns = study.characters().stream()
                .map(c -> column(c, scored.getOrDefault(c.id(), 0)))
                .toList();
        return new ImportedStudy(study, problems, columns, List.of());
    }

    private static ImportedStudy.Column column(StudyCharacter character, int scored) {
        List<String> states = character.states().stream()
                .map(StudyCharacter.StudyState::label)
                .toList();
        return new ImportedStudy.Column(
                0,
                character.label(),
                character.type(),
                character.unit(),
                character.organ(),
                states,
                scored,
                false,
                false);
    }

    /** Writes a matrix; {@code layout} is for tables. */
    public static byte[] write(Study study, Format format, TableWriter.Layout layout) {
        return write(study, format, layout, "");
    }

    /**
     * Writes a matrix with a supplement of what the format cannot say, so that it reads back here without loss. A list of taxa
     * takes nothing along.
     */
    public static byte[] writeWhole(Study study, Format format, TableWriter.Layout layout) {
        if (format == Format.STUDY || format == Format.DARWIN_CORE) {
            return write(study, format, layout, "");
        }
        Study read = plain(
                        write(study, format, layout, ""),
                        study.title() + "." + format.ending(),
                        "",
                        TableChoices.NONE,
                        ReadingWatch.NONE)
                .study();
        return write(study, format, layout, Supplement.between(study, read));
    }

    private static byte[] write(Study study, Format format, TableWriter.Layout layout, String supplement) {
        return switch (format) {
            case STUDY -> utf8(StudyJson.write(study));
            case DARWIN_CORE -> utf8(TableWriter.darwinCore(study));
            case CSV -> utf8(TableWriter.write(study, layout, ',', supplement));
            case TSV -> utf8(TableWriter.write(study, layout, '\t', supplement));
            case XLSX -> TableWriter.workbook(study, layout, supplement);
            case NEXUS -> utf8(NexusWriter.write(study, supplement));
        };
    }

    private static byte[] utf8(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }
}
