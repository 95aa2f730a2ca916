package org.polyclave.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.demo.DemoStudies;
import org.polyclave.server.RunningApplication;
import org.polyclave.server.Visitor;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.compile.StudyCompiler;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import tools.jackson.databind.JsonNode;

/** Readers with a specimen in the hand, by touch on a phone and by keyboard at a desk; {@code -Dpolyclave.specimens=10} of each study. */
@ExtendWith(RunningApplication.class)
class ReaderJourneyTest {
    private static final int SPECIMENS = Integer.getInteger("polyclave.specimens", 2);
    private static final int MOST_ANSWERS = 30;

    @RegisterExtension
    final Browsing browsing = new Browsing();

    static List<Study> studies() {
        return DemoStudies.all();
    }

    private Page phone() {
        return browsing.touching(360, 740);
    }

    /** Some rows, spread over the study; each is the right answer of one journey. */
    private static List<SimulatedSpecimen> specimens(Study study) {
        CompiledStudy compiled = StudyCompiler.compile(study).scoredOnly();
        int rows = compiled.rows().size();
        return IntStream.range(0, SPECIMENS)
                .mapToObj(i -> new SimulatedSpecimen(compiled, (2 * i + 1) * rows / (2 * SPECIMENS)))
                .toList();
    }

    private static JsonNode key(Study study) {
        return Visitor.anonymous()
                .get("/api/v1/editions/" + study.slug() + "/1")
                .json()
                .path("key");
    }

    /** A finger on a phone, the Enter key at a desk. */
    private static void press(Page page, Locator target) {
        if (page.viewportSize().width < 600) {
            target.tap();
        } else {
            target.focus();
            page.keyboard().press("Enter");
        }
    }

    @ParameterizedTest
    @MethodSource("studies")
    void theCoupletKeyLeadsToTheRightName(Study study) {
        JsonNode key = key(study);
        List<SimulatedSpecimen> specimens = specimens(study);
        for (SimulatedSpecimen specimen : specimens) {
            Page page = specimens.indexOf(specimen) % 2 == 0 ? phone() : browsing.visitor(1280, 800);
            page.navigate("/k/" + study.slug() + "/1?view=key");
            read(page, key, specimen);
            assertThat(page.locator(".end .name").first()).isVisible();
            assertThat(page.locator(".end .name").allInnerTexts().toString()).contains(specimen.name());
            assertThat(page.locator(".check .verdict").first()).containsText("that disagree: 0;");
            if (specimen == specimens.get(0)) {
                Browsing.assertAccessible(page);
                heldAgainstItsName(page, study, specimen);
            }
            page.context().close();
        }
    }

    /** Somebody who thinks that it is that: what must be true is answered point by point, and stays after a reload. */
    private static void heldAgainstItsName(Page page, Study study, SimulatedSpecimen specimen) {
        String row = specimen.study().rows().get(specimen.row()).id();
        page.navigate("/k/" + study.slug() + "/1?view=check&taxon=" + row);
        assertThat(page.locator(".check .verdict").first()).containsText("Points that agree: 0; that disagree: 0;");
        page.locator(".check")
                .getByRole(AriaRole.BUTTON, named("It agrees"))
                .first()
                .tap();
        assertThat(page.locator(".check .verdict").first()).containsText("Points that agree: 1; that disagree: 0;");
        page.reload();
        assertThat(page.locator(".check .verdict").first()).containsText("Points that agree: 1; that disagree: 0;");
        Browsing.assertAccessible(page);
    }

    private static void read(Page page, JsonNode key, SimulatedSpecimen specimen) {
        while (true) {
            page.locator(".reading h2").waitFor();
            Locator number = page.locator(".reading h2 .number");
            if (number.count() == 0) {
                return;
            }
            String at = number.innerText().strip();
            int lead = specimen.lead(key, SimulatedSpecimen.couplet(key, Integer.parseInt(at)));
            press(page, page.locator(".leads .take").nth(lead));
            page.waitForURL(url -> url.matches(".*[=.]" + at + (char) ('a' + lead) + "$"));
            // What stands there now is of the next couplet, or of the end.
            page.waitForFunction("at => document.querySelector('.reading h2 .number')?.textContent.trim() !== at", at);
        }
    }

    @ParameterizedTest
    @MethodSource("studies")
    void theAnyOrderKeyComesToTheRightName(Study study) {
        List<SimulatedSpecimen> specimens = specimens(study);
        for (SimulatedSpecimen specimen : specimens) {
            Page page = specimens.indexOf(specimen) % 2 == 0 ? phone() : browsing.visitor(1280, 800);
            page.navigate("/k/" + study.slug() + "/1?view=any-order");
            answerAll(page, specimen);
            // Where nothing separates two, both are named.
            assertThat(page.locator(".verdict").first()).containsText(specimen.name());
            page.context().close();
        }
    }

    private static Locator card(Page page) {
        return page.locator(".questions > article.card").first();
    }

    private static void answerAll(Page page, SimulatedSpecimen specimen) {
        for (int n = 0; n < MOST_ANSWERS; n++) {
            page.locator(".verdict").first().waitFor();
            if (card(page).count() == 0) {
                return;
            }
            StudyCharacter character = specimen.character(card(page).getAttribute("aria-label"));
            answer(page, card(page), character, specimen);
            nextCard(page, character);
        }
    }

    /** The answered question gives way to another, or to none. */
    private static void nextCard(Page page, StudyCharacter answered) {
        page.waitForFunction(
                "label => document.querySelector('.questions > article.card')?.ariaLabel !== label", answered.label());
        if (page.viewportSize().width > 600) {
            assertThat(page.locator("#look")).isFocused();
        }
    }

    private static void answer(Page page, Locator card, StudyCharacter character, SimulatedSpecimen specimen) {
        Optional<String> typed = specimen.typed(character);
        Optional<StudyCharacter.StudyState> state = specimen.state(character);
        page.waitForResponse(r -> r.url().endsWith("/identify") || r.url().endsWith("/handful"), () -> {
            if (typed.isPresent()) {
                card.getByRole(AriaRole.TEXTBOX).first().fill(typed.get());
                press(page, card.getByRole(AriaRole.BUTTON, named("Enter")));
            } else if (state.isPresent()) {
                press(
                        page,
                        card.locator(".states")
                                .getByRole(AriaRole.BUTTON, named(state.get().label())));
            } else {
                press(page, card.getByRole(AriaRole.BUTTON, named("Can’t see it")));
            }
        });
    }

    private static Locator.GetByRoleOptions named(String name) {
        return new Locator.GetByRoleOptions().setName(name).setExact(true);
    }

    @Test
    void aWrongTurnIsFoundAndCorrectedByItsFork() {
        Study study = DemoStudies.tussocks();
        JsonNode key = key(study);
        SimulatedSpecimen specimen = specimens(study).get(0);
        Page page = phone();
        page.navigate("/k/" + study.slug() + "/1?view=key");
        Browsing.button(page, "Cannot tell").tap();
        page.waitForURL("**at=1*");
        int taken = page.url().endsWith("1a~") ? 0 : 1;
        int right = specimen.lead(key, SimulatedSpecimen.couplet(key, 1));
        if (taken == right) {
            // Whoever could not tell tried the right lead first: then the wrong one is taken by mistake.
            page.navigate("/k/" + study.slug() + "/1?view=key&at=1" + (char) ('a' + (1 - right)) + "~");
        }
        page.locator(".leads").waitFor();
        for (int n = 0; n < 20 && page.locator(".leads .take").count() > 0; n++) {
            String before = page.url();
            page.locator(".leads .take").first().tap();
            page.waitForURL(url -> !url.equals(before));
        }
        assertThat(page.locator(".possible")).containsText("Still possible");
        Locator fork = page.locator(".others li").first();
        assertThat(fork).containsText("(could not tell)");
        fork.locator("a").tap();
        read(page, key, specimen);
        assertThat(page.locator(".end .name").first()).containsText(specimen.name());
        page.goBack();
        assertThat(page.locator(".leads")).isVisible();
    }

    /** It shows in each part what no one taxon of the study shows together. */
    @Test
    void aSpecimenFromOutsideIsRecognisedAsSuch() {
        Study study = DemoStudies.browncaps();
        CompiledStudy compiled = StudyCompiler.compile(study).scoredOnly();
        Page page = phone();
        page.navigate("/k/" + study.slug() + "/1?view=any-order");
        Locator verdict = page.locator(".verdict h3").first();
        for (int n = 0; n < MOST_ANSWERS && !verdict.innerText().contains("outside"); n++) {
            Locator card = card(page);
            String leader = page.locator(".ladder li").first().innerText();
            StudyCharacter character = new SimulatedSpecimen(compiled, 0).character(card.getAttribute("aria-label"));
            Optional<StudyCharacter.StudyState> strange = unlike(compiled, leader, character);
            page.waitForResponse(
                    "**/identify",
                    () -> (strange.isPresent()
                                    ? card.locator(".states")
                                            .getByRole(
                                                    AriaRole.BUTTON,
                                                    named(strange.get().label()))
                                    : card.getByRole(AriaRole.BUTTON, named("Not sure")))
                            .tap());
            nextCard(page, character);
        }
        assertThat(verdict).containsText("Perhaps something outside this key");
        assertThat(page.locator(".verdict").first()).containsText("Known, but outside this key:");
    }

    /** The state that fewest rows show, and the leader does not. */
    private static Optional<StudyCharacter.StudyState> unlike(
            CompiledStudy study, String leader, StudyCharacter character) {
        int c = study.characterIndex(character.id());
        List<StudyCharacter.StudyState> states = new ArrayList<>(character.states());
        states.removeIf(s -> IntStream.range(0, study.rows().size())
                .filter(r -> leader.contains(new SimulatedSpecimen(study, r).name()))
                .anyMatch(r -> shows(study, r, c, character.states().indexOf(s))));
        return states.stream()
                .min(Comparator.comparingLong(s -> IntStream.range(
                                0, study.rows().size())
                        .filter(r -> shows(study, r, c, character.states().indexOf(s)))
                        .count()));
    }

    private static boolean shows(CompiledStudy study, int row, int character, int state) {
        return study.matrix().cell(row, character) instanceof Cell.Categorical shown
                && (shown.readable() & 1 << state) != 0;
    }

    @Test
    void aDeadlyOneAmongElevenHarmlessIsTold() {
        Study study = DemoStudies.browncaps();
        CompiledStudy compiled = StudyCompiler.compile(study).scoredOnly();
        SimulatedSpecimen deadly = first(compiled, Hazard.LIFE_THREATENING);
        SimulatedSpecimen harmless = first(compiled, Hazard.NONE_KNOWN);
        Page page = phone();
        page.navigate("/k/" + study.slug() + "/1?view=handful&n=12");
        Locator question = page.locator(".handful article.card");
        for (int n = 0; n < 6; n++) {
            StudyCharacter character = harmless.character(question.getAttribute("aria-label"));
            boolean same = harmless.state(character).equals(deadly.state(character))
                    && harmless.typed(character).equals(deadly.typed(character));
            if (!same) {
                page.locator(".places button").nth(2).tap();
            }
            answer(page, question, character, harmless);
            if (!same) {
                assertThat(page.locator(".places button[aria-pressed=true]")).hasText("3");
                answer(page, question, character, deadly);
            }
            assertThat(page.locator(".places button[aria-pressed=true]")).hasCount(12);
        }
        Locator odd = page.locator(".group.odd");
        assertThat(odd).hasCount(1);
        assertThat(odd).containsText("No. 3");
        assertThat(odd).containsText("It differs from the others:");
        assertThat(odd).containsText("Dangerous, and not ruled out");
        assertThat(odd).containsText(deadly.name());
        assertThat(page.locator(".group h3").allInnerTexts()).contains("No. 1, 2, 4–12 (11 individuals)");
        page.reload();
        assertThat(page.locator(".group.odd")).containsText("No. 3");
        Browsing.assertAccessible(page);
    }

    private static SimulatedSpecimen first(CompiledStudy study, Hazard hazard) {
        return IntStream.range(0, study.rows().size())
                .filter(r -> study.matrix().row(r).hazard() == hazard)
                .mapToObj(r -> new SimulatedSpecimen(study, r))
                .findFirst()
                .orElseThrow();
    }
}
