package org.polyclave.study.agreement;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.polyclave.files.table.TableReader;
import org.polyclave.study.model.Opinion;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.Study;
import org.polyclave.study.notation.CellNotation;

final class ScorerAgreementTest {
    private static final Study STUDY =
            TableReader.read("""
                    taxon,size,margin,width
                    #type,ordered,states,length
                    #states,small|middling|large,entire|toothed|lobed,
                    Aa,small,entire,5–9
                    Bb,large,toothed,20–30
                    Cc,middling,lobed,12–14
                    Dd,large,toothed,?
                    """.getBytes(UTF_8), "s.csv").study();

    private static Opinion opinion(String scorer, String row, String character, String text) {
        ScoreValue value = ((CellNotation.Parsed)
                        CellNotation.parse(text, STUDY.character(character).orElseThrow()))
                .value();
        return new Opinion(
                Opinion.idOf(row, character, scorer), row, character, scorer, value, text, false, "", "", false);
    }

    private static List<ScorerAgreement.CharacterAgreement> agreement(Opinion... opinions) {
        return ScorerAgreement.of(STUDY.withOpinions(List.of(opinions)));
    }

    @ParameterizedTest
    @CsvSource({
        "margin, entire, true",
        "margin, usually entire, true",
        "margin, 'entire, toothed', false",
        "margin, toothed, false",
        "margin, ?, false",
        "width, 5–9, true",
        "width, 6–9, true",
        "width, 7–13, true",
        "width, 8–20, false",
        "width, 9–12, false",
        "width, 7, true",
        "width, 12, false"
    })
    void twoScoresOfTheFirstRowAgree(String character, String text, boolean agree) {
        ScorerAgreement.CharacterAgreement of =
                agreement(opinion("Oswin", "aa", character, text)).get(0);

        assertThat(of.percent()).isEqualTo(agree ? 1 : 0);
        assertThat(of.toSettle()).isEqualTo(agree ? List.of() : List.of("aa"));
        assertThat(of.scorers()).containsExactly("Oswin", ScorerAgreement.AUTHOR);
    }

    /** Small taken for large is worse than small taken for middling, in an ordered character only. */
    @Test
    void orderedStatesAreAsFarApartAsTheirPlaces() {
        double near = alpha(agreement(sizes("middling")));
        double far = alpha(agreement(sizes("large")));
        assertThat(near).isGreaterThan(far);
        double one = alpha(agreement(margins("toothed")));
        double other = alpha(agreement(margins("entire")));
        assertThat(one).as("other names of states say nothing").isNotNaN();
        assertThat(other).isEqualTo(1, within(1e-12));
    }

    private static double alpha(List<ScorerAgreement.CharacterAgreement> found) {
        return java.util.Objects.requireNonNull(found.get(0).alpha());
    }

    private static Opinion[] sizes(String first) {
        return new Opinion[] {
            opinion("Oswin", "aa", "size", first),
            opinion("Oswin", "bb", "size", "large"),
            opinion("Oswin", "cc", "size", "middling"),
            opinion("Oswin", "dd", "size", "large")
        };
    }

    private static Opinion[] margins(String first) {
        return new Opinion[] {
            opinion("Oswin", "aa", "margin", first),
            opinion("Oswin", "bb", "margin", "toothed"),
            opinion("Oswin", "cc", "margin", "lobed")
        };
    }

    @Test
    void aThirdScorerCountsAndTheOrderOfOpinionsDoesNot() {
        List<Opinion> opinions = new ArrayList<>(List.of(margins("toothed")));
        opinions.add(opinion("Lark", "aa", "margin", "entire"));
        List<Opinion> turned = new ArrayList<>(opinions);
        java.util.Collections.reverse(turned);
        ScorerAgreement.CharacterAgreement of =
                ScorerAgreement.of(STUDY.withOpinions(opinions)).get(0);

        assertThat(of.scorers()).containsExactly("Lark", "Oswin", ScorerAgreement.AUTHOR);
        assertThat(of.kappa()).as("kappa is of two").isNull();
        assertThat(of.toSettle()).containsExactly("aa");
        assertThat(ScorerAgreement.of(STUDY.withOpinions(turned))).isEqualTo(List.of(of));
    }

    @Test
    void whatIsGoneSaysNothing() {
        Opinion known = opinion("Oswin", "bb", "margin", "lobed");
        Opinion lostRow = new Opinion("x", "zz", "margin", "Oswin", known.value(), "lobed", false, "", "", false);
        Opinion lostState = new Opinion(
                "y",
                "aa",
                "margin",
                "Oswin",
                new ScoreValue.States(
                        List.of(new ScoreValue.Shown("wavy", ScoreValue.Frequency.PLAIN)), ScoreValue.Combination.VARY),
                "wavy",
                false,
                "",
                "",
                false);

        assertThat(agreement(lostRow, lostState)).isEmpty();
        assertThat(agreement(lostRow, lostState, known).get(0).cells()).isEqualTo(1);
        assertThat(ScorerAgreement.cell(STUDY.withOpinions(List.of(lostState)), "aa", "margin"))
                .extracting(ScorerAgreement.HeldScore::text)
                .containsExactly("entire");
    }

    @Test
    void aCellOfOneScorerAloneIsNoUnit() {
        Study empty = STUDY.withScores(List.of());
        assertThat(ScorerAgreement.of(empty.withOpinions(List.of(margins("entire")))))
                .isEmpty();
        Opinion second = opinion("Lark", "aa", "margin", "toothed");
        List<Opinion> two = List.of(opinion("Oswin", "aa", "margin", "entire"), second);
        assertThat(ScorerAgreement.of(empty.withOpinions(two)).get(0).toSettle())
                .as("two scorers may disagree where nothing is accepted yet")
                .containsExactly("aa");
    }
}
