package org.polyclave.print.card;

import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import org.polyclave.print.page.Templates;
import org.polyclave.print.pdf.PdfPage;
import org.polyclave.wording.comparison.ContrastCard;

/** A contrast card on paper: a plate of one page, or a card for the wallet. */
public final class ContrastPrint {
    private static final double SMALLEST = 3;
    private static final double FINER = 0.5;

    private ContrastPrint() {}

    /**
     * What stands on paper besides the card.
     *
     * @param pictures finds a picture by its id in the study
     */
    public record Imprint(
            String study, String date, boolean plain, Function<String, Optional<PrintedPicture>> pictures) {}

    /** One page of A4: the most trustworthy points, what is left out is counted. */
    public static byte[] plate(ContrastCard card, Imprint imprint) {
        return onOnePage("card/plate", new CardPage(card, imprint, 12, 3, 10.5));
    }

    /** As large as a bank card. */
    public static byte[] wallet(ContrastCard card, Imprint imprint) {
        return onOnePage("card/wallet", new CardPage(card, imprint, 3, 1, 6));
    }

    /** In the largest type in which all of it stands on one page; nothing is cut off. */
    private static byte[] onOnePage(String template, CardPage largest) {
        CardPage page = largest;
        byte[] pdf = PdfPage.of(Templates.render(template, Map.of("page", page)));
        while (page.type() > SMALLEST && PdfPage.count(pdf) > 1) {
            page = new CardPage(page.card(), page.made(), page.most(), page.mostPairs(), page.type() - FINER);
            pdf = PdfPage.of(Templates.render(template, Map.of("page", page)));
        }
        return pdf;
    }
}
