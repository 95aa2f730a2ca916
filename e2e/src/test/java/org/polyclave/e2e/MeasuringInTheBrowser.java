package org.polyclave.e2e;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.options.FilePayload;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.demo.specimen.SpecimenPicture;
import org.polyclave.files.study.StudyJson;
import org.polyclave.study.model.Picture;
import org.polyclave.study.model.Specimen;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScope;

/**
 * Measures the bench in headless Chromium against a running server: {@code MeasuringInTheBrowser BASE_URL} imports a made-up
 * study of 1,700 specimens, of which one has a picture of 24 megapixels, opens that, drags and zooms it, and brings in 50,000
 * readings by a table. Prints medians; an empty canvas is moved in the same run.
 */
public final class MeasuringInTheBrowser {
    private static final int SPECIMENS = 1_700;
    private static final int CHARACTERS = 10;
    private static final int ITEMS = 3;
    private static final int FRAMES = 120;
    private static final double PATIENCE = 300_000;

    private static final String PANNED = """
            async ([x, y, frames, zoom]) => {
              const bench = document.querySelector('.bench');
              const send = (type, dx) => bench.dispatchEvent(new PointerEvent(type, {
                pointerId: 1, pointerType: 'mouse', button: 0, clientX: x + dx, clientY: y + dx / 2, bubbles: true }));
              bench.setPointerCapture = () => undefined;
              const times = [];
              if (!zoom) send('pointerdown', 0);
              let last = await new Promise(requestAnimationFrame);
              for (let i = 0; i < frames; i++) {
                if (zoom) {
                  bench.dispatchEvent(new WheelEvent('wheel', {
                    deltaY: i < frames / 2 ? -60 : 60, clientX: x, clientY: y, bubbles: true, cancelable: true }));
                } else send('pointermove', 80 * Math.sin(i / 9));
                const now = await new Promise(requestAnimationFrame);
                times.push(now - last);
                last = now;
              }
              if (!zoom) send('pointerup', 0);
              return times.sort((a, b) => a - b)[Math.floor(frames / 2)];
            }""";

    private MeasuringInTheBrowser() {}

    public static void main(String[] args) {
        try (Playwright playwright = Playwright.create();
                Browser browser = Chromium.launch(playwright)) {
            Page page = browser.newContext(new Browser.NewContextOptions()
                            .setViewportSize(1280, 800)
                            .setBaseURL(args[0]))
                    .newPage();
            page.setDefaultTimeout(PATIENCE);
            page.navigate("/sign-in");
            page.getByText("Isolde Quillane").click();
            page.waitForURL("**/studies");
            String study = imported(page);
            String bench = study + "/gather/measure?specimen=s-0";
            for (int n = 1; n <= 3; n++) {
                page.navigate(study + "/gather/measure?specimen=s-1");
                page.getByText("This specimen has no picture yet").waitFor();
                long start = System.nanoTime();
                page.locator(".strip button").first().click();
                page.waitForFunction(
                        "() => document.querySelector('.bench') && !document.querySelector('.bench .failed')");
                say("24 megapixels seen, " + n + ". time", (System.nanoTime() - start) / 1e6);
                page.locator(".bench[data-sharp=true]").waitFor();
                say("24 megapixels sharp, " + n + ". time", (System.nanoTime() - start) / 1e6);
            }
            long opened = System.nanoTime();
            page.navigate(bench);
            page.locator(".bench[data-sharp=true]").waitFor();
            say("the whole page anew, sharp", (System.nanoTime() - opened) / 1e6);
            say("median frame, drag of all of it", frame(page, false));
            say("median frame, zoom", frame(page, true));
            page.evaluate(
                    "() => { for (let i = 0; i < 12; i++) document.querySelector('.bench').dispatchEvent("
                            + "new WheelEvent('wheel', { deltaY: -200, clientX: 560, clientY: 400, bubbles: true, cancelable: true })) }");
            say("median frame, drag near by", frame(page, false));
            say("50,000 readings by a table", brought(page));
            page.setContent("<canvas class='bench' style='width:640px;height:400px'></canvas>");
            say("median frame, nothing drawn", frame(page, false));
        }
    }

    private static double frame(Page page, boolean zoom) {
        return ((Number) page.evaluate(PANNED, List.of(560, 400, FRAMES, zoom))).doubleValue();
    }

    private static String imported(Page page) {
        List<Specimen> specimens = new ArrayList<>();
        for (int i = 0; i < SPECIMENS; i++) {
            specimens.add(new Specimen(
                    "s-" + i,
                    "S " + i,
                    List.of(new Specimen.Determination(
                            "row-" + i % 20, "", Specimen.Kind.DETERMINED, "", "", "", List.of())),
                    ""));
        }
        List<StudyCharacter> characters = new ArrayList<>();
        for (int c = 0; c < CHARACTERS; c++) {
            characters.add(StudyCharacter.of("size " + c, CharacterType.LENGTH, List.of()));
        }
        List<StudyRow> rows = new ArrayList<>();
        for (int r = 0; r < 20; r++) {
            rows.add(StudyRow.of("row " + r));
        }
        byte[] large = SpecimenPicture.crab(50, 40, 20, 5, 6000, 4000, 1, 1).jpeg();
        Picture picture = new Picture(
                "large",
                "0".repeat(64),
                "image/jpeg",
                6000,
                4000,
                "A crab",
                "",
                "",
                "",
                "",
                "s-0",
                null,
                Base64.getEncoder().encodeToString(large));
        Study study = new Study("bench", "Bench", StudyScope.EMPTY, rows, List.of(), characters, List.of())
                .withSpecimens(specimens)
                .withPictures(List.of(picture));
        page.navigate("/import");
        page.locator("input[type=file]")
                .setInputFiles(new FilePayload(
                        "bench.polyclave.json",
                        "application/json",
                        StudyJson.write(study).getBytes(StandardCharsets.UTF_8)));
        page.getByText("Create study").click();
        page.waitForURL("**/studies/bench**");
        return page.url().replaceAll("(/studies/[^/]+).*", "$1");
    }

    private static double brought(Page page) {
        Random random = new Random(8);
        StringBuilder table = new StringBuilder("specimen,item");
        for (int c = 0; c < CHARACTERS; c++) {
            table.append(",size ").append(c).append(" (mm)");
        }
        for (int line = 0; line < 50_000 / CHARACTERS; line++) {
            table.append("\nS ").append(line / ITEMS).append(",leaf ").append(line % ITEMS);
            for (int c = 0; c < CHARACTERS; c++) {
                table.append(String.format(Locale.ROOT, ",%.1f", (5 + c) * Math.exp(0.15 * random.nextGaussian())));
            }
        }
        page.getByText("Import a table of readings").first().click();
        page.locator(".v-dialog input[type=file]")
                .setInputFiles(new FilePayload(
                        "readings.csv", "text/csv", table.toString().getBytes(StandardCharsets.UTF_8)));
        page.getByText("50000 readings").waitFor();
        long start = System.nanoTime();
        page.getByText("Take these readings").click();
        page.locator(".v-dialog .v-card")
                .waitFor(new com.microsoft.playwright.Locator.WaitForOptions()
                        .setState(com.microsoft.playwright.options.WaitForSelectorState.HIDDEN));
        return (System.nanoTime() - start) / 1e6;
    }

    private static void say(String what, double milliseconds) {
        System.out.printf(Locale.ROOT, "%-34s %8.1f ms%n", what, milliseconds);
    }
}
