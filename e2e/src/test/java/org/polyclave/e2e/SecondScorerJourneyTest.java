package org.polyclave.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static org.polyclave.e2e.Browsing.button;
import static org.polyclave.e2e.Browsing.command;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.FilePayload;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.polyclave.files.convert.MatrixFiles;
import org.polyclave.server.RunningApplication;
import org.polyclave.study.model.Study;

/**
 * From a field book that nobody prepared and a NEXUS file to an illustrated study that two people scored, one settled, and a
 * table that holds all of it; without a mouse.
 */
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

    private static final String NEXUS = """
            #NEXUS
            BEGIN DATA;
              DIMENSIONS NTAX=3 NCHAR=1;
              FORMAT DATATYPE=STANDARD SYMBOLS="01";
              CHARSTATELABELS 1 'stem hairs' / absent present;
              MATRIX
                'Sallow mild' 0
                'Sallow bane' 1
                'Sallow calm' 0
              ;
            END;
            """;

    private static FilePayload file(String name, String text) {
        return new FilePayload(name, "text/plain", text.getBytes(StandardCharsets.UTF_8));
    }

    @RegisterExtension
    final Browsing browsing = new Browsing();

    @Test
    void byKeysAloneAFieldBookBecomesAnIllustratedTwiceScoredStudy() throws IOException {
        Page page = browsing.signedIn("Isolde Quillane");
        Keyboard keys = new Keyboard(page);
        String study = importFieldBook(page, keys);
        joinNexus(page, keys);
        illustrate(page, keys, study);
        check(page, keys);
        askOswin(page, keys);
        scoreBlind(study);
        settle(page, keys, study);
        export(page, keys, study);
    }

    private static String importFieldBook(Page page, Keyboard keys) {
        page.navigate("/import");
        keys.to(page.locator("input[type=file]")).choose(file("field book.csv", FIELD_BOOK));
        assertThat(page.getByText("The table as it stands").first()).isVisible();
        assertThat(page.getByText("Taxa, sexes and stages: 3 · Characters: 2 · Scores: 6"))
                .isVisible();
        Browsing.assertAccessible(page);
        keys.toField("Name of the character in column 4").write("leaf breadth").press("Tab");
        assertThat(page.getByText("leaf breadth").first()).isVisible();
        keys.toField("Title of the new study").write("Sallows of the field book");
        keys.toButton("Create study").press("Enter");
        page.waitForURL(url -> url.contains("/score"));
        page.locator("canvas").waitFor();
        return page.url().replaceFirst("/score.*", "");
    }

    /** A colleague's matrix brings one more character. */
    private static void joinNexus(Page page, Keyboard keys) {
        command(page, "Import a file into this study");
        page.waitForURL(url -> url.contains("/import?into="));
        keys.to(page.locator("input[type=file]")).choose(file("hairs.nex", NEXUS));
        assertThat(page.getByText("Taxa, sexes and stages: 3 · Characters: 1 · Scores: 3"))
                .isVisible();
        keys.toButton("Make these changes").press("Enter");
        page.waitForURL(url -> url.contains("/score"));
    }

    private static void illustrate(Page page, Keyboard keys, String study) {
        page.navigate(study + "/characters?character=leaf-margin");
        keys.toButton("Ready characters").press("Enter");
        keys.toField("Find by name, organ or state").write("gills meet");
        Locator wanted = page.getByRole(AriaRole.CHECKBOX, new Page.GetByRoleOptions().setName("gill attachment"));
        keys.to(wanted).press("Space");
        Browsing.assertAccessible(page);
        keys.toButton("Copy one character").press("Enter");
        assertThat(page.locator("article#gill-attachment img")).hasCount(4);
        keys.toButton("Picture of toothed").press("Enter");
        keys.to(page.locator("input[type=file]")).choose(file("x.svg", DRAWING));
        keys.toButton("Add the picture").press("Enter");
        assertThat(page.locator(".chooser img")).hasCount(1);
        keys.toButton("Save").press("Enter");
        assertThat(page.locator("article#leaf-margin img")).hasCount(1);
        Browsing.assertAccessible(page);
    }

    /** A finding that is meant is accepted with a reason. */
    private static void check(Page page, Keyboard keys) {
        command(page, "Open the checks");
        page.waitForURL("**/checks");
        Locator meant = page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Accept as intended"))
                .first();
        keys.to(meant).press("Enter");
        keys.toField("Reason").write("Only three are known");
        keys.press("Enter");
        assertThat(page.getByText("Only three are known")).hasCount(1);
    }

    private static void askOswin(Page page, Keyboard keys) {
        command(page, "Share the study");
        keys.toField("Name of an account").write("oswin").press("Enter");
        assertThat(page.getByText("Oswin Brandreth").first()).isVisible();
        keys.press("Escape");
        command(page, "Second scorers");
        page.waitForURL("**/second");
        keys.to(field(page, "Scorer")).pick("Oswin Brandreth");
        keys.to(field(page, "Characters (none: all)")).pick("leaf margin");
        keys.press("Escape");
        keys.toField("What to know (which specimens, which drawer)").write("Drawer 3");
        keys.toButton("Ask to score").press("Enter");
        assertThat(page.getByText("0 of 3 cells").first()).isVisible();
        Browsing.assertAccessible(page);
    }

    private static Locator field(Page page, String label) {
        return page.getByLabel(label, new Page.GetByLabelOptions().setExact(true))
                .first();
    }

    private void scoreBlind(String study) {
        Page scorer = browsing.signedIn("Oswin Brandreth");
        Keyboard keys = new Keyboard(scorer);
        scorer.navigate(study + "/score");
        assertThat(scorer.getByText("What others scored is hidden")).isVisible();
        scorer.navigate(study + "/second");
        Locator score = scorer.getByRole(
                        AriaRole.LINK,
                        new Page.GetByRoleOptions().setName("Score").setExact(true))
                .last();
        keys.to(score).press("Enter");
        keys.to(scorer.getByRole(AriaRole.LISTBOX)).press("2", "1", "1");
        assertThat(scorer.getByText("3 of 3 cells")).isVisible();
        Browsing.assertAccessible(scorer);
        keys.toButton("Hand in my scores").press("Enter");
        Locator sure = scorer.getByRole(AriaRole.DIALOG)
                .getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Hand in my scores"));
        keys.to(sure).press("Enter");
        scorer.waitForURL("**/second");
        assertThat(scorer.getByText("Agreement").first()).isVisible();
    }

    private static void settle(Page page, Keyboard keys, String study) {
        page.navigate(study + "/second");
        assertThat(page.getByText("33 %")).isVisible();
        Browsing.assertAccessible(page);
        keys.toButton("Sallow bane").press("Enter");
        Locator dialog = page.getByRole(AriaRole.DIALOG);
        assertThat(dialog.getByText("accepted now")).isVisible();
        keys.to(dialog.getByLabel("Why (kept with the score)")).write("looked at again");
        keys.to(dialog.getByLabel("Accepted score"))
                .write("usually entire, sometimes toothed")
                .press("Enter");
        assertThat(button(page, "Sallow bane")).hasCount(0);
        page.navigate(study + "/score?row=sallow-bane&character=leaf-margin");
        assertThat(page.locator("aside").getByText("looked at again").first()).isVisible();
    }

    /** A table that takes all along reads back as the study that the study file holds. */
    private static void export(Page page, Keyboard keys, String study) throws IOException {
        String name = study.replaceFirst(".*/", "");
        command(page, "Export the study");
        keys.toField("Embed what this format cannot express").press("Space");
        assertThat(page.getByText("Nothing is left out.")).isVisible();
        Browsing.assertAccessible(page);
        byte[] table = Files.readAllBytes(keys.toButton("Save the file").save().path());
        command(page, "Export the study");
        keys.to(page.getByRole(AriaRole.RADIO).first()).press("ArrowUp");
        byte[] file = Files.readAllBytes(keys.toButton("Save the file").save().path());
        Study whole = MatrixFiles.read(file, name + ".polyclave.json").study();
        assertThat(whole.pictures()).hasSizeGreaterThan(4);
        assertThat(whole.opinions()).isNotEmpty();
        assertThat(MatrixFiles.read(table, name + ".csv").study()).isEqualTo(whole);
    }
}
