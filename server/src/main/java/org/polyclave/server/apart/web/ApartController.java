package org.polyclave.server.apart.web;

import java.nio.charset.StandardCharsets;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.matrix.Observer;
import org.polyclave.server.account.SignedIn;
import org.polyclave.server.apart.ApartService;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.study.Role;
import org.polyclave.server.study.StudyAccess;
import org.polyclave.server.study.StudyService;
import org.polyclave.study.comparison.Hand;
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
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What tells rows apart. Every answer is for what is in the hand, told by the query. */
@RestController
@RequestMapping("/api/studies/{slug}/apart")
class ApartController {
    private final StudyService studies;
    private final ApartService apart;

    ApartController(StudyService studies, ApartService apart) {
        this.studies = studies;
        this.apart = apart;
    }

    /**
     * What is in the hand; what is left out is not asked.
     *
     * @param months 1 to 12
     * @param preserved how the material was treated
     * @param stages sexes and stages that it may be of
     * @param safely only what counts against a danger
     */
    record HandQuery(
            @Nullable List<Integer> months,
            @Nullable List<String> organs,
            @Nullable List<String> methods,
            @Nullable List<Specimen.Treated> preserved,
            @Nullable List<String> stages,
            @Nullable Observer observer,
            @Nullable Boolean safely) {
        Hand hand() {
            Set<Integer> asked = new HashSet<>(months == null ? List.of() : months);
            if (asked.stream().anyMatch(m -> m < 1 || m > 12)) {
                throw Problems.badRequest("month", "Months are numbers from 1 to 12.");
            }
            return new Hand(
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

    @GetMapping("/map")
    ApartService.PairMap map(
            @PathVariable String slug,
            @ParameterObject HandQuery hand,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return apart.map(open(slug, who), hand.hand());
    }

    /** All pairs, or those that are not firmly separated, as CSV. */
    @GetMapping("/pairs")
    ResponseEntity<byte[]> pairs(
            @PathVariable String slug,
            @ParameterObject HandQuery hand,
            @RequestParam(defaultValue = "false") boolean all,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        String table = apart.table(open(slug, who), hand.hand(), all);
        return file(slug + "-pairs.csv", new MediaType("text", "csv", StandardCharsets.UTF_8))
                .body(table.getBytes(StandardCharsets.UTF_8));
    }

    @GetMapping("/card")
    ContrastCard card(
            @PathVariable String slug,
            @ParameterObject HandQuery hand,
            @RequestParam List<String> rows,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return apart.card(open(slug, who), hand.hand(), rows);
    }

    /** The card as PDF: a plate of one page, or one for the wallet. */
    @GetMapping("/card/print")
    ResponseEntity<byte[]> print(
            @PathVariable String slug,
            @ParameterObject HandQuery hand,
            @RequestParam List<String> rows,
            @RequestParam(defaultValue = "false") boolean wallet,
            @RequestParam(defaultValue = "false") boolean plain,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        byte[] pdf = apart.print(open(slug, who), hand.hand(), rows, wallet, plain);
        return file(slug + (wallet ? "-card.pdf" : "-plate.pdf"), MediaType.APPLICATION_PDF)
                .body(pdf);
    }

    @GetMapping("/recognitions")
    List<Recognition> recognise(
            @PathVariable String slug,
            @ParameterObject HandQuery hand,
            @RequestParam List<String> rows,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return apart.recognise(open(slug, who), hand.hand(), rows);
    }

    @GetMapping("/calendar")
    Calendar calendar(
            @PathVariable String slug,
            @ParameterObject HandQuery hand,
            @RequestParam(defaultValue = "") List<String> rows,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return apart.calendar(open(slug, who), hand.hand(), rows);
    }

    @GetMapping("/next-cells")
    ApartService.NextView next(
            @PathVariable String slug,
            @ParameterObject HandQuery hand,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return apart.next(open(slug, who), hand.hand());
    }

    private static ResponseEntity.BodyBuilder file(String name, MediaType type) {
        return ResponseEntity.ok()
                .contentType(type)
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.attachment().filename(name).build().toString());
    }

    private StudyAccess.Open open(String slug, @Nullable SignedIn who) {
        return studies.open(slug, who, Role.VIEWER);
    }
}
