package org.polyclave.print.key;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.study.compile.Outside;
import org.polyclave.study.model.Study;
import org.polyclave.wording.key.HazardWording;
import org.polyclave.wording.key.KeyView;
import org.polyclave.wording.key.KeyWording;

/** Writes a worded key in the bracketed layout: as text, as Markdown, or as one self-contained HTML page. */
public final class KeyRenderer {
    private static final int WIDTH = 88;

    private KeyRenderer() {}

    /** Plain text, {@value #WIDTH} columns, dots leading to the target. */
    public static String text(KeyView view, Study study) {
        StringBuilder out = new StringBuilder(view.title()).append("\n\n");
        for (String caution : printed(study)) {
            out.append("! ").append(caution).append('\n');
        }
        if (view.whole() != null) {
            out.append('\n').append(target(view.whole())).append('\n');
            view.whole().notRuledOut().forEach(d -> wrap(out, "! ", notRuledOut(d)));
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
        return out.append('\n').append(figures(view)).append('\n').toString();
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
            lead.terminal().notRuledOut().forEach(d -> wrap(out, " ".repeat(head.length()) + "! ", notRuledOut(d)));
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

    /** "Not ruled out: Bane (life-threatening). Look also at: pod colour." */
    public static String notRuledOut(KeyView.OpenDangerView danger) {
        String severity = danger.name().hazard() == Hazard.LIFE_THREATENING ? "life-threatening" : "serious";
        return "Not ruled out: " + danger.name().label() + " (" + severity + "). "
                + (danger.signs().isEmpty()
                        ? "This matrix has no checked sign that rules it out."
                        : "Look also at: " + String.join("; ", danger.signs()) + ".");
    }

    /** The cautions of a key that stands alone: with the dangers that it does not name. */
    private static List<String> printed(Study study) {
        List<String> cautions = new ArrayList<>();
        String outside = Outside.of(study).stream()
                .filter(o -> o.hazard().isDangerous())
                .map(o -> o.name() + " (" + HazardWording.severity(o.hazard()) + ")")
                .collect(Collectors.joining("; "));
        if (!outside.isEmpty()) {
            cautions.add("Dangerous, and not in this key: " + outside + ".");
        }
        cautions.addAll(cautions(study));
        return cautions;
    }

    /** What every reader of a key is told. */
    public static List<String> cautions(Study study) {
        List<String> cautions = new ArrayList<>(study.scope().cautions());
        if (study.scope().gatheredForFood()) {
            cautions.add(
                    "An identification here, from a key or picture, is not enough to eat anything; have every single"
                            + " collected specimen confirmed by a qualified person.");
        }
        cautions.add(
                "No result is permission to eat, touch, keep or handle anything. Local rules and qualified people decide.");
        return cautions;
    }

    private static String figures(KeyView view) {
        KeyView.FiguresView f = view.figures();
        return String.format(
                java.util.Locale.ROOT,
                "%d rows, %d couplets; %.2f steps expected (bound %.2f), longest path %d; %s.",
                f.rows(),
                f.couplets(),
                f.expectedSteps(),
                f.entropyBound(),
                f.longestPath(),
                f.proven() ? "proven against the matrix" : "NOT PROVEN");
    }

    public static String markdown(KeyView view, Study study) {
        StringBuilder out = new StringBuilder("# ").append(md(view.title())).append("\n\n");
        for (String caution : printed(study)) {
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
        return out.append('\n').append(figures(view)).append('\n').toString();
    }

    private static void openDangers(StringBuilder out, KeyView.TerminalView terminal) {
        terminal.notRuledOut()
                .forEach(
                        d -> out.append("  - **!** ").append(md(notRuledOut(d))).append('\n'));
    }

    private static String md(String text) {
        return text.replaceAll("([\\\\`*_\\[\\]<>#|])", "\\\\$1");
    }

    /** One page with its style inside and nothing loaded from elsewhere; couplets link to one another. */
    public static String html(KeyView view, Study study) {
        StringBuilder out = new StringBuilder(HEAD.replace("$TITLE", esc(view.title())));
        out.append("<main><h1>")
                .append(esc(view.title()))
                .append("</h1>\n<section class=\"cautions\" aria-label=\"Cautions\">");
        for (String caution : printed(study)) {
            out.append("<p>").append(esc(caution)).append("</p>");
        }
        out.append("</section>\n");
        if (view.whole() != null) {
            out.append(htmlTarget(view.whole()));
        }
        for (KeyView.CoupletView couplet : view.couplets()) {
            out.append("<section class=\"couplet\" id=\"c")
                    .append(couplet.number())
                    .append("\"><h2>")
                    .append(couplet.number());
            if (couplet.from() != null) {
                out.append(" <a class=\"back\" href=\"#c")
                        .append(couplet.from())
                        .append("\" aria-label=\"back to couplet ")
                        .append(couplet.from())
                        .append("\">(")
                        .append(couplet.from())
                        .append(")</a>");
            }
            out.append("</h2>\n");
            for (KeyView.LeadView lead : couplet.leads()) {
                out.append("<div class=\"lead\"><span>")
                        .append(esc(lead.text()))
                        .append("</span>");
                if (lead.terminal() == null) {
                    out.append("<a class=\"to\" href=\"#c")
                            .append(lead.couplet())
                            .append("\">")
                            .append(lead.couplet())
                            .append("</a>");
                } else {
                    out.append(htmlTarget(lead.terminal()));
                }
                out.append("</div>\n");
            }
            out.append("</section>\n");
        }
        return out.append("<footer><p>")
                .append(esc(figures(view)))
                .append("</p></footer></main></body></html>\n")
                .toString();
    }

    private static String htmlTarget(KeyView.TerminalView terminal) {
        StringBuilder out = new StringBuilder("<div class=\"to\">");
        KeyView.NameView group = terminal.group();
        for (KeyView.NameView name : group == null ? terminal.names() : List.of(group)) {
            out.append("<p><i>").append(esc(name.label())).append("</i>");
            out.append(name.stage().isEmpty() ? "" : ", " + esc(name.stage()));
            out.append(group == null ? "" : ": " + esc(String.join(", ", KeyWording.members(terminal, group))));
            if (name.hazard() != Hazard.NONE_KNOWN) {
                boolean recorded = name.hazard() != Hazard.NOT_ASSESSED;
                out.append("<span class=\"")
                        .append(recorded ? "hazard" : "unassessed")
                        .append("\">")
                        .append(recorded ? "⚠ " : "")
                        .append(esc(name.hazardText()))
                        .append("</span>");
            }
            out.append("</p>");
        }
        for (KeyView.OpenDangerView danger : terminal.notRuledOut()) {
            String words = esc(notRuledOut(danger));
            String name = esc(danger.name().label());
            out.append("<p class=\"open\">⚠ ")
                    .append(words.replaceFirst(Pattern.quote(name), Matcher.quoteReplacement("<i>" + name + "</i>")))
                    .append("</p>");
        }
        out.append(terminal.reason().isEmpty() ? "" : "<p class=\"reason\">" + esc(terminal.reason()) + "</p>");
        return out.append("</div>").toString();
    }

    static String esc(String text) {
        return text.replace("&", "&amp;")
                .replace("<", "&lt;")
                .replace(">", "&gt;")
                .replace("\"", "&quot;");
    }

    private static final String HEAD = """
            <!doctype html>
            <html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
            <meta http-equiv="Content-Security-Policy" content="default-src 'none'; style-src 'unsafe-inline'">
            <title>$TITLE</title><style>
            body{font:1rem/1.5 Georgia,serif;color:#22241f;background:#faf7f0;margin:0}
            main{max-width:46rem;margin:0 auto;padding:1.5rem}
            h1{font-weight:600}h2{font-size:1rem;margin:0;font-variant-numeric:tabular-nums}
            .cautions{border:2px solid #8c2f1b;padding:.25rem 1rem;margin-bottom:1rem}
            .couplet{border-top:1px solid #c9c2b2;padding:.75rem 0}.couplet:target{background:#efe8d8}
            .lead{display:grid;grid-template-columns:1fr minmax(4rem,16rem);gap:1rem;padding:.25rem 0}
            .lead .to{text-align:right;font-weight:600}.to p{margin:0}a{color:#0b5a4a}
            .hazard{display:block;color:#8c2f1b;font-weight:700;font-style:normal}
            .to .open{color:#8c2f1b;font-weight:400;font-size:.9rem}
            .unassessed{display:block;color:#5d5a50;font-weight:400}
            .reason{font-weight:400;font-style:italic}
            @media print{body{background:#fff}.couplet{break-inside:avoid}}
            </style></head><body>
            """;
}
