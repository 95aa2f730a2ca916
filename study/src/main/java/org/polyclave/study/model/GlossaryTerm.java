package org.polyclave.study.model;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;

/**
 * A term of the field.
 *
 * @param definition in technical words
 * @param plain in plain words
 * @param synonyms other words for it
 * @param misspellings spellings that people use and that are to be corrected
 * @param picture id of a picture of the study, or empty
 */
@RecordBuilder
public record GlossaryTerm(
        String id,
        String term,
        String definition,
        String plain,
        List<String> synonyms,
        List<String> misspellings,
        String picture)
        implements GlossaryTermBuilder.With {
    public GlossaryTerm {
        synonyms = Defaults.list(synonyms);
        misspellings = Defaults.list(misspellings);
        picture = Defaults.or(picture, "");
    }

    public GlossaryTerm(
            String id, String term, String definition, String plain, List<String> synonyms, List<String> misspellings) {
        this(id, term, definition, plain, synonyms, misspellings, "");
    }
}
