package org.polyclave.print.key;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.print.page.PageFonts;
import org.polyclave.print.page.Templates;
import org.polyclave.study.model.Study;
import org.polyclave.wording.key.KeyNotes;
import org.polyclave.wording.key.KeyView;
import org.polyclave.wording.key.KeyWording;

/** Writes a worded key in the bracketed layout: as text, as Markdown, or as one self-contained HTML page. */
public final class KeyRenderer {
    private static final int WIDTH = 88;

    private KeyRenderer() {}

    /** Plain text, {@value #WIDTH} columns, dots leading to the target. */
    public static String text(KeyView view, Study study) {
        return text(view, KeyNotes.cautionsOnPaper(view, study));
    }

    /** The same with cautions that were worked out before. */
    public static String text(KeyView view, List<String> cautions) {
        StringBuilder out = new StringBuilder(view.title()).append("\n\n");
        for (String caution : cautions) {
            out.append("! ").append(caution).append('\n');
        }
        if (view.whole() != null) {
            out.append('\n').append(target(view.whole())).append('\n');
            view.whole().notRuledOut().forEach(d -> wrap(out, "! ", KeyNotes.notRuledOut(d)));
            return out.toString();
        }
        for (KeyView.CoupletView couplet : view.couplets()) {
            out.append('\n');
            for (int l = 0; l < couplet.leads().size(); l++) {
                String head = l == 0 ? number(couplet) : "";
                wrap(
                        out,
                        String.format("%-8s%c  ", head, 'a' + l),
                        couplet.leads().get(l));
            }
        }
        return out.append('\n').append(KeyNotes.figures(view)).append('\n').toString();
    }

    private static void wrap(StringBuilder out, String head, KeyView.LeadView lead) {
        String goal = lead.terminal() == null ? String.valueOf(lead.couplet()) : target(lead.terminal());
        StringBuilder line = lines(out, head, lead.text());
        if (line.length() + goal.length() + 3 > WIDTH) {
            out.append(line.toString().stripTrailing()).append('\n');
            line = new StringBuilder(" ".repeat(head.length() + 2));
        }
        int dots = Math.max(2, WIDTH - line.length() - goal.length() - 1);
        out.append(line).append(".".repeat(dots)).append(' ').append(goal).append('\n');
        if (lead.terminal() != null) {
            lead.terminal()
                    .notRuledOut()
                    .forEach(d -> wrap(out, " ".repeat(head.length()) + "! ", KeyNotes.notRuledOut(d)));
        }
    }

    private static void wrap(StringBuilder out, String head, String text) {
        out.append(lines(out, head, text).toString().stripTrailing()).append('\n');
    }

    /** Writes the whole lines of a text; what is left of it is the last line. */
    private static StringBuilder lines(StringBuilder out, String head, String text) {
        StringBuilder line = new StringBuilder(head);
        for (String word : text.split(" ")) {
            if (line.length() + word.length() + 1 > WIDTH) {
                out.append(line.toString().stripTrailing()).append('\n');
                line = new StringBuilder(" ".repeat(head.length() + 2));
            }
            line.append(word).append(' ');
        }
        return line;
    }

    private static String number(KeyView.CoupletView couplet) {
        return couplet.number() + (couplet.from() == null ? "" : " (" + couplet.from() + ")");
    }

    private static String target(KeyView.TerminalView terminal) {
        String reason = terminal.reason().isEmpty() ? "" : " [" + terminal.reason() + "]";
        return KeyWording.names(terminal) + reason + warnings(terminal);
    }

    private static String warnings(KeyView.TerminalView terminal) {
        List<String> warnings = new ArrayList<>();
        for (KeyView.NameView name : terminal.names()) {
            if (name.hazard() != Hazard.NONE_KNOWN
                    && name.hazard() != Hazard.NOT_ASSESSED
                    && !warnings.contains(name.hazardText())) {
                warnings.add(name.hazardText());
            }
        }
        return warnings.isEmpty() ? "" : " ! " + String.join(" ! ", warnings);
    }

    public static String markdown(KeyView view, Study study) {
        return markdown(view, KeyNotes.cautionsOnPaper(view, study));
    }

    /** The same with cautions that were worked out before. */
    public static String markdown(KeyView view, List<String> cautions) {
        StringBuilder out = new StringBuilder("# ").append(md(view.title())).append("\n\n");
        for (String caution : cautions) {
            out.append("> **Caution.** ").append(md(caution)).append("\n>\n");
        }
        if (view.whole() != null) {
            out.append('\n').append(md(target(view.whole()))).append('\n');
            openDangers(out, view.whole());
            return out.toString();
        }
        for (KeyView.CoupletView couplet : view.couplets()) {
            out.append("\n**").append(number(couplet)).append("**\n\n");
            for (int l = 0; l < couplet.leads().size(); l++) {
                KeyView.LeadView lead = couplet.leads().get(l);
                String goal = lead.terminal() == null
                        ? "**" + lead.couplet() + "**"
                        : "*" + md(target(lead.terminal())) + "*";
                out.append("- ")
                        .append((char) ('a' + l))
                        .append(". ")
                        .append(md(lead.text()))
                        .append(" → ")
                        .append(goal)
                        .append('\n');
                if (lead.terminal() != null) {
                    openDangers(out, lead.terminal());
                }
            }
        }
        return out.append('\n').append(KeyNotes.figures(view)).append('\n').toString();
    }

    private static void openDangers(StringBuilder out, KeyView.TerminalView terminal) {
        terminal.notRuledOut()
                .forEach(d -> out.append("  - **!** ")
                        .append(md(KeyNotes.notRuledOut(d)))
                        .append('\n'));
    }

    private static String md(String text) {
        return text.replaceAll("([\\\\`*_\\[\\]<>#|])", "\\\\$1");
    }

    /** One page with its style inside and nothing loaded from elsewhere; couplets link to one another. */
    public static String html(KeyView view, Study study) {
        return html(view, KeyNotes.cautionsOnPaper(view, study));
    }

    /** The same with cautions that were worked out before. */
    public static String html(KeyView view, List<String> cautions) {
        return Templates.render(
                "key/page",
                Map.of(
                        "view",
                        view,
                        "cautions",
                        cautions,
                        "figures",
                        KeyNotes.figures(view),
                        "fonts",
                        PageFonts.serif(text(view, cautions))));
    }
}
