package org.polyclave.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static org.polyclave.e2e.Browsing.button;

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

/** Whole journeys through the real interface: from a table to a key that somebody else reads. */
@ExtendWith(RunningApplication.class)
class JourneyTest {
    private static final String STUDY = "/studies/marrowmere-tussocks";

    private static final String TABLE = """
            taxon,#hazard,stem colour,leaf margin,leaf width,petals
            #type,,states,states,length,count
            #organ,,stem,leaf,leaf,flower
            #states,,red|green,toothed|entire|lobed,,
            #months,,,,,Jun–Jul
            Sallow bane,serious,red,toothed,5–9,5
            Sallow mild,none known,red,entire,12–20,4
            Sallow calm,none known,green,lobed,4–6,6
            """;

    @RegisterExtension
    final Browsing browsing = new Browsing();

    private static Locator stage(Page page, String name) {
        return page.getByRole(AriaRole.NAVIGATION).getByText(name, new Locator.GetByTextOptions().setExact(true));
    }

    @Test
    void theDemoStudyShowsItsStagesAndItsNextBestStep() {
        Page page = browsing.signedIn("Isolde Quillane");
        Browsing.assertAccessible(page);
        page.getByText("Tussock plants of Marrowmere").click();
        assertThat(page.getByText("19 taxa, one hazard not assessed")).isVisible();
        assertThat(page.locator("footer")).containsText("Assess the hazard of Tarnella obscura");
        for (String name : new String[] {"Scope", "Characters", "Score", "Key", "Any-order key", "Publish"}) {
            stage(page, name).click();
            page.waitForLoadState(com.microsoft.playwright.options.LoadState.NETWORKIDLE);
            Browsing.assertAccessible(page);
        }
        page.keyboard().press("Control+k");
        page.getByRole(AriaRole.COMBOBOX, new Page.GetByRoleOptions().setName("Command"))
                .fill("csv");
        Download download = page.waitForDownload(() -> page.keyboard().press("Enter"));
        assertThat(download.suggestedFilename()).isEqualTo("marrowmere-tussocks.csv");
    }

    @Test
    void aTableBecomesAStudyAKeyAndAnEdition() throws IOException {
        Page page = browsing.signedIn("Isolde Quillane");
        page.getByText("Import a matrix").click();
        page.getByLabel("Or paste a table from a spreadsheet").fill(TABLE.replace("5–9", "9–5"));
        button(page, "Read the table").click();
        assertThat(page.getByText("Row 6, column 5")).isVisible();
        assertThat(page.getByText("do not rise from left to right").first()).isVisible();
        assertThat(button(page, "Create study")).hasCount(0);
        Browsing.assertAccessible(page);

        page.getByLabel(Pattern.compile("^What “9–5” in .* means$")).fill("5–9");
        button(page, "Correct one cell").click();
        assertThat(page.getByText("One correction")).isVisible();
        page.getByText("What became of the table").click();
        assertThat(page.getByText("Lines with something in them: 8")).isVisible();
        assertThat(button(page, "Create study")).isDisabled();
        page.getByLabel("Title of the new study").fill("Sallows of the ford");
        button(page, "Create study").click();
        page.waitForURL(url -> url.contains("/score"));

        stage(page, "Key").click();
        assertThat(page.getByText("Proven: every specimen of 3 taxa reaches its name"))
                .isVisible();
        page.getByLabel("Optimise for").first().press("Enter");
        page.locator(".v-list-item").getByText("fewest steps").click();
        assertThat(page.getByText(Pattern.compile("The shortest there is|Searched completely")))
                .isVisible();
        page.locator(".couplet").first().click();
        assertThat(page.getByText("It could also ask")).isVisible();
        button(page, "Download").click();
        Download file = page.waitForDownload(() -> page.getByText("Web page").click());
        assertThat(Files.readString(file.path()))
                .contains("Sallow bane")
                .contains("serious hazard")
                .doesNotContain("<script");

        stage(page, "Publish").click();
        assertThat(page.locator(".finding")).containsText("Sallow bane");
        button(page, "Publish the next edition").click();
        assertThat(page.getByRole(AriaRole.ALERT)).containsText("covers and what it leaves out");
        stage(page, "Scope").click();
        page.getByLabel("What it covers").fill("Three sallows");
        page.getByLabel("What it leaves out").fill("All others");
        button(page, "Save").click();
        assertThat(page.getByText("Saved.")).isVisible();
        stage(page, "Publish").click();
        button(page, "Publish the next edition").click();
        assertThat(page.getByRole(AriaRole.ALERT))
                .containsText("'Sallow bane' cannot be ruled out against 'Sallow mild");
        page.getByLabel("What readers are told about it").fill("Out of flower, leave all sallows alone.");
        button(page, "Publish the next edition").click();
        assertThat(page.getByText("Edition 1 is published at")).isVisible();
        String address =
                page.getByRole(AriaRole.STATUS).getByRole(AriaRole.LINK).getAttribute("href");

        Page reader = browsing.visitor(1280, 800);
        reader.navigate(address);
        assertThat(reader.getByText("Out of flower, leave all sallows alone.")).isVisible();
        Browsing.assertAccessible(reader);

        stage(page, "Score").click();
        page.getByRole(AriaRole.GRID).press("x");
        page.getByLabel("Score in notation").fill("green");
        page.keyboard().press("Enter");
        reader.reload();
        reader.locator("nav")
                .getByText("Taxa", new Locator.GetByTextOptions().setExact(true))
                .click();
        reader.locator(".taxa").getByText("Sallow bane").click();
        assertThat(reader.locator(".taxon")).containsText("red");
    }

    @Test
    void scoringByKeyboardOnly() {
        Page page = browsing.signedIn("Isolde Quillane");
        page.navigate(STUDY + "/score?row=tarnella-praecox&character=leaf-tip");
        Locator active = page.locator("#active-cell");
        assertThat(active).hasText("leaf tip: tapering");
        page.keyboard().type("usualy blunt");
        page.keyboard().press("Enter");
        assertThat(page.getByText("is not a state of 'leaf tip'").first()).isVisible();
        button(page, "Correct the text").focus();
        page.keyboard().press("Enter");
        assertThat(page.getByLabel("Score in notation")).hasValue("usualy blunt");
        page.keyboard().press("Control+a");
        page.keyboard().type("usually blunt, rarely hooded");
        page.keyboard().press("Tab");
        page.keyboard().press("ArrowLeft");
        assertThat(active).hasText("leaf tip: usually blunt, rarely hooded");
        page.keyboard().press("Control+c");
        page.keyboard().press("ArrowDown");
        page.keyboard().press("Control+v");
        assertThat(active).hasText("leaf tip: usually blunt, rarely hooded");
        page.keyboard().press("Control+z");
        assertThat(active).hasText("leaf tip: tapering");
        page.keyboard().press("Control+Shift+z");
        assertThat(active).hasText("leaf tip: usually blunt, rarely hooded");
        page.keyboard().press("Control+z");
        assertThat(active).hasText("leaf tip: tapering");
        page.keyboard().press("Shift+ArrowDown");
        page.keyboard().press("Delete");
        assertThat(active).hasText("leaf tip: not scored");
        page.keyboard().press("Control+z");
        assertThat(active).hasText("leaf tip: tapering");
        page.keyboard().press("?");
        assertThat(page.getByText("start typing a score")).isVisible();
    }

    @Test
    void taxaAndCharactersAreEditedAndEverythingIsUndone() {
        Page page = browsing.signedIn("Isolde Quillane");
        page.getByText("Import a matrix").click();
        page.getByLabel("Or paste a table from a spreadsheet").fill(TABLE);
        button(page, "Read the table").click();
        page.getByLabel("Title of the new study").fill("Sallows to edit");
        button(page, "Create study").click();
        page.waitForURL(url -> url.contains("/score"));

        stage(page, "Scope").click();
        page.getByRole(AriaRole.TREEITEM)
                .filter(new Locator.FilterOptions().setHasText("Sallow bane"))
                .click();
        page.getByLabel("Name", new Page.GetByLabelOptions().setExact(true)).fill("Sallow grave");
        button(page, "Record a hazard").click();
        page.getByLabel("Caution for readers").fill("Wear gloves");
        Browsing.assertAccessible(page);
        button(page, "Save").click();
        assertThat(page.getByText("Saved.")).isVisible();
        assertThat(page.getByRole(AriaRole.TREEITEM).filter(new Locator.FilterOptions().setHasText("Sallow grave")))
                .containsText("serious");
        button(page, "Add a sex or stage").click();
        page.getByLabel("Sex or stage", new Page.GetByLabelOptions().setExact(true))
                .fill("female");
        button(page, "Save").click();
        assertThat(page.getByText("Saved.")).isVisible();
        Locator female = page.getByRole(AriaRole.TREEITEM)
                .filter(new Locator.FilterOptions().setHasText("Sallow grave, female"));
        assertThat(female).isVisible();
        female.focus();
        page.keyboard().press("Delete");
        button(page, "Remove").last().click();
        assertThat(female).hasCount(0);

        stage(page, "Characters").click();
        button(page, "Edit leaf margin").click();
        button(page, "Add a state").click();
        page.getByLabel("State 4").fill("larger");
        Browsing.assertAccessible(page);
        button(page, "Save").click();
        assertThat(page.getByRole(AriaRole.ALERT)).containsText("compares, but with what?");
        page.getByLabel("State 4").fill("wavy");
        button(page, "Save").click();
        assertThat(page.getByText("Saved.")).isVisible();
        button(page, "Merge entire into …").click();
        page.locator(".v-menu .v-list-item").getByText("wavy").click();
        assertThat(page.getByRole(AriaRole.DIALOG)).containsText("leaf margin");
        assertThat(page.getByRole(AriaRole.DIALOG)).containsText("Undo brings everything back.");
        button(page, "Apply").click();
        assertThat(page.getByLabel("State 3")).hasValue("wavy");

        page.getByText("finding").first().click();
        assertThat(page.getByText("has no question for readers").first()).isVisible();
        Browsing.assertAccessible(page);
        page.goBack();

        // Back, step by step: merge, state, removal, stage, taxon.
        for (int step = 0; step < 5; step++) {
            Browsing.undo(page).click();
            page.waitForTimeout(300);
        }
        assertThat(page.getByLabel("State 2")).hasValue("entire");
        stage(page, "Scope").click();
        assertThat(page.getByRole(AriaRole.TREEITEM).filter(new Locator.FilterOptions().setHasText("Sallow bane")))
                .containsText("serious hazard");
    }

    @Test
    void twoPeopleAtOneCell() {
        Page isolde = browsing.signedIn("Isolde Quillane");
        Page oswin = browsing.signedIn("Oswin Brandreth");
        String cell = STUDY + "/score?row=velmia-aquatilis&character=leaf-blade";
        isolde.navigate(cell);
        oswin.navigate(cell);
        assertThat(isolde.locator("#active-cell")).hasText("leaf blade: flat");
        oswin.getByRole(AriaRole.GRID).press("c");
        oswin.getByLabel("Score in notation").fill("channelled");
        isolde.getByRole(AriaRole.GRID).press("r");
        isolde.getByLabel("Score in notation").fill("rolled");
        isolde.keyboard().press("Enter");
        isolde.keyboard().press("ArrowUp");
        assertThat(isolde.locator("#active-cell")).hasText("leaf blade: rolled");
        oswin.keyboard().press("Enter");
        Locator dialog = oswin.getByRole(AriaRole.DIALOG);
        button(oswin, "Compare both").click();
        assertThat(dialog).containsText("Changed by two people");
        assertThat(dialog).containsText("channelled");
        assertThat(dialog).containsText("rolled");
        assertThat(dialog).containsText("Isolde Quillane");
        button(oswin, "Keep theirs").click();
        assertThat(dialog).isHidden();
        assertThat(oswin.getByRole(AriaRole.GRID)).isFocused();
        assertThat(oswin.locator("#active-cell")).hasText("leaf blade: rolled");
        isolde.keyboard().press("Control+z");
        assertThat(isolde.locator("#active-cell")).hasText("leaf blade: flat");
    }

    @Test
    void aReaderOnAPhoneGetsThereInAnyOrder() {
        Page phone = browsing.visitor(360, 740);
        phone.navigate("/k/marrowmere-tussocks");
        assertThat(phone.getByText("not enough to eat anything")).isVisible();
        Browsing.assertAccessible(phone);
        assertThat((Boolean) phone.evaluate("document.documentElement.scrollWidth <= 360"))
                .as("no sideways scrolling")
                .isTrue();
        phone.locator(".doors").getByText("Any-order key").click();
        assertThat(phone.locator(".danger")).containsText("Ostrivia fallax, flowering");
        phone.getByText("All questions, by part or by words").click();
        phone.getByRole(AriaRole.TEXTBOX, new Page.GetByRoleOptions().setName("Find a question by words"))
                .fill("leaf colour");
        button(phone, "grey-green").click();
        assertThat(phone.locator(".verdict")).containsText("Still open");
        assertThat(phone.locator(".said")).containsText("grey-green");
        phone.getByText("Can’t see it").first().click();
        assertThat(phone.locator(".said")).containsText("not seen");
        assertThat(phone).hasURL(Pattern.compile("seen=leaf-colour"));
        Browsing.assertAccessible(phone);
        phone.locator(".answer", new Page.LocatorOptions().setHasText("grey-green"))
                .locator("summary")
                .click();
        phone.locator(".answer").getByText("likely").click();
        assertThat(phone.locator(".said")).containsText("grey-green (likely)");
        phone.locator(".ladder button").first().click();
        assertThat(phone.locator("aside.why")).containsText("Together (bits)");
        phone.getByText("How and with what").click();
        phone.getByText("Strike out").click();
        assertThat(phone.locator(".ladder .out").first()).isVisible();
        phone.locator(".answer").getByText("Withdraw").click();
        assertThat(phone.locator(".ladder .out")).hasCount(0);
        phone.locator("nav").getByText("Couplet key").click();
        phone.locator(".card").nth(1).click();
        phone.getByText("Cannot tell").click();
        assertThat(phone.locator(".trail li")).hasCount(2);
        assertThat(phone.locator(".trail")).containsText("could not tell");
        assertThat(phone.locator(".possible .dangers")).containsText("life-threatening");
        Browsing.assertAccessible(phone);
        phone.goBack();
        assertThat(phone.locator(".trail li")).hasCount(1);
        phone.reload();
        phone.locator(".card").first().waitFor();
        while (phone.locator(".card").count() > 0) {
            int passed = phone.locator(".trail li").count();
            phone.locator(".take").first().click();
            assertThat(phone.locator(".trail li")).hasCount(passed + 1);
        }
        phone.locator(".others a").first().click();
        assertThat(phone.locator(".reading h2")).isFocused();
        phone.getByText("Whole key").click();
        phone.locator(".couplet .next").first().click();
        assertThat(phone.locator("#couplet-2")).isInViewport();
        Browsing.assertAccessible(phone);
    }

    @Test
    void whatIsNotYoursIsNotThere() {
        Page stranger = browsing.visitor(1280, 800);
        stranger.navigate(STUDY + "/score");
        assertThat(stranger).hasURL(Pattern.compile("/sign-in\\?next="));
        stranger.navigate("/k/nothing-here");
        assertThat(stranger.getByText("This edition does not exist")).isVisible();
        Page learner = browsing.signedIn("Lark Harrow");
        learner.navigate(STUDY + "/score?row=tarnella-nana&character=leaf-tip");
        learner.getByRole(AriaRole.GRID).press("x");
        assertThat(learner.getByLabel("Score in notation")).hasCount(0);
    }
}
