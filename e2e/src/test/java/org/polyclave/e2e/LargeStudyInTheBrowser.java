package org.polyclave.e2e;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.options.FilePayload;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Locale;
import java.util.Random;

/**
 * Measures a large study in headless Chromium against a running server: {@code LargeStudyInTheBrowser BASE_URL 2000x500}
 * imports a made-up table of that size, opens its matrix, scrolls it and edits a cell. Prints medians; an empty page is
 * scrolled in the same run. With {@code BASE_URL studies/NAME} it measures a study that is there already, which tells how it
 * opens first after the server started.
 */
public final class LargeStudyInTheBrowser {
    private static final int FRAMES = 120;
    private static final int EDITS = 7;
    private static final double PATIENCE = 300_000;
    /** Times between frames while something is scrolled by a wheel, in milliseconds. */
    private static final String MEDIAN_FRAME = """
            async ([selector, frames]) => {
              const target = document.querySelector(selector);
              const times = [];
              let last = await new Promise(requestAnimationFrame);
              for (let i = 0; i < frames; i++) {
                target.scrollBy(i %% 3 === 0 ? 60 : 0, 90);
                const now = await new Promise(requestAnimationFrame);
                times.push(now - last);
                last = now;
              }
              return times.sort((a, b) => a - b)[Math.floor(frames / 2)];
            }""".replace("%%", "%");

    private LargeStudyInTheBrowser() {}

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
            String study = args[1].startsWith("studies/") ? args[0] + "/" + args[1] : imported(page, table(args[1]));
            for (int n = 1; n <= 3; n++) {
                long start = System.nanoTime();
                page.navigate(study + "/score");
                page.locator("canvas").waitFor();
                page.waitForFunction("() => document.querySelector('#active-cell')?.textContent.trim()");
                say("opened, " + n + ". time", (System.nanoTime() - start) / 1e6);
            }
            say("median frame, matrix", frame(page, ".scroller"));
            edits(page, study);
            page.setContent(
                    "<div id='empty' style='height:600px;overflow:auto'><div style='height:90000px;width:90000px'></div></div>");
            say("median frame, empty page", frame(page, "#empty"));
        }
    }

    private static String imported(Page page, String table) {
        page.navigate("/import");
        page.locator("input[type=file]")
                .setInputFiles(new FilePayload("large.csv", "text/csv", table.getBytes(StandardCharsets.UTF_8)));
        page.getByText("Create study").click();
        page.waitForURL(url -> url.contains("/score"));
        return page.url().replaceFirst("/score.*", "");
    }

    /** Three characters with states and one with a range, in turn; one cell in twenty unknown. */
    private static String table(String size) {
        String[] sides = size.split("x", 2);
        int rows = Integer.parseInt(sides[0]);
        int characters = Integer.parseInt(sides[1]);
        Random random = new Random(4);
        StringBuilder text = new StringBuilder("taxon");
        StringBuilder types = new StringBuilder("#type");
        for (int c = 0; c < characters; c++) {
            text.append(",c").append(c);
            types.append(c % 4 == 3 ? ",length" : ",states");
        }
        text.append('\n').append(types).append('\n');
        List<String> states = List.of("red", "blue", "green", "white");
        for (int r = 0; r < rows; r++) {
            text.append("Row ").append(r);
            for (int c = 0; c < characters; c++) {
                int low = 1 + random.nextInt(60);
                String score = c % 4 == 3 ? low + "-" + (low + 20) : states.get(low % 4);
                text.append(',').append(random.nextInt(20) == 0 ? "?" : score);
            }
            text.append('\n');
        }
        return text.toString();
    }

    private static double frame(Page page, String selector) {
        return ((Number) page.evaluate(MEDIAN_FRAME, new Object[] {selector, FRAMES})).doubleValue();
    }

    /** One changed cell after the other, each with the checks after it; the checks are read as the screen reads them. */
    private static void edits(Page page, String study) {
        String script = """
                async ([path, edits]) => {
                  const token = decodeURIComponent(/XSRF-TOKEN=([^;]*)/.exec(document.cookie)[1]);
                  const saved = [], checked = [];
                  for (let i = 0; i < edits; i++) {
                    const view = await (await fetch(`${path}/columns?character=c0`)).json();
                    const text = view[0].faces[i % 2].text;
                    const start = performance.now();
                    await fetch(`${path}/scores`, { method: 'POST', headers: { 'Content-Type': 'application/json', 'X-XSRF-TOKEN': token },
                      body: JSON.stringify({ edits: [{ row: 'row-3', character: 'c0', text, baseRevision: view[0].revision[3] }] }) });
                    saved.push(performance.now() - start);
                    await (await fetch(`${path}/findings`)).text();
                    checked.push(performance.now() - start);
                  }
                  const middle = (a) => a.sort((x, y) => x - y)[Math.floor(a.length / 2)];
                  return [middle(saved), middle(checked)];
                }""";
        String path = "/api" + study.replaceFirst("^https?://[^/]*", "");
        List<?> times = (List<?>) page.evaluate(script, new Object[] {path, EDITS});
        say("cell saved", ((Number) times.get(0)).doubleValue());
        say("cell saved and checks read", ((Number) times.get(1)).doubleValue());
    }

    private static void say(String what, double milliseconds) {
        System.out.printf(Locale.ROOT, "%-32s %8.1f ms%n", what, milliseconds);
    }
}
