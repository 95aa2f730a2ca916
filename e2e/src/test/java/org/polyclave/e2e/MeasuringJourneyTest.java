package org.polyclave.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static org.polyclave.e2e.Browsing.assertAccessible;
import static org.polyclave.e2e.Browsing.button;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.BoundingBox;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Random;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.demo.specimen.SpecimenPicture;
import org.polyclave.demo.specimen.SpecimenPicture.Rendered;
import org.polyclave.files.study.StudyJson;
import org.polyclave.server.Importing;
import org.polyclave.server.RunningApplication;
import org.polyclave.server.Visitor;
import org.polyclave.study.model.Mark.Point;
import org.polyclave.study.model.Picture;
import org.polyclave.study.model.Reading;
import org.polyclave.study.model.Specimen;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScope;

/** From photographs with a scale bar to a range in the matrix, by mouse, by keys alone, and by finger. */
@ExtendWith(RunningApplication.class)
class MeasuringJourneyTest {
    private static final int WIDTH = 720;
    private static final int HEIGHT = 540;
    /** How far a steady hand is off, in pixels of the picture. */
    private static final double UNSTEADY = 0.7;

    private static final Pattern READ = Pattern.compile("([\\d.]+) mm ± ([\\d.]+)");

    @RegisterExtension
    final Browsing browsing = new Browsing();

    private static StudyCharacter fruitLength() {
        return StudyCharacter.of("fruit length", CharacterType.LENGTH, List.of());
    }

    private static Specimen specimen(String code, String row, int gathering) {
        return new Specimen(
                code.toLowerCase(java.util.Locale.ROOT).replace(' ', '-'),
                code,
                List.of(new Specimen.Determination(row, "", Specimen.Kind.DETERMINED, "", "2025", "", List.of())),
                new Specimen.Event("2025-06-0" + (1 + gathering % 4), "the weir", "", null, "", "", ""),
                "",
                "",
                List.of(),
                "",
                "");
    }

    /** @return the address of its API */
    private static String begin(Study study) {
        return Importing.of(Visitor.author(), "study.polyclave.json", StudyJson.write(study))
                .create();
    }

    private static Study study(String slug, List<String> rows) {
        return new Study(
                slug,
                slug,
                StudyScope.EMPTY,
                rows.stream().map(StudyRow::of).toList(),
                List.of(),
                List.of(fruitLength()),
                List.of());
    }

    /** Places of a picture on the screen while all of it is seen. */
    private record Bench(Page page, BoundingBox box) {
        static Bench of(Page page) {
            return new Bench(page, page.locator(".bench").boundingBox());
        }

        private double scale() {
            return Math.min((box.width - 2) / WIDTH, (box.height - 2) / HEIGHT);
        }

        double x(Point at) {
            return box.x + box.width / 2 + (at.x() - WIDTH / 2.0) * scale();
        }

        double y(Point at) {
            return box.y + box.height / 2 + (at.y() - HEIGHT / 2.0) * scale();
        }

        void press(Point at) {
            page.mouse().click(x(at), y(at));
        }
    }

    private static Point unsteadily(Point at, Random hand) {
        return new Point(at.x() + UNSTEADY * hand.nextGaussian(), at.y() + UNSTEADY * hand.nextGaussian());
    }

    private static final int PICTURES = 20;

    private record Photographed(Specimen specimen, double length, Rendered drawn) {}

    private static List<Photographed> photographed() {
        Random random = new Random(20);
        List<Photographed> all = new ArrayList<>();
        for (int i = 0; i < PICTURES; i++) {
            String row = i < PICTURES / 2 ? "mild" : "bane";
            // Evenly spread, so that none of them is an outlier by chance.
            double length = (row.equals("mild") ? 3.0 : 3.7) + 0.03 * (i % (PICTURES / 2) - 4.5);
            all.add(new Photographed(
                    specimen("F " + (10 + i), row, i),
                    length,
                    SpecimenPicture.fruit(length, 0.16, WIDTH, HEIGHT, 0.8, random.nextLong())));
        }
        return all;
    }

    private static Picture picture(Photographed of) {
        return new Picture(
                "p-" + of.specimen().id(),
                "0".repeat(64),
                "image/jpeg",
                WIDTH,
                HEIGHT,
                "Fruit of " + of.specimen().code(),
                "",
                "",
                "",
                "",
                of.specimen().id(),
                null,
                Base64.getEncoder().encodeToString(of.drawn().jpeg()));
    }

    /** 20 fruits of known length, each with a scale bar of its own: the truth lies within the ± that is told, 19 times of 20. */
    @Test
    void picturesAreMeasuredWithinTheirUncertaintyAndBecomeARange() {
        List<Photographed> all = photographed();
        String slug = begin(study("measured", List.of("mild", "bane"))
                .withSpecimens(all.stream().map(Photographed::specimen).toList())
                .withPictures(all.stream().map(MeasuringJourneyTest::picture).toList()));
        Page page = browsing.signedIn("Isolde");
        page.navigate("/studies/" + slug + "/gather/measure");
        Random hand = new Random(7);
        int within = 0;
        for (Photographed one : all) {
            page.getByRole(AriaRole.NAVIGATION, new Page.GetByRoleOptions().setName("Specimens to measure"))
                    .getByText(one.specimen().code())
                    .click();
            Matcher read = measured(page, one, hand);
            within += Math.abs(Double.parseDouble(read.group(1)) - one.length()) <= Double.parseDouble(read.group(2))
                    ? 1
                    : 0;
        }
        assertThat(within).as("of 20 within the stated uncertainty").isGreaterThanOrEqualTo(19);

        aSlipIsCaught(page);
        assertAccessible(page);
        page.navigate("/studies/" + slug + "/gather/cells");
        button(page, "Choose all without open questions").click();
        button(page, "Write 2 cells").click();
        assertThat(page.getByText("Nothing was read").or(button(page, "Write 0 cells")))
                .isVisible();
        page.navigate("/studies/" + slug + "/score?row=mild&character=fruit-length");
        page.getByText("10 individuals").first().waitFor();
    }

    private static Matcher measured(Page page, Photographed one, Random hand) {
        button(page, "Set the scale").click();
        // The form takes room from the bench.
        page.getByLabel("The bar says").waitFor();
        page.waitForTimeout(150);
        Bench bench = Bench.of(page);
        for (Point end : one.drawn().bar()) {
            bench.press(unsteadily(end, hand));
        }
        page.getByLabel("The bar says").fill(one.drawn().barText());
        button(page, "Keep the scale").click();
        button(page, "Scale: " + one.drawn().barText()).waitFor();
        page.waitForTimeout(150);
        bench = Bench.of(page);
        for (Point end : one.drawn().endsOf("fruit-length")) {
            bench.press(unsteadily(end, hand));
        }
        Locator reading = page.locator(".tray .reading").first();
        assertThat(reading).containsText("±");
        Matcher read = READ.matcher(reading.innerText().replaceAll("\\s+", " "));
        assertThat(read.find()).as(reading.innerText()).isTrue();
        return read;
    }

    /** An inch rule read as millimetres: named, and corrected by one press with what it was. */
    private static void aSlipIsCaught(Page page) {
        page.getByLabel("Reading (mm)").fill("0.146");
        page.keyboard().press("Enter");
        Locator slip = page.getByRole(AriaRole.NOTE).filter(new Locator.FilterOptions().setHasText("inches?"));
        assertThat(slip).isVisible();
        slip.getByText("Write 3.7").click();
        assertThat(slip).isHidden();
        assertThat(page.getByText("was 0.146 mm")).isVisible();
    }

    /** 100 rows of 20 clean individuals each: about five are flagged by chance, as the cuts are made. */
    @Test
    void cleanSamplesAreRarelyFlagged() {
        Random random = new Random(3);
        List<String> rows = new ArrayList<>();
        List<Specimen> specimens = new ArrayList<>();
        List<Reading> readings = new ArrayList<>();
        for (int row = 0; row < 100; row++) {
            rows.add("row " + row);
            for (int i = 0; i < 20; i++) {
                Specimen specimen = specimen("S " + row + " " + i, "row-" + row, i);
                double length = Math.round(1000 * Math.exp(1.1 + 0.15 * random.nextGaussian())) / 1000.0;
                specimens.add(specimen);
                readings.add(new Reading(
                        "r-" + row + "-" + i,
                        specimen.id(),
                        "fruit-length",
                        "",
                        length + " mm",
                        length,
                        List.of(),
                        0.001,
                        "",
                        "",
                        "2025-07-01",
                        null,
                        Reading.Standing.TAKEN,
                        ""));
            }
        }
        String slug = begin(study("clean", rows).withSpecimens(specimens).withReadings(readings));
        Page page = browsing.signedIn("Isolde");
        page.navigate("/studies/" + slug + "/gather/cells");
        assertThat(page.locator("tbody tr:not(.group)")).hasCount(100);
        assertThat(page.getByText(Pattern.compile("to look at$")).count()).isLessThanOrEqualTo(5);
    }

    @Test
    void theBenchServesKeysAloneAndAFinger() {
        Photographed one = photographed().get(0);
        String slug = begin(study("by-keys", List.of("mild", "bane"))
                .withSpecimens(List.of(one.specimen()))
                .withPictures(List.of(picture(one))));
        Page page = browsing.signedIn("Isolde");
        page.navigate("/studies/" + slug + "/gather/measure");
        Locator bench =
                page.getByRole(AriaRole.APPLICATION, new Page.GetByRoleOptions().setName("Picture of the specimen"));
        button(page, "Set the scale").focus();
        page.keyboard().press("Enter");
        bench.focus();
        List<Point> bar = one.drawn().bar();
        Point at = walk(page, new Point(WIDTH / 2.0, HEIGHT / 2.0), bar.get(0));
        page.keyboard().press("Space");
        walk(page, at, bar.get(1));
        page.keyboard().press("Space");
        page.getByLabel("The bar says").focus();
        page.keyboard().type(one.drawn().barText());
        page.keyboard().press("Enter");
        button(page, "Scale: " + one.drawn().barText()).waitFor();
        bench.focus();
        List<Point> ends = one.drawn().endsOf("fruit-length");
        at = walk(
                page,
                new Point(Math.round(bar.get(1).x()), Math.round(bar.get(1).y())),
                ends.get(0));
        page.keyboard().press("Space");
        walk(page, at, ends.get(1));
        page.keyboard().press("Space");
        Locator reading = page.locator(".tray .reading").first();
        assertThat(reading).containsText("±");
        Matcher read = READ.matcher(reading.innerText().replaceAll("\\s+", " "));
        assertThat(read.find()).isTrue();
        assertThat(Double.parseDouble(read.group(1)))
                .isCloseTo(one.length(), org.assertj.core.api.Assertions.within(Double.parseDouble(read.group(2))));
        Browsing.undo(page).click();
        assertThat(page.locator(".tray .reading")).hasCount(0);

        Page touched = browsing.touching("Isolde", 820, 1180);
        touched.navigate("/studies/" + slug + "/gather/measure");
        touched.locator(".bench").scrollIntoViewIfNeeded();
        touched.waitForTimeout(600);
        Bench finger = Bench.of(touched);
        for (Point end : ends) {
            touched.touchscreen().tap(finger.x(end), finger.y(end));
        }
        assertThat(touched.locator(".tray .reading").first()).containsText("mm");
    }

    /** From one place to another with arrows, pixel by pixel. */
    private static Point walk(Page page, Point from, Point to) {
        long dx = Math.round(to.x() - from.x());
        long dy = Math.round(to.y() - from.y());
        press(page, dx < 0 ? "ArrowLeft" : "ArrowRight", Math.abs(dx));
        press(page, dy < 0 ? "ArrowUp" : "ArrowDown", Math.abs(dy));
        return new Point(from.x() + dx, from.y() + dy);
    }

    private static void press(Page page, String key, long times) {
        for (long i = 0; i < times; i++) {
            page.keyboard().press(key);
        }
    }
}
