package org.polyclave.e2e;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.FileChooser;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.FilePayload;
import com.microsoft.playwright.options.WaitForSelectorState;
import java.util.Objects;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Consumer;

/** A visitor without a mouse: everything is reached by Tab, and done by keys at what has the focus. */
final class Keyboard {
    private static final int MOST_TABS = 150;
    private static final double SETTLING = 60;
    private static final String HAS_FOCUS = "e => e === document.activeElement || e.contains(document.activeElement)";

    private final Page page;

    Keyboard(Page page) {
        this.page = page;
    }

    /** Tabs to something; fails if it is not reached. */
    Keyboard to(Locator wanted) {
        wanted.waitFor(new Locator.WaitForOptions().setState(WaitForSelectorState.ATTACHED));
        for (int tabs = 0; tabs < MOST_TABS; tabs++) {
            if (Boolean.TRUE.equals(wanted.evaluate(HAS_FOCUS))) {
                // A dialog that is closing may give the focus back to where it was; people are slower than that.
                page.waitForTimeout(SETTLING);
                if (Boolean.TRUE.equals(wanted.evaluate(HAS_FOCUS))) {
                    return this;
                }
            }
            page.keyboard().press("Tab");
        }
        throw new AssertionError("Not reached by Tab: " + wanted);
    }

    Keyboard toButton(String name) {
        return to(Browsing.button(page, name).last());
    }

    Keyboard toField(String label) {
        return to(page.getByLabel(label).last());
    }

    Keyboard press(String... keys) {
        for (String key : keys) {
            page.keyboard().press(key);
        }
        return this;
    }

    /** Types in place of what the field holds. */
    Keyboard write(String text) {
        page.keyboard().press("Control+a");
        page.keyboard().insertText(text);
        return this;
    }

    /** Opens the chooser of files at the focus, as Enter does. */
    void choose(FilePayload file) {
        // Listened to from the start: the driver begins to catch choosers a little after it is asked to.
        AtomicReference<FileChooser> opened = new AtomicReference<>();
        Consumer<FileChooser> listener = opened::set;
        page.onFileChooser(listener);
        page.waitForTimeout(SETTLING);
        page.keyboard().press("Enter");
        page.waitForCondition(() -> opened.get() != null);
        page.offFileChooser(listener);
        Objects.requireNonNull(opened.get()).setFiles(file);
    }

    /** Chooses one of the items of the select at the focus by arrows. */
    void pick(String item) {
        page.keyboard().press("ArrowDown");
        Locator wanted = page.getByRole(AriaRole.OPTION, new Page.GetByRoleOptions().setName(item))
                .first();
        wanted.waitFor();
        for (int steps = 0; steps < MOST_TABS; steps++) {
            if (Boolean.TRUE.equals(wanted.evaluate(HAS_FOCUS))) {
                page.keyboard().press("Enter");
                return;
            }
            page.keyboard().press("ArrowDown");
        }
        throw new AssertionError("Not reached by arrows: " + item);
    }

    Download save() {
        return page.waitForDownload(() -> page.keyboard().press("Enter"));
    }
}
