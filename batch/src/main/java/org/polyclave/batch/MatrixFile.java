package org.polyclave.batch;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import org.polyclave.formats.study.CompiledStudy;
import org.polyclave.formats.study.Study;
import org.polyclave.formats.study.StudyCompiler;
import org.polyclave.formats.study.StudyJson;
import org.polyclave.formats.table.ImportedStudy;
import org.polyclave.formats.table.Limits;
import org.polyclave.formats.table.Problem;
import org.polyclave.formats.table.WideTableReader;

/** Reads a matrix from a study file or a wide table. */
final class MatrixFile {
    private MatrixFile() {}

    static CompiledStudy read(Path file, PrintWriter notices) throws IOException {
        String name =
                file.getFileName() == null ? "" : file.getFileName().toString().toLowerCase(Locale.ROOT);
        if (name.endsWith(".csv") || name.endsWith(".tsv")) {
            return compiled(table(file, notices));
        }
        if (name.endsWith(".json")) {
            StudyJson.ReadStudy read = StudyJson.read(bytes(file, Limits.STUDY_BYTES));
            Study study = read.study();
            if (study == null) {
                throw new CannotRead(read.problems());
            }
            return compiled(study);
        }
        throw new CannotRead(
                List.of("'" + file + "' is no matrix that can be read. Use .polyclave.json, .csv or .tsv."));
    }

    private static Study table(Path file, PrintWriter notices) throws IOException {
        ImportedStudy read = WideTableReader.read(
                bytes(file, Limits.TABLE_BYTES), file.getFileName().toString());
        if (!read.usable()) {
            throw new CannotRead(read.problems().stream()
                    .filter(Problem::blocking)
                    .map(Problem::sentence)
                    .toList());
        }
        read.problems().forEach(p -> notices.println(p.sentence()));
        String guessed = read.columns().stream()
                .filter(ImportedStudy.Column::guessed)
                .map(c -> c.character() + ": " + c.type().name().toLowerCase(Locale.ROOT))
                .collect(Collectors.joining("; "));
        if (!guessed.isEmpty()) {
            notices.println("No #type given; taken as " + guessed + ".");
        }
        return read.study();
    }

    private static CompiledStudy compiled(Study study) {
        return StudyCompiler.compile(study);
    }

    static byte[] bytes(Path file, long limit) throws IOException {
        try {
            if (Files.size(file) > limit) {
                throw new CannotRead(List.of("'" + file + "' is larger than " + limit / (1024 * 1024) + " MB."));
            }
            return Files.readAllBytes(file);
        } catch (NoSuchFileException missing) {
            throw new CannotRead(List.of("There is no file '" + file + "'."));
        }
    }
}
