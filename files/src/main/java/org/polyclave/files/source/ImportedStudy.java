package org.polyclave.files.source;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.model.Study;
import org.polyclave.study.rules.Problem;

/**
 * What a table was understood as.
 *
 * @param study the study as far as it could be read; only to be used when nothing blocks
 * @param problems what is wrong, cells that could not be read among them
 * @param columns how each character column was taken
 * @param setAside columns that are never asked or shown, and why
 * @param supplement what the file holds beside its matrix, for reading back what a matrix cannot say; empty if nothing
 * @param unread cells that people can correct without the file
 * @param account what became of every cell; null where the file is not a table of taxa and characters
 * @param selection which of its characters were read; null where all are
 */
public record ImportedStudy(
        Study study,
        List<Problem> problems,
        List<Column> columns,
        List<String> setAside,
        String supplement,
        List<UnreadCell> unread,
        @Nullable ImportAccount account,
        @Nullable CharacterSelection selection) {
    public ImportedStudy {
        problems = List.copyOf(problems);
        columns = List.copyOf(columns);
        setAside = List.copyOf(setAside);
        unread = List.copyOf(unread);
    }

    public ImportedStudy(Study study, List<Problem> problems, List<Column> columns, List<String> setAside) {
        this(study, problems, columns, setAside, "", List.of(), null, null);
    }

    /** The same of a file of which some characters are read. */
    public ImportedStudy choosing(CharacterSelection some) {
        return new ImportedStudy(study, problems, columns, setAside, supplement, unread, account, some);
    }

    public ImportedStudy withSupplement(String text) {
        return new ImportedStudy(study, problems, columns, setAside, text, unread, account, selection);
    }

    /** The same matrix with all that its supplement says of it. */
    public ImportedStudy supplemented(Study whole, List<String> notices) {
        List<Problem> all = new ArrayList<>(problems);
        notices.forEach(n -> all.add(new Problem(0, 0, "", n, false)));
        return new ImportedStudy(whole, all, columns, setAside, "", unread, account, selection);
    }

    /** Whether the study may be used: there is one, and no problem blocks. */
    public boolean usable() {
        return problems.stream().noneMatch(Problem::blocking);
    }

    /**
     * @param guessed whether the type was proposed from the cells, because the table does not name it
     * @param open whether its bare numbers may be in a unit that nothing names: people are asked, programs are told
     */
    public record Column(
            int column,
            String character,
            CharacterType type,
            String unit,
            String organ,
            List<String> states,
            int scored,
            boolean guessed,
            boolean open) {}
}
