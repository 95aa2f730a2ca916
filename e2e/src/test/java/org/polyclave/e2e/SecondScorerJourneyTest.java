package org.polyclave.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.polyclave.e2e.Browsing.button;
import static org.polyclave.e2e.Browsing.command;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.FilePayload;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.polyclave.server.RunningApplication;

/** From a field book that nobody prepared to an illustrated study that two people scored and one settled. */
@ExtendWith(RunningApplication.class)
class SecondScorerJourneyTest {
    private static final String FIELD_BOOK = """
            Field book of the lower meadow, spring
            No;Genus;Epithet;Leaf;;Remarks
            ;;;width;margin;
            ;;;(mm);;
            1;Sallow;mild;4,5–9;toothed (young ones);by the ford
            2;;bane;3,2*;entire;
            3;;calm;-;toothed;wet
            """;
    private static final String DRAWING =
            "<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 12 9'><path d='M1 1L11 8' stroke='#222'/></svg>";

    @RegisterExtension
    final Browsing browsing = new Browsing();

    /** Chooses one of a select's items by its first letters and Enter. */
    private static void choose(Page page, String label, String item) {
        Locator select = page.getByLabel(label, new Page.GetByLabelOptions().setExact(true))
                .first();
        select.focus();
        select.press("ArrowDown");
        page.getByRole(AriaRole.OPTION, new Page.GetByRoleOptions().setName(item))
                .first()
                .click();
        page.keyboard().press("Escape");
    }

    @Test
    void aFieldBookBecomesAnIllustratedTwiceScoredStudy() {
        Page page = browsing.signedIn("Isolde Quillane");
        String study = importFieldBook(page);
        illustrate(page, study);
        askOswin(page);
        scoreBlind(study);
        settle(page, study);
    }

    private static String importFieldBook(Page page) {
        page.navigate("/import");
        page.getByLabel("Or paste a table from a spreadsheet").fill(FIELD_BOOK);
        page.keyboard().press("Tab");
        page.keyboard().press("Enter");
        assertThat(page.getByText("The table as it stands").first()).isVisible();
        assertThat(page.getByText("3 taxa, sexes and stages; 2 characters; 5 scores"))
                .isVisible();
        Browsing.assertAccessible(page);
        Locator name = page.getByLabel("Name of the character in column 4");
        name.fill("leaf breadth");
        name.press("Tab");
        assertThat(page.getByText("leaf breadth").first()).isVisible();
        page.getByLabel("Title of the new study").fill("Sallows of the field book");
        page.keyboard().press("Enter");
        if (!page.url().endsWith("/score")) {
            button(page, "Make this a study").press("Enter");
        }
        page.waitForURL(url -> url.contains("/score"));
        page.locator("canvas").waitFor();
        return page.url().replaceFirst("/score.*", "");
    }

    private static void illustrate(Page page, String study) {
        page.navigate(study + "/characters?character=leaf-margin");
        button(page, "Ready characters").press("Enter");
        page.getByLabel("Find by name, organ or state").fill("gills meet");
        Locator wanted = page.getByRole(AriaRole.CHECKBOX, new Page.GetByRoleOptions().setName("gill attachment"));
        wanted.press("Space");
        Browsing.assertAccessible(page);
        button(page, "Copy one character").press("Enter");
        assertThat(page.locator("article#gill-attachment img")).hasCount(4);
        button(page, "Picture of toothed").press("Enter");
        page.locator("input[type=file]")
                .setInputFiles(new FilePayload("x.svg", "image/svg+xml", DRAWING.getBytes(StandardCharsets.UTF_8)));
        button(page, "Add the picture").press("Enter");
        assertThat(page.locator(".chooser img")).hasCount(1);
        button(page, "Save").press("Enter");
        assertThat(page.locator("article#leaf-margin img")).hasCount(1);
        Browsing.assertAccessible(page);
    }

    private static void askOswin(Page page) {
        command(page, "Share the study");
        page.getByLabel("Name of an account").fill("oswin");
        page.keyboard().press("Enter");
        assertThat(page.getByText("Oswin Brandreth").first()).isVisible();
        page.keyboard().press("Escape");
        command(page, "Second scorers");
        page.waitForURL("**/second");
        choose(page, "Scorer", "Oswin Brandreth");
        choose(page, "Characters (none: all)", "leaf margin");
        page.getByLabel("What to know (which specimens, which drawer)").fill("Drawer 3");
        button(page, "Ask to score").press("Enter");
        assertThat(page.getByText("0 of 3 cells").first()).isVisible();
        Browsing.assertAccessible(page);
    }

    private void scoreBlind(String study) {
        Page scorer = browsing.signedIn("Oswin Brandreth");
        scorer.navigate(study + "/score");
        assertThat(scorer.getByText("What others scored is hidden")).isVisible();
        scorer.navigate(study + "/second");
        scorer.getByRole(
                        AriaRole.LINK,
                        new Page.GetByRoleOptions().setName("Score").setExact(true))
                .last()
                .press("Enter");
        Locator list = scorer.getByRole(AriaRole.LISTBOX);
        list.waitFor();
        list.press("2");
        list.press("1");
        list.press("1");
        assertThat(scorer.getByText("3 of 3 cells")).isVisible();
        Browsing.assertAccessible(scorer);
        button(scorer, "Hand in my scores").press("Enter");
        scorer.getByRole(AriaRole.DIALOG)
                .getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Hand in my scores"))
                .press("Enter");
        scorer.waitForURL("**/second");
        assertThat(scorer.getByText("Agreement").first()).isVisible();
    }

    private static void settle(Page page, String study) {
        page.navigate(study + "/second");
        assertThat(page.getByText("33 %")).isVisible();
        Browsing.assertAccessible(page);
        button(page, "Sallow bane").press("Enter");
        Locator dialog = page.getByRole(AriaRole.DIALOG);
        assertThat(dialog.getByText("accepted now")).isVisible();
        dialog.getByLabel("Why (kept with the score)").fill("looked at again");
        dialog.getByLabel("Accepted score").fill("usually entire, sometimes toothed");
        page.keyboard().press("Enter");
        assertThat(button(page, "Sallow bane")).hasCount(0);
        page.navigate(study + "/score?row=sallow-bane&character=leaf-margin");
        assertThat(page.locator("aside").getByText("looked at again").first()).isVisible();
    }
}
