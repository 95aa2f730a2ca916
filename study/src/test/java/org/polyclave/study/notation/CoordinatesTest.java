package org.polyclave.study.notation;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

final class CoordinatesTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "54.1234, -2.345|54.1234|-2.345",
                "54,1234 -2,345|54.1234|-2.345",
                "54.1234 N 2.345 W|54.1234|-2.345",
                "2.345°W, 54.1234°N|54.1234|-2.345",
                "54°07'24\"N 2°20'42\"W|54.12333333333333|-2.345",
                "54° 7.4′ N, 2° 20.7′ W|54.12333333333333|-2.345",
                "33°30'S; 151°0'E|-33.5|151",
                "−33.5/151|-33.5|151"
            })
    void coordinatesOfLabelsAreRead(String text, double latitude, double longitude) {
        assertThat(Coordinates.parse(text)).isInstanceOfSatisfying(Coordinates.Place.class, place -> {
            assertThat(place.latitude()).isCloseTo(latitude, within(1e-9));
            assertThat(place.longitude()).isCloseTo(longitude, within(1e-9));
        });
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "by the weir|are not coordinates",
                "54.1234|are not coordinates",
                "54,1|are not coordinates",
                "151, -33.5|Are latitude and longitude swapped?",
                "95, 120|a latitude is at most 90° and not 95.0°. Check it.",
                "54, 200|a longitude is at most 180°",
                "54°75'N 2°20'W|sixty or more minutes",
                "54 N 2 N|does not say which is latitude",
                "54 N 2|does not say which is latitude"
            })
    void whatIsNoPlaceIsToldWithARemedy(String text, String told) {
        assertThat(Coordinates.parse(text))
                .isInstanceOfSatisfying(
                        Coordinates.Rejected.class, r -> assertThat(r.reason()).contains(told));
    }
}
