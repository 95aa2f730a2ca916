package org.polyclave.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.deque.html.axecore.playwright.AxeBuilder;
import com.deque.html.axecore.results.Rule;
import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.assertions.PlaywrightAssertions;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ReducedMotion;
import com.microsoft.playwright.options.WaitForSelectorState;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.extension.AfterEachCallback;
import org.junit.jupiter.api.extension.ExtensionContext;
import org.polyclave.server.RunningApplication;

/** One browser for all journeys; each person on a journey has a context of their own. Console errors fail the journey. */
final class Browsing implements AfterEachCallback {
    /** Started with the first visitor, closed with the tests. */
    private static final class Shared {
        static final Playwright PLAYWRIGHT = Playwright.create();
        static final Browser BROWSER = Chromium.launch(PLAYWRIGHT);

        static {
            // A loaded machine takes longer than the usual five seconds for what a person would wait for.
            PlaywrightAssertions.setDefaultAssertionTimeout(20_000);
            Runtime.getRuntime().addShutdownHook(new Thread(PLAYWRIGHT::close));
        }
    }

    private final List<BrowserContext> contexts = new ArrayList<>();
    private final List<String> complaints = new ArrayList<>();

    @Override
    public void afterEach(ExtensionContext context) {
        contexts.forEach(BrowserContext::close);
        contexts.clear();
        List<String> heard = List.copyOf(complaints);
        complaints.clear();
        assertThat(heard).as("errors and warnings in the browser's console").isEmpty();
    }

    Page visitor(int width, int height) {
        return visitor(width, height, false);
    }

    private Page visitor(int width, int height, boolean touches) {
        BrowserContext context = Shared.BROWSER.newContext(new Browser.NewContextOptions()
                .setViewportSize(width, height)
                .setHasTouch(touches)
                // Nobody waits for fades, and software that draws them for nobody is slow.
                .setReducedMotion(ReducedMotion.REDUCE)
                .setBaseURL(RunningApplication.base())
                .setPermissions(List.of("clipboard-read", "clipboard-write")));
        context.setDefaultTimeout(15_000);
        contexts.add(context);
        Page page = context.newPage();
        page.onConsoleMessage(m -> {
            boolean refusedOnPurpose = m.text().contains("status of 4");
            // The library of components moves a dialog that is taken away before it was ever laid out.
            boolean unseenMove = m.text().startsWith("Invalid keyframe value");
            if ((m.type().equals("error") || m.type().equals("warning")) && !refusedOnPurpose && !unseenMove) {
                complaints.add(m.text());
            }
        });
        page.onPageError(e -> complaints.add(e));
        return page;
    }

    Page signedIn(String displayName) {
        return signedIn(displayName, visitor(1280, 800));
    }

    /** Somebody who reads on a phone. */
    Page touching(int width, int height) {
        return visitor(width, height, true);
    }

    /** Somebody with a tablet. */
    Page touching(String displayName, int width, int height) {
        return signedIn(displayName, visitor(width, height, true));
    }

    private static Page signedIn(String displayName, Page page) {
        page.navigate("/sign-in");
        page.getByText(displayName).click();
        page.waitForURL("**/studies");
        return page;
    }

    static Locator button(Page page, String name) {
        return page.getByRole(
                AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name).setExact(true));
    }

    /** It says what it will undo. */
    static Locator undo(Page page) {
        return page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile("^Undo: ")));
    }

    /** Runs a command of the palette. */
    static void command(Page page, String words) {
        page.keyboard().press("Control+k");
        Locator palette = page.getByRole(AriaRole.COMBOBOX, new Page.GetByRoleOptions().setName("Command"));
        palette.fill(words);
        // On a busy machine it takes a moment until it has found something.
        page.locator("[aria-label=Command][aria-activedescendant]").waitFor();
        page.keyboard().press("Enter");
        // It gives the focus back when it is gone.
        palette.waitFor(new Locator.WaitForOptions().setState(WaitForSelectorState.HIDDEN));
    }

    /** No serious accessibility findings on the page as it is now, once colours and fades that are on their way have arrived. */
    static void assertAccessible(Page page) {
        page.waitForFunction("""
                () => document.getAnimations().every(
                    a => a.playState !== 'running' || a.effect.getComputedTiming().endTime === Infinity)""");
        List<Rule> serious = new AxeBuilder(page)
                .analyze().getViolations().stream()
                        .filter(v -> List.of("serious", "critical").contains(v.getImpact()))
                        .toList();
        assertThat(serious)
                .as(page.url())
                .extracting(v -> v.getId() + " at " + v.getNodes().get(0).getHtml())
                .isEmpty();
    }
}
