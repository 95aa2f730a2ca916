package org.polyclave.server.comparison.web;

import java.nio.charset.StandardCharsets;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.matrix.Observer;
import org.polyclave.server.access.AtLeast;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.access.Role;
import org.polyclave.server.comparison.ComparisonService;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.polyclave.study.comparison.ViewingConditions;
import org.polyclave.study.compile.KeyContext;
import org.polyclave.study.model.Specimen;
import org.polyclave.wording.comparison.Calendar;
import org.polyclave.wording.comparison.ContrastCard;
import org.polyclave.wording.comparison.Recognition;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What tells rows apart. Every answer is for the viewing conditions that the query names. */
@RestController
@RequestMapping("/api/v1/studies/{slug}/apart")
class ComparisonController {
    private final ComparisonService apart;

    ComparisonController(ComparisonService apart) {
        this.apart = apart;
    }

    /**
     * Viewing conditions; what is left out is not asked.
     *
     * @param months 1 to 12
     * @param preserved how the material was treated
     * @param stages sexes and stages that it may be of
     * @param safely only what counts against a danger
     */
    record ConditionsQuery(
            @Nullable List<Integer> months,
            @Nullable List<String> organs,
            @Nullable List<String> methods,
            @Nullable List<Specimen.Treated> preserved,
            @Nullable List<String> stages,
            @Nullable Observer observer,
            @Nullable Boolean safely) {
        ViewingConditions viewing() {
            Set<Integer> asked = new HashSet<>(months == null ? List.of() : months);
            if (asked.stream().anyMatch(m -> m < 1 || m > 12)) {
                throw Problems.badRequest(ProblemCode.MONTH, "Months are numbers from 1 to 12.");
            }
            return new ViewingConditions(
                    new KeyContext(
                            asked,
                            lower(organs),
                            lower(methods),
                            new HashSet<>(preserved == null ? List.of() : preserved)),
                    lower(stages),
                    Objects.requireNonNullElse(observer, Observer.TRAINED),
                    Objects.requireNonNullElse(safely, false));
        }

        private static Set<String> lower(@Nullable List<String> names) {
            return names == null
                    ? Set.of()
                    : names.stream().map(n -> n.toLowerCase(Locale.ROOT)).collect(Collectors.toSet());
        }
    }

    /** How well each pair of rows is separated. */
    @GetMapping("/map")
    ComparisonService.PairMap map(@AtLeast(Role.VIEWER) OpenStudy open, @ParameterObject ConditionsQuery conditions) {
        return apart.map(open, conditions.viewing());
    }

    /** All pairs, or those that are not firmly separated, as CSV. */
    @GetMapping("/pairs")
    ResponseEntity<byte[]> pairs(
            @AtLeast(Role.VIEWER) OpenStudy open,
            @ParameterObject ConditionsQuery conditions,
            @RequestParam(defaultValue = "false") boolean all) {
        String table = apart.table(open, conditions.viewing(), all);
        return file(open.slug() + "-pairs.csv", new MediaType("text", "csv", StandardCharsets.UTF_8))
                .body(table.getBytes(StandardCharsets.UTF_8));
    }

    /** What differs between two or more rows, most trustworthy first. */
    @GetMapping("/card")
    ContrastCard card(
            @AtLeast(Role.VIEWER) OpenStudy open,
            @ParameterObject ConditionsQuery conditions,
            @RequestParam List<String> rows) {
        return apart.card(open, conditions.viewing(), rows);
    }

    /** The card as PDF: a plate of one page, or one for the wallet. */
    @GetMapping("/card/print")
    ResponseEntity<byte[]> print(
            @AtLeast(Role.VIEWER) OpenStudy open,
            @ParameterObject ConditionsQuery conditions,
            @RequestParam List<String> rows,
            @RequestParam(defaultValue = "false") boolean wallet,
            @RequestParam(defaultValue = "false") boolean plain) {
        byte[] pdf = apart.print(open, conditions.viewing(), rows, wallet, plain);
        return file(open.slug() + (wallet ? "-card.pdf" : "-plate.pdf"), MediaType.APPLICATION_PDF)
                .body(pdf);
    }

    /** The cheapest signs by which one row is recognised. */
    @GetMapping("/recognitions")
    List<Recognition> recognise(
            @AtLeast(Role.VIEWER) OpenStudy open,
            @ParameterObject ConditionsQuery conditions,
            @RequestParam List<String> rows) {
        return apart.recognise(open, conditions.viewing(), rows);
    }

    /** In which months pairs are separated. */
    @GetMapping("/calendar")
    Calendar calendar(
            @AtLeast(Role.VIEWER) OpenStudy open,
            @ParameterObject ConditionsQuery conditions,
            @RequestParam(defaultValue = "") List<String> rows) {
        return apart.calendar(open, conditions.viewing(), rows);
    }

    /** Cells whose scores are expected to separate the most pairs per minute. */
    @GetMapping("/next-cells")
    ComparisonService.NextView next(@AtLeast(Role.VIEWER) OpenStudy open, @ParameterObject ConditionsQuery conditions) {
        return apart.next(open, conditions.viewing());
    }

    private static ResponseEntity.BodyBuilder file(String name, MediaType type) {
        return ResponseEntity.ok()
                .contentType(type)
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.attachment().filename(name).build().toString());
    }
}
