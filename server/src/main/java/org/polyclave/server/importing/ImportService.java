package org.polyclave.server.importing;

import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import org.polyclave.formats.study.Study;
import org.polyclave.formats.study.StudyJson;
import org.polyclave.formats.table.ImportedStudy;
import org.polyclave.formats.table.Problem;
import org.polyclave.formats.table.TableReader;
import org.polyclave.server.account.SignedIn;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.study.StudyStore;
import org.springframework.stereotype.Service;

/** Reads uploaded matrices: first a preview that changes nothing, then a new study or nothing. */
@Service
public class ImportService {
    private final StudyStore store;

    ImportService(StudyStore store) {
        this.store = store;
    }

    /**
     * What an upload was understood as.
     *
     * @param usable whether it can be made into a study
     */
    public record Preview(
            boolean usable,
            String title,
            int rows,
            int characters,
            int scores,
            List<ImportedStudy.Column> columns,
            List<String> rowNames,
            List<Problem> problems) {}

    public Preview preview(byte[] bytes, String fileName) {
        if (isStudyFile(fileName)) {
            StudyJson.ReadStudy read = StudyJson.read(bytes);
            List<Problem> problems = read.problems().stream()
                    .map(p -> new Problem(0, 0, "", p, true))
                    .toList();
            Study study = read.study();
            return study == null
                    ? new Preview(false, fileName, 0, 0, 0, List.of(), List.of(), problems)
                    : preview(study, problems, columns(study));
        }
        ImportedStudy read = TableReader.read(bytes, fileName);
        return preview(read.study(), read.problems(), read.columns());
    }

    private static Preview preview(Study study, List<Problem> problems, List<ImportedStudy.Column> columns) {
        boolean usable = problems.stream().noneMatch(Problem::blocking);
        List<String> names = study.rows().stream().map(r -> r.name()).toList();
        return new Preview(
                usable,
                study.title(),
                study.rows().size(),
                study.characters().size(),
                study.scores().size(),
                columns,
                names,
                problems);
    }

    private static List<ImportedStudy.Column> columns(Study study) {
        return study.characters().stream()
                .map(c -> new ImportedStudy.Column(
                        0,
                        c.label(),
                        c.type(),
                        c.unit(),
                        c.organ(),
                        c.states().stream().map(s -> s.label()).toList(),
                        (int) study.scores().stream()
                                .filter(s -> s.character().equals(c.id()))
                                .count(),
                        false))
                .toList();
    }

    /** Makes a new study of the upload, or nothing. */
    public String create(byte[] bytes, String fileName, @Nullable String title, SignedIn who) {
        Study study = read(bytes, fileName);
        String chosen = title == null || title.isBlank() ? study.title() : title.strip();
        return store.create(
                new Study(
                        study.slug(),
                        chosen,
                        study.scope(),
                        study.rows(),
                        study.nearButOutside(),
                        study.characters(),
                        study.scores()),
                who.account().id());
    }

    private static Study read(byte[] bytes, String fileName) {
        if (isStudyFile(fileName)) {
            StudyJson.ReadStudy read = StudyJson.read(bytes);
            Study study = read.study();
            if (study == null) {
                throw Problems.unreadable(read.problems());
            }
            return study;
        }
        ImportedStudy read = TableReader.read(bytes, fileName);
        if (!read.usable()) {
            throw Problems.unreadable(read.problems().stream()
                    .filter(Problem::blocking)
                    .map(Problem::sentence)
                    .toList());
        }
        return read.study();
    }

    private static boolean isStudyFile(String fileName) {
        return fileName.toLowerCase(Locale.ROOT).endsWith(".json");
    }
}
