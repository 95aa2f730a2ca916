package org.polyclave.server.exporting.web;

import java.util.List;
import java.util.Map;
import org.polyclave.files.convert.FormatLosses;
import org.polyclave.files.convert.MatrixFiles;
import org.polyclave.files.convert.MatrixFiles.Format;
import org.polyclave.files.table.TableWriter.Layout;
import org.polyclave.server.access.AtLeast;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.access.Role;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.store.StudyStore;
import org.polyclave.study.model.Study;
import org.polyclave.study.rules.Limits;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Studies as files. */
@RestController
@RequestMapping("/api/v1/studies/{slug}/export")
class ExportController {
    private static final Map<String, Format> FORMATS = Map.of(
            "csv", Format.CSV,
            "tsv", Format.TSV,
            "xlsx", Format.XLSX,
            "nexus", Format.NEXUS,
            "darwin-core", Format.DARWIN_CORE,
            "json", Format.STUDY);

    private final StudyStore store;

    ExportController(StudyStore store) {
        this.store = store;
    }

    /**
     * The whole study.
     *
     * @param format csv, tsv, xlsx, nexus, darwin-core or json
     * @param layout of tables: wide or long
     * @param whole whether the file takes along what its format cannot say
     */
    @GetMapping
    ResponseEntity<byte[]> export(
            @AtLeast(Role.VIEWER) OpenStudy open,
            @RequestParam String format,
            @RequestParam(defaultValue = "wide") String layout,
            @RequestParam(defaultValue = "false") boolean whole) {
        Format target = FORMATS.get(format);
        if (target == null || !(layout.equals("wide") || layout.equals("long"))) {
            throw Problems.badRequest(
                    ProblemCode.FORMAT,
                    "Export writes csv, tsv, xlsx, nexus, darwin-core and json, and the layouts wide and long.");
        }
        Layout laid = layout.equals("long") ? Layout.LONG : Layout.WIDE;
        Study study = store.load(open.id()).study().withoutSensitivePlaces();
        Study written = whole || target == Format.STUDY ? store.withPictures(open.id(), study) : study;
        byte[] bytes = whole ? MatrixFiles.writeWhole(written, target, laid) : MatrixFiles.write(written, target, laid);
        if (whole && target != Format.STUDY && bytes.length > Limits.TABLE_BYTES) {
            throw Problems.unprocessable(
                    ProblemCode.TOO_LARGE,
                    "With all that the study holds the table has more than 25 MB, which could not be read back."
                            + " Take the study file.",
                    Map.of());
        }
        String name = open.slug() + (laid == Layout.LONG ? "-long." : ".") + target.ending();
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType(target.mediaType()))
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.attachment().filename(name).build().toString())
                .body(bytes);
    }

    /** What a file of the study would not hold, one sentence a kind of loss. */
    @GetMapping("/losses")
    List<String> losses(
            @AtLeast(Role.VIEWER) OpenStudy open,
            @RequestParam String format,
            @RequestParam(defaultValue = "wide") String layout,
            @RequestParam(defaultValue = "false") boolean whole) {
        ResponseEntity<byte[]> file = export(open, format, layout, whole);
        Study study =
                store.withPictures(open.id(), store.load(open.id()).study().withoutSensitivePlaces());
        Format target = FORMATS.getOrDefault(format, Format.STUDY);
        byte[] bytes = java.util.Objects.requireNonNull(file.getBody());
        return FormatLosses.of(
                study,
                MatrixFiles.read(bytes, study.title() + "." + target.ending()).study());
    }
}
