package org.polyclave.server.importing.web;

import java.io.IOException;
import org.jspecify.annotations.Nullable;
import org.polyclave.server.account.SignedIn;
import org.polyclave.server.importing.ImportService;
import org.polyclave.server.platform.Problems;
import org.springframework.http.MediaType;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;

/** Uploads of matrices. */
@RestController
@RequestMapping("/api/imports")
class ImportController {
    record CreatedResponse(String slug) {}

    private final ImportService imports;

    ImportController(ImportService imports) {
        this.imports = imports;
    }

    @PostMapping(path = "/preview", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    ImportService.Preview preview(@RequestParam MultipartFile file, @AuthenticationPrincipal @Nullable SignedIn who)
            throws IOException {
        requireAccount(who);
        return imports.preview(file.getBytes(), name(file));
    }

    @PostMapping(consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    CreatedResponse create(
            @RequestParam MultipartFile file,
            @RequestParam(required = false) @Nullable String title,
            @AuthenticationPrincipal @Nullable SignedIn who)
            throws IOException {
        return new CreatedResponse(imports.create(file.getBytes(), name(file), title, requireAccount(who)));
    }

    private static String name(MultipartFile file) {
        String name = file.getOriginalFilename();
        return name == null || name.isBlank() ? "matrix.csv" : name;
    }

    private static SignedIn requireAccount(@Nullable SignedIn who) {
        if (who == null) {
            throw Problems.notFound();
        }
        return who;
    }
}
