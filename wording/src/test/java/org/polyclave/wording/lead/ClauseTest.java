package org.polyclave.wording.lead;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.polyclave.core.key.Atoms;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyCharacter.LeadPattern;
import org.polyclave.study.model.StudyCharacter.Phrase;
import org.polyclave.study.model.StudyCharacter.StudyState;
import org.polyclave.study.notation.LeadNotation;

/** Clauses as an author would write them, made of names that people give. */
final class ClauseTest {
    private static StudyCharacter character(String organ, String label, CharacterType type, String states) {
        List<StudyState> all = states.isEmpty()
                ? List.of()
                : Stream.of(states.split("\\|")).map(StudyState::of).toList();
        return StudyCharacter.of(label, type, all).withOrgan(organ);
    }

    private static String say(StudyCharacter character, Atoms atoms) {
        Clause clause = Clause.of(character, false);
        Seen seen = Seen.of(character, clause, atoms);
        return clause.fill(seen.words(), seen.count(), false);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                // No word twice: the states say it already.
                "stem; arms on branches; unarmed|armed with thorns; 2; stem branches armed with thorns",
                "leaf; palmate lobes; palmately lobed|pinnately lobed; 1; leaf palmately lobed",
                "flesh; change of the cut flesh; unchanged|reddening; 2; cut flesh reddening",
                "ring; ring; a narrow ring|a hanging ring; 2; ring hanging",
                "claws; claws; alike|unequal; 1; claws alike",
                // Nor does shortening make two states one, or a thing that there may not be of one that there is.
                "head; flower head; rounded head|rounded|flat; 3; flower head rounded head or rounded",
                "plant; sheath or ligule; sheath|ligule; 1; plant sheath or ligule sheath",
                "''; is it on or in; soil|wood; 1; is it on or in soil",
                // No bare yes or no: a verb, an adjective, a thing.
                "beak; rests in groove; yes|no; 1; beak rests in groove",
                "beak; rests in groove; yes|no; 2; beak does not rest in groove",
                "gills; touches the stem; no|yes; 1; gills does not touch the stem",
                "stem; hollow; yes|no; 2; stem not hollow",
                "cap; patches; yes|no; 1; cap patches present",
                "cap; patches; no|few|many; 3; cap patches absent or few",
                // General headings are no parts.
                "stand; way of growth; single|tufted; 2; way of growth tufted",
                "whole plant; odour; none|sharp; 2; odour sharp",
                // What alternatives share is said once; many are a list.
                "leaf; blade; once divided|twice divided; 3; leaf blade once or twice divided",
                "stem; cover; with red hairs|with white hairs|bald; 3; stem cover with red or white hairs",
                "stem; base; even|club-shaped|rooting|sac|bulb; 15; stem base one of even, club-shaped, rooting, sac"
            })
    void statesReadAsAClause(String organ, String label, String states, int mask, String clause) {
        assertThat(say(character(organ, label, CharacterType.STATES, states), new Atoms.States(mask)))
                .isEqualTo(clause);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "gills; gill spacing; 7; gill spacing at most distant",
                "gills; gill spacing; 14; gill spacing at least close",
                "gills; gill spacing; 10; gill spacing close or remote"
            })
    void gradesAreToldByTheirEnds(String organ, String label, int mask, String clause) {
        assertThat(say(
                        character(organ, label, CharacterType.ORDERED, "crowded|close|distant|remote"),
                        new Atoms.States(mask)))
                .isEqualTo(clause);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "leaf; leaf width; LENGTH; 2; 5; leaf 2–5 mm wide",
                "leaf; width; LENGTH; 2; 2; leaf 2 mm wide",
                "claws; length of the claw; LENGTH; 2; 5; claws 2–5 mm long",
                "spores; spore length by width; RATIO; 1.2; 1.5; spore length 1.2–1.5 times width",
                "flower; number of stamens; COUNT; 3; 3; stamens three",
                "antenna; antennal segments; COUNT; 0; 1; antennal segments none or one",
                "flower; stamens; COUNT; 4; 6; stamens four to six",
                "head; florets; COUNT; 8; 21; florets 8–21",
                "whole plant; weight; MASS; 2; 5; weight 2–5 g"
            })
    void numbersReadAsAClause(String organ, String label, CharacterType type, double from, double to, String clause) {
        assertThat(say(character(organ, label, type, ""), Atoms.Interval.closed(from, to)))
                .isEqualTo(clause);
    }

    @Test
    void anAuthorsOwnWordsGoBeforeWhatIsMade() {
        StudyState free = StudyState.of("free").withPhrase(new Phrase("not reaching the stem", "", "", ""));
        StudyCharacter gills = character("gills", "attachment", CharacterType.STATES, "")
                .withStates(List.of(free, StudyState.of("notched").withPlain("with a notch")))
                .withLead(new LeadPattern("gills {usually} {states} (seen from below)", ""));
        assertThat(Clause.of(gills, false).fill("notched", 1, true))
                .isEqualTo("gills usually notched (seen from below)");
        assertThat(Clause.of(gills, false).phrases()).containsExactly("not reaching the stem", "notched");
        assertThat(Clause.of(gills, true).phrases()).containsExactly("not reaching the stem", "with a notch");
        StudyCharacter segments = character("antenna", "segments", CharacterType.COUNT, "")
                .withLead(new LeadPattern("antenna with {count, plural, one {# segment} other {# segments}}", ""));
        assertThat(say(segments, Atoms.Interval.closed(1, 1))).isEqualTo("antenna with one segment");
        assertThat(say(segments, Atoms.Interval.closed(3, 4))).isEqualTo("antenna with three or four segments");
        assertThat(CellClause.of(segments, new ScoreValue.Range(3.0, 3.0, 4.0, 5.0), false))
                .isEqualTo("antenna with 3–4(–5) segments");
        assertThat(CellClause.of(
                        character("", "flowering", CharacterType.MONTHS, ""),
                        new ScoreValue.Months(List.of(6, 7, 8)),
                        false))
                .isEqualTo("flowering from June to August");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "STATES; leaf {states}; true",
                "STATES; leaf {value}; false",
                "STATES; leaf; false",
                "STATES; leaf {states; false",
                "STATES; leaf {colour}; false",
                "LENGTH; leaf {value} wide; true",
                "LENGTH; {count} leaves; false",
                "COUNT; '{count, plural, one {# leaf} other {# leaves}}'; true",
                "COUNT; '{count, plural, one {# leaf}}'; false",
                "MONTHS; flowering {months}; true"
            })
    void aPatternThatCannotBeReadIsKnown(CharacterType type, String pattern, boolean readable) {
        assertThat(LeadNotation.isReadable(pattern, type)).isEqualTo(readable);
        assertThat(LeadNotation.isReadable(LeadNotation.example(type), type)).isTrue();
    }
}
