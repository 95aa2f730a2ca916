package org.polyclave.server.importing.web;

import java.io.IOException;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.polyclave.files.table.SheetMapping;
import org.polyclave.files.table.TableChoices.CellCorrection;
import org.polyclave.server.access.AtLeast;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.access.Role;
import org.polyclave.server.account.Account;
import org.polyclave.server.account.Current;
import org.polyclave.server.history.StudyWriter;
import org.polyclave.server.importing.ImportService;
import org.polyclave.server.platform.Created;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.polyclave.study.change.Coverings;
import org.polyclave.study.change.Retype;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;
import tools.jackson.core.JacksonException;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Uploads of matrices. */
@RestController
@RequestMapping("/api/v1")
class ImportController {
    record CreatedResponse(String slug) {}

    private static final int MOST_TYPES = 1_000;
    private static final int MOST_CORRECTIONS = 10_000;

    private final ImportService imports;
    private final JsonMapper json;

    ImportController(ImportService imports, JsonMapper json) {
        this.imports = imports;
        this.json = json;
    }

    /**
     * What a file would become as a new study; nothing is kept.
     *
     * @param types chosen types by label of the character, as JSON: {@code {"leaf width": {"type": "LENGTH", "unit": "mm"}}}
     * @param mapping what the columns of an unprepared table hold, as JSON
     * @param sheet sheet of a workbook; empty: the first that holds something
     * @param coverings what was said of taxa and what stands below them, as JSON:
     *     {@code [{"kind": "SEXES_AND_STAGES", "covered": false, "covers": "ALL"}]}
     * @param corrections what texts mean that could not be read, as JSON: {@code [{"column": "leaf margin", "row": "", "text":
     *     "tothed", "as": "toothed"}]}; without a row wherever the text stands in the column, with a null {@code as} unknown
     */
    @PostMapping(path = "/imports/preview", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    ImportService.Preview preview(
            @Current Account who,
            @RequestParam MultipartFile file,
            @RequestParam(defaultValue = "") String types,
            @RequestParam(defaultValue = "") String mapping,
            @RequestParam(defaultValue = "") String sheet,
            @RequestParam(defaultValue = "") String coverings,
            @RequestParam(defaultValue = "") String corrections)
            throws IOException {
        return imports.preview(file.getBytes(), name(file), wish(types, mapping, sheet, coverings, corrections));
    }

    /** Imports a file as a new study. */
    @PostMapping(path = "/imports", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    @ResponseStatus(HttpStatus.CREATED)
    ResponseEntity<CreatedResponse> create(
            @Current Account who,
            @RequestParam MultipartFile file,
            @RequestParam(required = false) @Nullable String title,
            @RequestParam(defaultValue = "") String types,
            @RequestParam(defaultValue = "") String mapping,
            @RequestParam(defaultValue = "") String sheet,
            @RequestParam(defaultValue = "") String coverings,
            @RequestParam(defaultValue = "") String corrections)
            throws IOException {
        String slug = imports.create(
                file.getBytes(), name(file), title, wish(types, mapping, sheet, coverings, corrections), who);
        return Created.at(new CreatedResponse(slug), "/api/v1/studies/{slug}", slug);
    }

    /** What importing a file into a study would change; nothing is changed. */
    @PostMapping(path = "/studies/{slug}/import/preview", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    ImportService.ImportInto previewInto(
            @AtLeast(Role.EDITOR) OpenStudy open,
            @RequestParam MultipartFile file,
            @RequestParam(defaultValue = "") String types,
            @RequestParam(defaultValue = "") String mapping,
            @RequestParam(defaultValue = "") String sheet,
            @RequestParam(defaultValue = "") String coverings,
            @RequestParam(defaultValue = "") String corrections)
            throws IOException {
        return imports.previewInto(
                open, file.getBytes(), name(file), wish(types, mapping, sheet, coverings, corrections));
    }

    /**
     * Imports a file into a study, as one change.
     *
     * @param baseRevision revision of the study that the preview was made of
     */
    @PostMapping(path = "/studies/{slug}/import", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    StudyWriter.Written into(
            @AtLeast(Role.EDITOR) OpenStudy open,
            @RequestParam MultipartFile file,
            @RequestParam(defaultValue = "") String types,
            @RequestParam(defaultValue = "") String mapping,
            @RequestParam(defaultValue = "") String sheet,
            @RequestParam(defaultValue = "") String coverings,
            @RequestParam(defaultValue = "") String corrections,
            @RequestParam long baseRevision)
            throws IOException {
        return imports.into(
                open, file.getBytes(), name(file), wish(types, mapping, sheet, coverings, corrections), baseRevision);
    }

    /** The first rows of a table that nobody prepared, and how it may be read. */
    @PostMapping(path = "/imports/sheet", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    ImportService.SheetView sheet(
            @Current Account who,
            @RequestParam MultipartFile file,
            @RequestParam(defaultValue = "") String sheet,
            @RequestParam(required = false) @Nullable Boolean transposed)
            throws IOException {
        return imports.look(file.getBytes(), name(file), sheet, transposed, who);
    }

    private ImportService.ImportOptions wish(
            String types, String mapping, String sheet, String coverings, String corrections) {
        try {
            return new ImportService.ImportOptions(
                    types(types),
                    mapping.isBlank() ? null : json.readValue(mapping, SheetMapping.class),
                    sheet,
                    coverings(coverings),
                    corrections(corrections));
        } catch (JacksonException broken) {
            throw Problems.badRequest(
                    ProblemCode.MAPPING, "The mapping of the columns cannot be read. Load the page again.");
        }
    }

    private List<CellCorrection> corrections(String text) {
        if (text.isBlank()) {
            return List.of();
        }
        try {
            List<CellCorrection> corrections = List.of(json.readValue(text, CellCorrection[].class));
            if (corrections.size() <= MOST_CORRECTIONS) {
                return corrections;
            }
        } catch (JacksonException broken) {
            // Told below, together with what is too long.
        }
        throw Problems.badRequest(ProblemCode.CORRECTIONS, "The corrections cannot be read. Load the page again.");
    }

    private List<Coverings.Answer> coverings(String text) {
        try {
            return text.isBlank() ? List.of() : List.of(json.readValue(text, Coverings.Answer[].class));
        } catch (JacksonException broken) {
            throw Problems.badRequest(
                    ProblemCode.COVERINGS,
                    "What was said of taxa and their parts cannot be read. Load the page again.");
        }
    }

    private Map<String, Retype.Choice> types(String text) {
        if (text.isBlank()) {
            return Map.of();
        }
        try {
            Map<String, Retype.Choice> types = json.readValue(text, new TypeReference<>() {});
            if (types.size() <= MOST_TYPES) {
                return types;
            }
        } catch (JacksonException broken) {
            // Told below, together with what is too long.
        }
        throw Problems.badRequest(ProblemCode.TYPES, "The chosen types cannot be read. Load the page again.");
    }

    private static String name(MultipartFile file) {
        String name = file.getOriginalFilename();
        return name == null || name.isBlank() ? "matrix.csv" : name;
    }
}
