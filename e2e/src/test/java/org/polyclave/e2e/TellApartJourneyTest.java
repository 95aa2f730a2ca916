package org.polyclave.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.polyclave.e2e.Browsing.button;
import static org.polyclave.e2e.Browsing.command;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.io.IOException;
import java.nio.file.Files;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.polyclave.server.RunningApplication;

/** Which pairs not separated in winter, what settles them, and what to score next, by keys and in words. */
@ExtendWith(RunningApplication.class)
class TellApartJourneyTest {
    private static final String SALLOWS = """
            taxon,#hazard,edge,stem
            #organ,,leaf,stem
            Sallow apt,none known,smooth,hollow
            Sallow dim,none known,smooth,?
            Sallow old,none known,toothed,solid
            """;

    @RegisterExtension
    final Browsing browsing = new Browsing();

    private static Locator region(Page page, String name) {
        return page.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName(name));
    }

    @Test
    void pairsThatOpenInWinterAreFoundByKeysAndSayWhatSettlesThem() throws IOException {
        Page page = browsing.signedIn("Isolde Quillane");
        page.navigate("/studies/marrowmere-tussocks/scope");
        assertThat(page.getByText("4 pairs not separated, dangers not ruled out: 2"))
                .isVisible();
        command(page, "Go to Tell apart");
        Locator map = page.getByRole(AriaRole.GRID);
        assertThat(page.getByText(", 3 by one feature only (thin), 221 by two or more (firm), of 228."))
                .isVisible();
        Browsing.assertAccessible(page);

        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("January"))
                .press("Enter");
        assertThat(page.getByText("8 pairs not separated", new Page.GetByTextOptions().setExact(true)))
                .isVisible();
        map.focus();
        Locator pair = page.locator("#active-pair");
        for (int k = 0; k < 12 && !pair.textContent().contains("Tarnella serotina and Tarnella praecox"); k++) {
            map.press("n");
        }
        assertThat(pair).containsText("nothing separates them");
        map.press("Enter");
        Locator card = region(page, "Contrast card");
        assertThat(card.getByText("What will: Jul–Oct: fruit length", new Locator.GetByTextOptions().setExact(false)))
                .isVisible();
        assertThat(card.getByText("Not in these months.").first()).isVisible();
        Browsing.assertAccessible(page);
        Download plate =
                page.waitForDownload(() -> card.getByText("Plate (PDF)").click());
        org.assertj.core.api.Assertions.assertThat(Files.size(plate.path())).isGreaterThan(1000);

        button(page, "As a list").click();
        assertThat(page.getByText("pairs are not firmly separated.")).isVisible();
        Browsing.assertAccessible(page);
        button(page, "Calendar").click();
        assertThat(page.getByText("fruit length (Jul–Oct)")).isVisible();
        Browsing.assertAccessible(page);
        page.goBack();
        assertThat(page).hasURL(Pattern.compile("months=1"));
    }

    @Test
    void whatIsWorthScoringIsWorkedThroughAndSaysWhatCameOfIt() {
        Page page = browsing.signedIn("Isolde Quillane");
        page.navigate("/import");
        page.getByLabel("Or paste a table from a spreadsheet").fill(SALLOWS);
        button(page, "Read the table").click();
        page.getByLabel("Title of the new study").fill("Sallows to tell");
        button(page, "Create study").click();
        page.waitForURL(url -> url.contains("/score"));
        assertThat(page.getByText("Find characters that separate Sallow apt / Sallow dim"))
                .isVisible();
        page.navigate(page.url().replaceFirst("/score.*", "/apart?view=next"));
        assertThat(page.getByText("one cell, 1.0 pairs expected, 1 min")).isVisible();
        Browsing.assertAccessible(page);
        button(page, "Work through").click();
        Locator list = page.getByRole(AriaRole.LISTBOX);
        assertThat(list).isFocused();
        list.press("2");
        assertThat(page.getByText("Sallow dim, stem: pairs better separated: 1.0 expected, 1 found"))
                .isVisible();
        assertThat(page.getByText("Every pair separated").first()).isVisible();

        page.navigate(page.url().replaceFirst("view=next", "rows=sallow-apt,sallow-dim"));
        assertThat(region(page, "Contrast card").getByText("separated by one feature only"))
                .isVisible();
        page.getByLabel("Name for the taxa chosen").fill("Smooth ones");
        button(page, "Keep as a group").click();
        Locator kept = region(page, "Lookalikes").getByText("Smooth ones");
        assertThat(kept).isVisible();
        Browsing.assertAccessible(page);
        button(page, "Take back your latest change")
                .or(Browsing.undo(page))
                .first()
                .click();
        assertThat(kept).not().isVisible();
    }
}
