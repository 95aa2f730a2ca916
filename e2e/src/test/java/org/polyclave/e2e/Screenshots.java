package org.polyclave.e2e;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.options.LoadState;
import java.nio.file.Path;
import java.util.List;

/** Takes the pictures of the main views from a running demo: {@code Screenshots BASE_URL FOLDER [NAME ...]}. */
public final class Screenshots {
    /** @param open what is clicked open and brought into view before the picture, or empty */
    private record View(String name, String path, boolean phone, String settle, String open) {
        View(String name, String path, boolean phone, String settle) {
            this(name, path, phone, settle, "");
        }
    }

    /** A table as somebody kept it. */
    private static final String KEPT = """
            Brown caps of the beech hangers\t\t\t\t\t\t
            Species\tCap\tColour\tSpores\tRing\tPoisonous?\tFruiting
            Velmora fusca (= V. obscura)\t4-8 cm\tbrown\t7-9 x 4-5\tpresent\tno\tSep-Nov
            Velmora pallida\t3-6 cm\ttan\t6-8 x 4-4.5 µm\tabsent*\t\tIX-X
            Letharda mortis\t5 to 9 cm\tbrown\t10-12 x 6-7 µm\tpresent (washes off)\tdeadly\t8-10
            Tubarella nana\t1/2 - 3/4 in\ttan\t5-6 x 3-4\tabsent\tyes\tall summer
            n = 16\t\t\t\t\t\t
            """;

    private static final String STUDY = "/studies/marrowmere-tussocks";
    private static final String MUSHROOMS = "/studies/marrowmere-browncaps";
    private static final List<View> VIEWS = List.of(
            new View("import", "/import", false, "h1"),
            new View("scope", STUDY + "/scope?row=ostrivia-mitis", false, ".shelf", "text=Add a synonym"),
            new View("gather", MUSHROOMS + "/gather?specimen=sw-25-21", false, ".shelf", ".determination"),
            new View(
                    "measure",
                    "/studies/marrowmere-crabs/gather/measure?specimen=sc-25-105&character=carapace-width",
                    false,
                    ".bench[data-sharp=true]"),
            new View("cells", "/studies/marrowmere-crabs/gather/cells?all=1", false, "tbody tr"),
            new View("characters", STUDY + "/characters?character=leaf-blade", false, ".shelf", ".shelf summary"),
            new View("score", STUDY + "/score?row=tarnella-argentea&character=leaf-width", false, "canvas", "summary"),
            new View("apart", STUDY + "/apart?months=1&rows=tarnella-praecox,tarnella-serotina", false, ".card .point"),
            new View("calendar", STUDY + "/apart?view=calendar&months=1", false, ".calendar tbody tr"),
            new View("key", STUDY + "/key?couplet=11", false, ".couplet"),
            new View(
                    "any-order",
                    STUDY + "/any-order?seen=leaf-colour:grey-green,stem-cross-section:triangular,leaf-width:=5",
                    false,
                    ".ladder"),
            new View("checks", MUSHROOMS + "/checks", false, "section"),
            new View(
                    "second-scorers",
                    "/studies/marrowmere-crabs/second?row=estuarion-vulgare-juvenile&character=abdomen",
                    false,
                    ".v-dialog img"),
            new View("dangers", MUSHROOMS + "/dangers?row=tacivolva-mortis-button", false, "h2"),
            new View("publish", STUDY + "/publish", false, ".publish"),
            new View("edition-cover", "/k/marrowmere-tussocks", false, ".cautions"),
            new View("edition-key", "/k/marrowmere-tussocks/1?view=key&at=1b.8b~.15b", false, ".card"),
            new View("phone-key", "/k/marrowmere-tussocks/1?view=key&at=1b", true, ".card"),
            new View(
                    "phone-any-order",
                    "/k/marrowmere-tussocks/1?view=any-order&seen=leaf-colour:grey-green",
                    true,
                    ".ladder"));

    private Screenshots() {}

    public static void main(String[] args) {
        List<String> wanted = List.of(args).subList(2, args.length);
        try (Playwright playwright = Playwright.create();
                Browser browser = Chromium.launch(playwright)) {
            for (View view : VIEWS) {
                if (wanted.isEmpty() || wanted.contains(view.name())) {
                    take(browser, args[0], Path.of(args[1], view.name() + ".png"), view);
                }
            }
        }
    }

    private static void take(Browser browser, String base, Path file, View view) {
        Browser.NewContextOptions size = view.phone()
                ? new Browser.NewContextOptions().setViewportSize(360, 740).setDeviceScaleFactor(2)
                : new Browser.NewContextOptions().setViewportSize(1280, 800);
        try (BrowserContext context = browser.newContext(size)) {
            Page page = context.newPage();
            page.onConsoleMessage(m -> System.err.println(view.name() + " console " + m.type() + ": " + m.text()));
            page.onPageError(e -> System.err.println(view.name() + " error: " + e));
            boolean open = view.path().startsWith("/k/") || view.path().equals("/sign-in");
            if (!open) {
                page.navigate(base + "/sign-in");
                page.getByText("Isolde Quillane").click();
                page.waitForURL("**/studies");
            }
            page.navigate(base + view.path());
            page.waitForSelector(view.settle());
            page.waitForLoadState(LoadState.NETWORKIDLE);
            if (view.name().equals("import")) {
                page.locator("textarea").first().fill(KEPT);
                page.getByText("Read the table").click();
                page.waitForSelector("#unread");
                page.locator("#asked").evaluate("heading => heading.scrollIntoView()");
            }
            if (!view.open().isEmpty()) {
                page.locator(view.open()).first().click();
                page.locator(view.open()).first().evaluate("opened => opened.scrollIntoView({ block: 'center' })");
            }
            page.waitForTimeout(300);
            page.screenshot(new Page.ScreenshotOptions().setPath(file));
        }
    }
}
