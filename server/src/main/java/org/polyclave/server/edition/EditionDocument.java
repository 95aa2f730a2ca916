package org.polyclave.server.edition;

import java.util.List;
import org.polyclave.server.key.KeyService;
import org.polyclave.study.model.Study;
import org.polyclave.wording.key.KeyView;

/**
 * A published edition: everything that readers see. It never changes.
 *
 * @param format version of the format in which the study in it was written
 * @param authors names of the authors
 * @param date day of publication, ISO 8601
 * @param key of all taxa, at any time, with every means
 * @param keys further keys that its authors chose
 * @param declarations dangerous pairs that this edition cannot separate well enough, in words
 * @param cautions sentences shown to every reader
 * @param kit what to bring
 */
public record EditionDocument(
        int format,
        String slug,
        int number,
        String title,
        List<String> authors,
        String date,
        String engine,
        Study study,
        KeyView key,
        List<PublishedKey> keys,
        List<Declaration> declarations,
        List<String> cautions,
        List<String> kit) {
    public EditionDocument {
        // Editions that were published before have none of these.
        keys = keys == null ? List.of() : List.copyOf(keys);
        kit = kit == null ? List.of() : List.copyOf(kit);
    }

    /** @param request what it was made for */
    public record PublishedKey(String name, KeyService.KeyRequest request, KeyView key) {}

    /**
     * @param danger id of the dangerous row
     * @param name what readers are told it is called; editions that were published before have none
     * @param others ids of the rows it may be taken for
     * @param months numbers of the months in which it may
     * @param text what the author tells readers about it; empty if it can be ruled out, but hardly
     */
    public record Declaration(String danger, String name, List<String> others, List<Integer> months, String text) {
        public Declaration {
            name = name == null ? "" : name;
        }
    }
}
