package org.polyclave.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import org.polyclave.files.convert.MatrixFiles;
import org.polyclave.files.convert.MatrixFiles.Format;
import org.polyclave.files.source.ImportedStudy;
import org.polyclave.files.table.TableChoices;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.compile.StudyCompiler;
import org.polyclave.study.model.Study;
import org.polyclave.study.rules.Limits;
import org.polyclave.study.rules.Problem;

/** Reads a matrix from a file of any format. */
final class MatrixFile {
    private MatrixFile() {}

    static CompiledStudy read(Path file, PrintWriter notices) throws IOException {
        return StudyCompiler.compile(study(file, notices));
    }

    static Study study(Path file, PrintWriter notices) throws IOException {
        return study(file, "", notices);
    }

    /** @param characters which characters of a NEXUS file are wanted; empty: all */
    static Study study(Path file, String characters, PrintWriter notices) throws IOException {
        String name = file.getFileName() == null ? "" : file.getFileName().toString();
        Format format = Format.of(name)
                .orElseThrow(() -> new CannotRead(
                        List.of("'" + file + "' is not a matrix that can be read. Use " + MatrixFiles.known() + ".")));
        long limit = format == Format.STUDY ? Limits.STUDY_BYTES : Limits.TABLE_BYTES;
        ImportedStudy read = MatrixFiles.read(bytes(file, limit), name, "", TableChoices.NONE.of(characters));
        if (!read.usable()) {
            throw new CannotRead(read.problems().stream()
                    .filter(Problem::blocking)
                    .map(Problem::sentence)
                    .toList());
        }
        read.problems().forEach(p -> notices.println(p.sentence()));
        String guessed = read.columns().stream()
                .filter(ImportedStudy.Column::guessed)
                .map(MatrixFile::takenAs)
                .collect(Collectors.joining("; "));
        if (!guessed.isEmpty()) {
            notices.println("No #type given; taken as " + guessed + ".");
        }
        return read.study();
    }

    /** Nobody can be asked here for a unit that nothing names, so it is told. */
    private static String takenAs(ImportedStudy.Column column) {
        String unit = column.unit().isEmpty() ? "" : " in " + column.unit();
        return column.character() + ": " + column.type().name().toLowerCase(Locale.ROOT) + unit
                + (column.open() ? " (not all numbers have a unit: write '#unit', or the unit into the heading)" : "");
    }

    /** A regular file appears whole or not at all. A device, a pipe or a link is written to, never replaced. */
    static void write(Path file, byte[] bytes) throws IOException {
        Path target = file.toAbsolutePath();
        if (Files.exists(target, LinkOption.NOFOLLOW_LINKS)
                && !Files.isRegularFile(target, LinkOption.NOFOLLOW_LINKS)) {
            Files.write(target, bytes);
            return;
        }
        // Not a temporary file, which only its owner may read: the file is to have the usual permissions.
        Path temporary = target.resolveSibling("." + target.getFileName() + ".part");
        try {
            Files.write(temporary, bytes);
            Files.move(temporary, target, StandardCopyOption.REPLACE_EXISTING);
        } finally {
            Files.deleteIfExists(temporary);
        }
    }

    static byte[] bytes(Path file, long limit) throws IOException {
        try {
            if (Files.size(file) > limit) {
                throw new CannotRead(List.of("'" + file + "' is larger than " + limit / (1024 * 1024) + " MB."));
            }
            return Files.readAllBytes(file);
        } catch (NoSuchFileException missing) {
            throw new CannotRead(List.of("The file '" + file + "' was not found."));
        }
    }
}
