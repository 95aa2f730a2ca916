package org.polyclave.files.table;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.polyclave.files.convert.MatrixFiles;
import org.polyclave.files.source.ImportedStudy;
import org.polyclave.study.change.StudyJoin;
import org.polyclave.study.model.Specimen;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScope;
import org.polyclave.study.rules.Problem;
import org.polyclave.study.rules.StudyRules;

final class SpecimenTableTest {
    private static ImportedStudy read(String table) {
        return MatrixFiles.read(table.getBytes(StandardCharsets.UTF_8), "box 3.csv", "");
    }

    @Test
    void aListOfSpecimensJoinsAStudyWithoutTouchingThoseThatAreKnown() {
        ImportedStudy read = read("""
                specimen,taxon,determined by,determined on,date,place,coordinates,uncertainty (m),substrate,sex,colour
                V 1,Aa,Oswin,2031,2031-05-04,the weir,"54.1, -2.3",25,reed,female,red
                V 2,cf. áa,,,2031-05,,,,,,
                V 3,,,,,,,,,,
                """);
        assertThat(read.problems()).singleElement().satisfies(p -> {
            assertThat(p.blocking()).isFalse();
            assertThat(p.text()).contains("set aside: colour");
        });
        assertThat(read.study().rows()).extracting(StudyRow::label).containsExactly("Aa");
        assertThat(StudyRules.check(read.study())).isEmpty();
        List<Specimen> specimens = read.study().specimens();
        assertThat(specimens).extracting(Specimen::code).containsExactly("V 1", "V 2", "V 3");
        assertThat(specimens.get(0).event())
                .isEqualTo(new Specimen.Event("2031-05-04", "the weir", "54.1, -2.3", 25.0, "", "", "reed"));
        assertThat(specimens.get(0).present().orElseThrow().by()).isEqualTo("Oswin");
        assertThat(specimens.get(1).present().orElseThrow().qualifier()).isEqualTo("cf.");
        assertThat(specimens.get(2).determinations()).isEmpty();

        Specimen known = new Specimen("mine", "v 2", List.of(), "kept as it is");
        Study here = new Study("s", "S", StudyScope.EMPTY, List.of(StudyRow.of("Aa")), List.of(), List.of(), List.of())
                .withSpecimens(List.of(known));
        StudyJoin.JoinedStudy joined = StudyJoin.of(here, read.study());
        assertThat(joined.problems()).isEmpty();
        assertThat(joined.study().rows()).isEqualTo(here.rows());
        assertThat(joined.study().specimens()).hasSize(3).contains(known);
        assertThat(StudyRules.check(joined.study())).isEmpty();
    }

    @Test
    void aNameThatIsNearlyAKnownOneIsAskedAbout() {
        Study here = new Study(
                "s", "S", StudyScope.EMPTY, List.of(StudyRow.of("Sallowina lenta")), List.of(), List.of(), List.of());
        Study there = read("specimen,taxon\nV 1,Sallowina lemta\nV 2,Sallowina clara\nV 3,Sallowina lenta\n")
                .study();
        assertThat(StudyJoin.of(here, there).problems()).singleElement().satisfies(p -> {
            assertThat(p.blocking()).isFalse();
            assertThat(p.text())
                    .contains("'Sallowina lemta' is not in the study")
                    .contains("Is it 'Sallowina lenta'?");
        });
    }

    @Test
    void whatSpecimensShowIsNoListOfThem() {
        ImportedStudy read = read("specimen,taxon,leaf colour,leaf width,hairs\nV 1,Aa,red,3,many\n");
        assertThat(read.usable()).isFalse();
        assertThat(read.problems().get(0).text()).contains("first column must be headed 'taxon'");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "specimen,place;,weir|Row 2, column 1 (specimen): A specimen needs the code",
                "specimen,place;V 1,weir;v 1,pier|Row 3, column 1 (specimen): Two specimens have the code 'v 1'",
                "specimen,coordinates;V 1,151 -33|Row 2, column 2 (coordinates): 'V 1': '151 -33': a latitude is at most 90°",
                "specimen,date;V 1,4 May|Row 2, column 2 (date): 'V 1': '4 May' is not a date",
                "specimen,date;V 1,2031-02-30|Row 2, column 2 (date): 'V 1': '2031-02-30' is not a date",
                "specimen,taxon,determined on;V 1,Aa,May|Row 2, column 3 (determined on): 'V 1': 'May' is not a date",
                "specimen,uncertainty;V 1,0|Row 2, column 2 (uncertainty): 'V 1': coordinates are known to some metres",
                "specimen,uncertainty;V 1,near|Row 2, column 2 (uncertainty): 'near' is not a number of metres",
                "specimen,taxon,qualifier;V 1,Aa,near|Row 2, column 3 (qualifier): 'V 1': 'near' is not a qualifier",
                "specimen,place,place;V 1,a,b|Row 1, column 2 (place): there are two columns for 'place'"
            })
    void whatCannotBeReadIsToldAtItsPlace(String table, String told) {
        ImportedStudy read = read(table.replace(';', '\n'));
        assertThat(read.usable()).isFalse();
        assertThat(read.problems().stream().map(Problem::sentence))
                .singleElement(org.assertj.core.api.InstanceOfAssertFactories.STRING)
                .startsWith(told);
    }
}
