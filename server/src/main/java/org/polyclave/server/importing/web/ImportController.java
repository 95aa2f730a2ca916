package org.polyclave.server.importing.web;

import jakarta.validation.Valid;
import java.io.IOException;
import java.time.Duration;
import java.util.UUID;
import org.polyclave.server.access.AtLeast;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.access.Role;
import org.polyclave.server.account.Account;
import org.polyclave.server.account.Current;
import org.polyclave.server.importing.ImportRequest;
import org.polyclave.server.importing.ImportService;
import org.polyclave.server.importing.ImportService.ImportProgress;
import org.polyclave.server.importing.Uploads;
import org.polyclave.server.job.JobScope;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;

/**
 * Imports of matrices. A file is sent once; what is then asked about it waits a moment for its answer, so that small files come
 * at once. A larger one is asked after again, tells how far it is, and can be stopped.
 */
@RestController
@RequestMapping("/api/v1")
class ImportController {
    private static final Duration PATIENCE = Duration.ofSeconds(1);

    record UploadResponse(UUID id) {}

    private final ImportService imports;
    private final Uploads uploads;

    ImportController(ImportService imports, Uploads uploads) {
        this.imports = imports;
        this.uploads = uploads;
    }

    /** Sends a file that is to be imported. It is kept for a day. */
    @PostMapping(path = "/uploads", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    @ResponseStatus(HttpStatus.CREATED)
    UploadResponse upload(@Current Account who, @RequestParam MultipartFile file) throws IOException {
        return new UploadResponse(uploads.keep(who, name(file), file.getBytes()));
    }

    /** Looks at a file, previews the study that it becomes, or makes that study. */
    @PostMapping("/imports")
    ImportProgress begin(@Current Account who, @Valid @RequestBody ImportRequest request) {
        return imports.begin(who, request, PATIENCE);
    }

    /** An import, or how far it is. */
    @GetMapping("/imports/{id}")
    ImportProgress look(@Current Account who, @PathVariable String id) {
        return imports.look(JobScope.of(who), id, PATIENCE);
    }

    /** Cancels an import that is under way. */
    @DeleteMapping("/imports/{id}")
    void stop(@Current Account who, @PathVariable String id) {
        imports.stop(JobScope.of(who), id);
    }

    /** Looks at a file, previews what it would change in a study, or makes that change. */
    @PostMapping("/studies/{slug}/imports")
    ImportProgress beginInto(@AtLeast(Role.EDITOR) OpenStudy open, @Valid @RequestBody ImportRequest request) {
        return imports.begin(open, request, PATIENCE);
    }

    /** An import into a study, or how far it is. */
    @GetMapping("/studies/{slug}/imports/{id}")
    ImportProgress lookInto(@AtLeast(Role.EDITOR) OpenStudy open, @PathVariable String id) {
        return imports.look(JobScope.of(open), id, PATIENCE);
    }

    /** Cancels an import into a study. */
    @DeleteMapping("/studies/{slug}/imports/{id}")
    void stopInto(@AtLeast(Role.EDITOR) OpenStudy open, @PathVariable String id) {
        imports.stop(JobScope.of(open), id);
    }

    private static String name(MultipartFile file) {
        String name = file.getOriginalFilename();
        return name == null || name.isBlank() ? "matrix.csv" : name;
    }
}
