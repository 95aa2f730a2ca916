package org.polyclave.study.model;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.polyclave.core.matrix.Hazard;

/** Places of sensitive taxa leave the installation in no file. */
final class SensitivePlacesTest {
    private static StudyRow row(String label, String parent, List<String> status) {
        return new StudyRow(
                label,
                label,
                "",
                "species",
                parent.isEmpty() ? null : parent,
                "",
                Hazard.NONE_KNOWN,
                List.of(),
                status,
                1,
                false,
                List.of(),
                "");
    }

    private static Picture picture(String id, String row) {
        return new Picture(id, "0".repeat(64), "image/png", 1, 1, id, "", "", row, "51.50000, -2.10000", "");
    }

    private static Map<String, String> places(List<StudyRow> rows) {
        Study study = new Study("s", "S", StudyScope.EMPTY, rows, List.of(), List.of(), List.of())
                .withPictures(List.of(
                        picture("of-a", "a"),
                        picture("of-child", "child"),
                        picture("of-b", "b"),
                        picture("of-none", "")));
        return study.withoutSensitivePlaces().pictures().stream()
                .collect(Collectors.toMap(Picture::id, Picture::place));
    }

    @ParameterizedTest
    @CsvSource({"protected", "Regulated in the estuary", "quarantine pest", "strictly PROTECTED"})
    void aSensitiveTaxonAndItsPartsDoNotTellTheirPlace(String status) {
        // The child stands before its parent: order says nothing.
        Map<String, String> places = places(
                List.of(row("child", "a", List.of()), row("a", "", List.of("rare", status)), row("b", "", List.of())));

        assertThat(places.get("of-a")).isEmpty();
        assertThat(places.get("of-child")).isEmpty();
        assertThat(places.get("of-none"))
                .as("a picture of no taxon may be of this one")
                .isEmpty();
        assertThat(places.get("of-b")).isEqualTo("51.50000, -2.10000");
    }

    @Test
    void oneThatIsProtectedInSomeRegionDoesNotTellItsPlaceAnywhere() {
        StudyRow.RegionalStatus status = new StudyRow.RegionalStatus("Marrowmere", "protected", true);
        StudyRow a = row("a", "", List.of()).withOccurrence(new StudyRow.Occurrence(List.of(), "", List.of(status)));
        assertThat(places(List.of(a, row("b", "", List.of()))).get("of-a")).isEmpty();
    }

    private static Specimen specimen(String id, String... rows) {
        List<Specimen.Determination> named = Stream.of(rows)
                .map(r -> new Specimen.Determination(r, "", Specimen.Kind.DETERMINED, "", "", "", List.of()))
                .toList();
        return new Specimen(
                id,
                id,
                named,
                new Specimen.Event("2031-05-04", "the pier", "54.1, -2.3", 10.0, "A. Scorer", "pool", "rock"),
                "adult",
                "",
                List.of(),
                "cupboard 3",
                "third pool from the pier");
    }

    @Test
    void whatWasEverTakenForASensitiveTaxonDoesNotTellWhereItWas() {
        Specimen.Event day = new Specimen.Event("2031-05-04", "", "", null, "", "", "");
        List<Specimen> specimens = List.of(
                specimen("was", "a", "b"), specimen("is", "b", "a"), specimen("may-be"), specimen("never", "b"));
        Study open = new Study(
                        "s",
                        "S",
                        StudyScope.EMPTY,
                        List.of(row("a", "", List.of("protected")), row("b", "", List.of())),
                        List.of(),
                        List.of(),
                        List.of())
                .withSpecimens(specimens);
        assertThat(open.withoutSensitivePlaces().specimens())
                .filteredOn(s -> !s.note().isEmpty() || !s.event().equals(day))
                .extracting(Specimen::id)
                .containsExactly("never");
        Study none = open.withRows(List.of(row("a", "", List.of()), row("b", "", List.of())));
        assertThat(none.withoutSensitivePlaces().specimens()).isEqualTo(specimens);
    }

    @Test
    void othersKeepTheirs() {
        Map<String, String> places = places(List.of(
                row("child", "a", List.of()),
                row("a", "", List.of("invasive", "unprotected")),
                row("b", "", List.of())));
        assertThat(places.values()).containsOnly("51.50000, -2.10000");
    }

    @Test
    void aPlaceCanBeForgottenButNotGiven() {
        Picture kept = picture("p", "");
        assertThat(kept.withCaptionOf(kept.withoutPlace()).place()).isEmpty();
        assertThat(kept.withoutPlace().withCaptionOf(kept).place()).isEmpty();
        assertThat(kept.withCaptionOf(kept).place()).isNotEmpty();
    }
}
