package org.polyclave.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.Response;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.LoadState;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.polyclave.server.RunningApplication;

/** Every screen with its filters set can be reloaded, bookmarked and sent to somebody: its address says all. */
@ExtendWith(RunningApplication.class)
class AddressJourneyTest {
    private static final String STUDY = "/studies/marrowmere-tussocks/";

    private static final List<String> STUDIO = List.of(
            "scope?row=tarnella-praecox",
            "gather?specimen=s-1",
            "gather/measure?character=leaf-width",
            "gather/table?find=weir, \"lower\" [2]",
            "gather/map?row=tarnella-praecox",
            "gather/sheets",
            "gather/cells?character=leaf-width&all=true",
            "characters?character=leaf-tip",
            "score?row=tarnella-praecox&character=leaf-tip&filter=unknown&order=study&frozen=leaf-tip,leaf-colour",
            "score?mode=character&character=leaf-tip",
            "apart?months=1|2|12&organs=leaf|fruit&methods=eye|lens&preserved=DRIED|CUT&stages=flowering|spring shoot"
                    + "&novice=true&safely=true&order=study",
            "apart?view=list&months=1|2",
            "apart?view=calendar&rows=tarnella-praecox,tarnella-serotina",
            "apart?view=next&months=6",
            "dangers?row=ostrivia-fallax-flowering",
            "key?objective=FEWEST&months=3|4&organs=leaf|stem&methods=eye&forbidden=leaf-tip,leaf-colour&couplet=2",
            "any-order?seen=leaf-colour:grey-green,leaf-tip:cannot-see&month=5&school=strike-out&reader=new&presence=off",
            "references",
            "second?row=tarnella-praecox&character=leaf-tip",
            "checks",
            "publish");

    @RegisterExtension
    final Browsing browsing = new Browsing();

    private static void reloads(Page page, String address) {
        page.navigate(address.replace("|", "%7C").replace(" ", "%20"));
        page.getByRole(AriaRole.HEADING).first().waitFor();
        String before = page.url();
        assertThat(before).as(address).doesNotContain("|", "\"", " ");
        Response again = page.reload();
        page.waitForLoadState(LoadState.NETWORKIDLE);
        assertThat(again.status()).as(before).isEqualTo(200);
        assertThat(page.url()).isEqualTo(before);
        assertThat(page.getByRole(AriaRole.HEADING).count()).as(before).isPositive();
        assertThat(page.locator("body").innerText()).as(before).doesNotContain("HTTP Status", "Something went wrong");
    }

    @Test
    void everyScreenOfAStudyIsReloadedWithItsFilters() {
        Page page = browsing.signedIn("Isolde Quillane");
        STUDIO.forEach(address -> reloads(page, STUDY + address));
        reloads(page, "/studies");
        reloads(page, "/import?into=marrowmere-tussocks");
    }

    /** At 200 % zoom on a small laptop, and on a phone; a row is 32 pixels, what stands above them 78. */
    @Test
    void theSheetHasRoomForRowsOnSmallWindows() {
        Page page = browsing.signedIn("Isolde Quillane");
        page.navigate(STUDY + "score");
        for (int[] window : new int[][] {{640, 400, 6}, {360, 740, 10}}) {
            page.setViewportSize(window[0], window[1]);
            page.reload();
            page.waitForLoadState(LoadState.NETWORKIDLE);
            Number seen = (Number) page.evaluate("""
                    () => {
                      const grid = document.querySelector('[role=grid]').getBoundingClientRect();
                      return (Math.min(grid.bottom, window.innerHeight) - grid.top - 78) / 32;
                    }
                    """);
            assertThat(seen.doubleValue())
                    .as("rows at %d × %d", window[0], window[1])
                    .isGreaterThan(window[2] - 0.1);
        }
    }

    @Test
    void everyViewOfAnEditionIsReloadedByAnybody() {
        Page page = browsing.visitor(360, 740);
        for (String view : List.of(
                "",
                "?view=taxa&taxon=tarnella-praecox",
                "?view=key",
                "?view=key&at=1b.8b~",
                "?view=key&at=1b~_b-x",
                "?view=key&between=tarnella-praecox,tarnella-serotina",
                "?view=check&taxon=tarnella-praecox&seen=leaf-colour:grey-green",
                "?view=handful&n=3&each=1-2/leaf-colour:grey-green|3/leaf-tip:blunt",
                "?view=key&read=whole",
                "?view=any-order&month=1")) {
            reloads(page, "/k/marrowmere-tussocks" + view);
            page.locator(".v-application #cover").waitFor();
            assertThat(page.locator(".cautions").isVisible()).as(view).isEqualTo(view.isEmpty());
        }
    }
}
