package org.polyclave.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static org.polyclave.e2e.Browsing.button;
import static org.polyclave.e2e.Browsing.command;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Route;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.FilePayload;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.polyclave.server.RunningApplication;

/** The matrix in a working week: a file of another program becomes a study, is scored, corrected, compared and handed on. */
@ExtendWith(RunningApplication.class)
class MatrixJourneyTest {
    private static final String NEXUS = """
            #NEXUS
            BEGIN DATA;
              DIMENSIONS NTAX=3 NCHAR=2;
              FORMAT DATATYPE=STANDARD SYMBOLS="01" MISSING=? GAP=-;
              CHARSTATELABELS 1 margin / toothed entire, 2 awn;
              MATRIX
                Sallow_bane 0 1
                Sallow_mild 1 ?
                Sallow_calm ? {01}
              ;
            END;
            """;

    @RegisterExtension
    final Browsing browsing = new Browsing();

    private static FilePayload file(String name, String text) {
        return new FilePayload(name, "text/plain", text.getBytes(StandardCharsets.UTF_8));
    }

    private static Locator option(Page page, String row) {
        return page.getByRole(AriaRole.OPTION).filter(new Locator.FilterOptions().setHasText(row));
    }

    /** A study of its own, of the file of another program. */
    private Page study(String title) {
        Page page = browsing.signedIn("Isolde Quillane");
        page.navigate("/import");
        page.locator("input[type=file]").setInputFiles(file("sallows.nex", NEXUS));
        assertThat(page.getByText("Taxa, sexes and stages: 3 · Characters: 2 · Scores: 4"))
                .isVisible();
        Browsing.assertAccessible(page);
        page.getByLabel("Title of the new study").fill(title);
        button(page, "Create study").click();
        page.waitForURL(url -> url.contains("/score"));
        page.locator("canvas").waitFor();
        return page;
    }

    @Test
    void aFileOfAnotherProgramIsScoredByKeysAndHandedOn() throws IOException {
        Page page = study("Sallows by keys");
        page.navigate(page.url().replaceFirst("\\?.*", "") + "?mode=character&character=margin");
        Locator list = page.getByRole(AriaRole.LISTBOX, new Page.GetByRoleOptions().setName("margin"));
        assertThat(option(page, "Sallow bane")).containsText("toothed");
        list.press("End");
        list.press("2");
        assertThat(option(page, "Sallow calm")).containsText("entire");
        list.press("Shift+Digit1");
        assertThat(option(page, "Sallow calm")).containsText("entire, toothed");
        list.press("d");
        assertThat(page.locator("aside").getByText("Doubtful").first()).isVisible();
        Browsing.assertAccessible(page);
        page.keyboard().press("Control+z");
        page.keyboard().press("Control+z");
        assertThat(option(page, "Sallow calm")).not().containsText("toothed");

        Download nexus = page.waitForDownload(() -> command(page, "NEXUS"));
        assertThat(Files.readString(nexus.path())).contains("'Sallow calm' 1{01}");
        Download lines = page.waitForDownload(() -> command(page, "one score a line (CSV)"));
        assertThat(Files.readString(lines.path())).contains("Sallow calm,,margin,entire,judgement,,Isolde Quillane,");
    }

    @Test
    void whatOfAPastedBlockIsNoScoreIsCorrectedBeforeAnythingIsWritten() {
        Page page = study("Sallows by paste");
        Locator grid = page.getByRole(AriaRole.GRID);
        grid.press("Control+Home");
        page.evaluate("text => navigator.clipboard.writeText(text)", "entire\tstate 0\nsmoth\tstate 1");
        grid.press("Control+v");
        assertThat(page.getByText("1 of 4 cells cannot be read.")).isVisible();
        Browsing.assertAccessible(page);
        page.getByLabel("Sallow mild × margin").fill("toothed");
        page.keyboard().press("Enter");
        grid.press("ArrowDown");
        assertThat(page.locator("#active-cell")).hasText("margin: toothed");
        grid.press("ArrowRight");
        assertThat(page.locator("#active-cell")).hasText("awn: state 1");
    }

    /** The answer to the first cell comes while the second is typed: each text stays with its own cell. */
    @Test
    void anEmptyStudyIsListedAndScoredByKeysAlone() {
        Page page = browsing.signedIn("Isolde Quillane");
        Keyboard keys = new Keyboard(page);
        keys.toButton("New study").press("Enter").toField("Title of the new study");
        keys.write("Eight by hand").press("Enter");
        page.waitForURL("**/scope");
        command(page, "Go to Score");
        keys.toButton("List taxa").press("Enter");
        keys.to(page.getByLabel("Names, one a line").last());
        keys.write(
                "Velmora fusca\nVelmora pallida\nVelmora nana\nVelmora alta\nVelmora lenta\nVelmora rara\nVelmora dura\nVelmora pura");
        keys.toButton("Show what these 8 add")
                .press("Enter")
                .toButton("Add them")
                .press("Enter");
        keys.toButton("List characters").press("Enter");
        keys.to(page.getByLabel("Characters, one a line").last());
        keys.write(
                "cap colour: brown, tan\ncap width (cm)\nring\nstem: smooth, scaly\nspore print: white, cream\nspore length (µm)");
        keys.toButton("Show what these 6 add")
                .press("Enter")
                .toButton("Add them")
                .press("Enter");

        assertThat(page.getByRole(AriaRole.GRID)).isFocused();
        String[] line = {"br", "4-8", "pr", "sm", "w", "7-9"};
        for (int row = 0; row < 8; row++) {
            for (int c = 0; c < line.length; c++) {
                page.keyboard().type(line[c]);
                if (Character.isLetter(line[c].charAt(0))) {
                    page.keyboard().press("ArrowDown");
                }
                page.keyboard().press(c + 1 < line.length ? "Tab" : "Enter");
            }
        }
        assertThat(page.getByText("48 of 48 cells")).isVisible();
        page.reload();
        assertThat(page.locator("#active-cell")).hasText("cap colour: brown");
        assertThat(page.getByText("48 of 48 cells")).isVisible();
        page.getByRole(AriaRole.GRID).press("Control+a");
        assertThat(page.getByText("48 cells · 48 scored")).isVisible();
        Browsing.assertAccessible(page);
    }

    @Test
    void onASlowNetworkARefusedTextStaysInItsCell() {
        Page page = study("Sallows far away");
        List<Route> held = new ArrayList<>();
        page.route("**/scores", held::add);
        Locator grid = page.getByRole(AriaRole.GRID);
        grid.press("Control+Home");
        page.keyboard().type("smoth");
        page.keyboard().press("Enter");
        page.keyboard().type("too");
        assertThat(held).hasSize(1);
        held.get(0).resume();
        assertThat(page.getByText("One text was not taken.")).isVisible();
        assertThat(page.locator("input.editor")).hasValue("too");
        page.keyboard().type("thed");
        page.keyboard().press("Enter");
        page.waitForCondition(() -> held.size() == 2);
        held.get(1).resume();
        Browsing.assertAccessible(page);
        grid.press("Control+Home");
        assertThat(page.locator("#active-cell")).hasText("margin: smoth, not taken");
        grid.press("ArrowDown");
        assertThat(page.locator("#active-cell")).hasText("margin: toothed");

        button(page, "Correct the text").click();
        assertThat(page.locator("input.editor")).hasValue("smoth");
        page.locator("input.editor").fill("entire");
        page.keyboard().press("Enter");
        page.waitForCondition(() -> held.size() == 3);
        held.get(2).resume();
        assertThat(page.getByText("One text was not taken.")).not().isVisible();
        page.reload();
        grid.press("Control+Home");
        assertThat(page.locator("#active-cell")).hasText("margin: entire");
    }

    /**
     * Types into the field that its form looks at first, once it does: on a slow machine the look comes late, and would
     * carry what is typed into the next field back into this one.
     */
    private static void typeFirst(Locator field, String text) {
        assertThat(field).isFocused();
        field.fill(text);
    }

    @Test
    void scoresAreFoundByMeaningComparedWithASnapshotAndBroughtBack() {
        Page page = study("Sallows by meaning");
        command(page, "snapshots");
        page.getByLabel("Name of the snapshot").fill("As it came");
        page.keyboard().press("Enter");
        assertThat(page.getByText("Nothing changes.")).isVisible();
        button(page, "Add a term").click();
        typeFirst(page.getByLabel("Term", new Page.GetByLabelOptions().setExact(true)), "Awn");
        page.getByLabel("Definition").fill("A bristle");
        button(page, "Save").click();
        assertThat(page.getByText("A bristle")).isVisible();
        Browsing.assertAccessible(page);

        command(page, "Go to Score");
        page.locator("canvas").waitFor();
        button(page, "Find and replace").click();
        typeFirst(page.getByLabel("Saying (in notation; empty: anything)"), "toothed");
        page.getByLabel("New score (empty: it stays)").fill("usually toothed, rarely entire");
        Browsing.assertAccessible(page);
        button(page, "Show what changes").click();
        assertThat(page.getByText("Sallow bane × margin")).isVisible();
        button(page, "Replace").click();
        assertThat(page.getByText("Sallow bane × margin")).not().isVisible();

        command(page, "snapshots");
        assertThat(page.getByText("Sallow bane × margin")).isVisible();
        button(page, "Restore").click();
        page.getByRole(AriaRole.DIALOG)
                .getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Restore"))
                .click();
        assertThat(page.getByText("Nothing changes.")).isVisible();
        assertThat(page.getByText("A bristle")).not().isVisible();
    }

    @Test
    void aSpecimenIsNoEvidenceForTheCharacterThatNamedIt() {
        Page page = study("Sallows by specimens");
        command(page, "Go to Gather");
        button(page, "Add a specimen").click();
        typeFirst(page.getByLabel("Code on the label"), "SV 1");
        button(page, "Name it").click();
        choose(page, "Taxon", "Sallow bane");
        choose(page, "Characters that were used", "margin");
        page.keyboard().press("Escape");
        Browsing.assertAccessible(page);
        button(page, "Save").click();
        assertThat(page.getByText("by margin")).isVisible();

        page.navigate(page.url().replaceFirst("/gather.*", "/score?row=sallow-bane&character=margin&frozen=awn"));
        assertThat(page.locator("#active-cell")).hasText("margin: toothed");
        page.getByText("Where it comes from").click();
        choose(page, "Basis", "From specimens");
        choose(page, "Specimens seen or measured", "SV 1");
        page.keyboard().press("Escape");
        button(page, "Save").click();
        assertThat(page.locator("aside").getByText("no evidence for what")).isVisible();
        Browsing.assertAccessible(page);

        page.locator("aside")
                .getByRole(AriaRole.LINK, new Locator.GetByRoleOptions().setName("SV 1"))
                .click();
        assertThat(page.getByText("one score rests on it")).isVisible();
        button(page, "Name it again").click();
        choose(page, "Characters that were used", "awn");
        page.keyboard().press("Escape");
        button(page, "Save").click();
        assertThat(page.getByText("by awn")).isVisible();
        // Its line says so while the form is still open, too.
        assertThat(button(page, "Save")).hasCount(0);
        page.goBack();
        assertThat(page.locator("#active-cell")).hasText("margin: toothed");
        assertThat(page.locator("aside").getByText("no evidence for what"))
                .not()
                .isVisible();
    }

    /** Chooses an entry of the last list with a label: a specimen has one for each of its names. */
    private static void choose(Page page, String label, String entry) {
        page.getByRole(AriaRole.COMBOBOX, new Page.GetByRoleOptions().setName(label))
                .last()
                .press("ArrowDown");
        page.getByRole(
                        AriaRole.OPTION,
                        new Page.GetByRoleOptions().setName(entry).setExact(true))
                .last()
                .click();
    }

    @Test
    void aSecondFileJoinsTheStudyAsOneChange() {
        Page page = study("Sallows joined");
        command(page, "Import a file into this study");
        page.waitForURL("**/import?into=*");
        page.locator("input[type=file]")
                .setInputFiles(file("more.csv", "taxon,margin,petals\nsallow BANE,lobed,4-5\nSallow new,entire,6\n"));
        assertThat(page.getByText("Sallow new", new Page.GetByTextOptions().setExact(true)))
                .isVisible();
        assertThat(page.locator("del").getByText("toothed", new Locator.GetByTextOptions().setExact(true)))
                .isVisible();
        Browsing.assertAccessible(page);
        button(page, "Make these changes").click();
        page.waitForURL(url -> url.contains("/score"));
        assertThat(page.getByText("4 taxa, 4 hazards not assessed")).isVisible();
        page.keyboard().press("Control+z");
        assertThat(page.getByText("3 taxa, 3 hazards not assessed")).isVisible();
    }
}
