package dev.oddsentry.extracts.mail;

import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.finding.Severity;
import java.util.ArrayList;
import java.util.List;

/**
 * The HTML of a mail, with inline styles only, since many readers drop style blocks: each finding is two lines that fold by
 * themselves, so one column serves a desktop and a phone. Nothing is loaded from outside. Every text is escaped.
 */
public final class HtmlMail {
    private static final String FONT = "-apple-system,'Segoe UI',Roboto,Helvetica,Arial,sans-serif";
    private static final String INK = "#22303c";
    private static final String SLATE = "#5d6b78";
    private static final String HAIR = "#e3ded4";
    private static final String MARK = "font-weight:600;border-bottom:2px solid " + INK;

    private HtmlMail() {}

    public static String render(Announcement said) {
        var html = new StringBuilder(4096);
        html.append("<!doctype html><html lang=\"en\"><head><meta charset=\"utf-8\">")
                .append("<meta name=\"viewport\" content=\"width=device-width\"><title>")
                .append(escape(Wording.subject(said)))
                .append("</title></head><body style=\"margin:0;background:#faf8f4;color:" + INK + ";font:16px/1.45 "
                        + FONT + "\">");
        html.append(div("display:none;max-height:0;overflow:hidden", escape(Wording.firstLine(said))));
        html.append("<div style=\"max-width:620px;margin:0 auto;padding:20px 18px;background:#ffffff\">");
        html.append(div(
                "font-size:14px;color:" + SLATE, escape(Wording.oneLine(said.title()) + " · " + Wording.slot(said))));
        if (said.greeting() != null) html.append(div("margin-top:12px", escape(Wording.oneLine(said.greeting()))));
        html.append("<h1 style=\"font-size:22px;line-height:1.25;font-weight:700;margin:4px 0 2px\">")
                .append(escape(Wording.headline(said)))
                .append("</h1>");
        html.append(div("color:" + SLATE + ";margin-bottom:10px", escape(Wording.context(said))));
        html.append(findings(said));
        html.append(button(said));
        html.append(div(
                "border-left:3px solid #2f7d6b;padding:2px 0 2px 12px;color:" + SLATE + ";font-size:14.5px",
                escape(Wording.because(said))));
        html.append(div(
                "color:" + SLATE + ";font-size:14px;margin-top:14px;border-top:1px solid " + HAIR + ";padding-top:10px",
                escape(Wording.foot(said))));
        return html.append("</div></body></html>").toString();
    }

    private static String findings(Announcement said) {
        var html = new StringBuilder(
                "<table role=\"presentation\" style=\"width:100%;border-collapse:collapse;background:#ffffff\">");
        said.news().rows().stream()
                .limit(Announcement.MOST_ROWS)
                .forEach(row -> html.append("<tr><td style=\"padding:9px 0;border-bottom:1px solid " + HAIR
                                + ";background:#ffffff;color:" + INK + "\">")
                        .append(titleLine(said.news(), row))
                        .append(detailLine(said.news(), row))
                        .append("</td></tr>"));
        if (!Wording.more(said).isEmpty()) {
            html.append("<tr><td style=\"padding:9px 0;color:" + SLATE + "\">")
                    .append(escape(Wording.more(said)))
                    .append("</td></tr>");
        }
        return html.append("</table>").toString();
    }

    private static String titleLine(Extract extract, Extract.Row row) {
        var html = new StringBuilder(
                span("color:" + colour(row) + ";font-weight:600", escape(Wording.severityAndKinds(row))));
        for (int i = 0; i < Wording.titleColumns(extract); i++) {
            String value = marked(row.cells().get(i), escape(Wording.value(extract, row, i)))
                    + escape(Wording.was(extract, row, i));
            html.append(" &nbsp; ").append(i == 0 ? "<b>" + value + "</b>" : value);
        }
        return div("", html.toString());
    }

    private static String detailLine(Extract extract, Extract.Row row) {
        List<String> parts = new ArrayList<>();
        for (int i = Wording.titleColumns(extract); i < extract.columns().size(); i++) {
            parts.add(marked(row.cells().get(i), escape(Wording.labelled(extract, row, i)))
                    + escape(Wording.was(extract, row, i)));
        }
        return div("padding-top:1px", String.join(", ", parts));
    }

    private static String marked(Extract.Cell cell, String html) {
        return cell.marked() ? span(MARK, html) : html;
    }

    private static String colour(Extract.Row row) {
        if (Wording.isOver(row)) return "#2f7d6b";
        return switch (row.severity()) {
            case Severity.CRITICAL -> "#b3412e";
            case Severity.WARNING -> "#8a5400";
            case Severity.NOTICE -> SLATE;
        };
    }

    private static String button(Announcement said) {
        return "<table role=\"presentation\" style=\"border-collapse:separate;margin:16px 0\"><tr>"
                + "<td style=\"background:" + INK + ";border:1px solid " + INK + ";border-radius:6px\"><a href=\""
                + escape(said.link())
                + "\" style=\"display:block;padding:10px 18px;color:#faf8f4;font-weight:600;text-decoration:none\">"
                + escape(Wording.seeAll(said)) + "</a></td></tr></table>";
    }

    private static String div(String style, String html) {
        return style.isEmpty() ? "<div>" + html + "</div>" : "<div style=\"" + style + "\">" + html + "</div>";
    }

    private static String span(String style, String html) {
        return "<span style=\"" + style + "\">" + html + "</span>";
    }

    static String escape(String text) {
        var escaped = new StringBuilder(text.length() + 16);
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            switch (c) {
                case '<' -> escaped.append("&lt;");
                case '>' -> escaped.append("&gt;");
                case '&' -> escaped.append("&amp;");
                case '"' -> escaped.append("&quot;");
                case '\'' -> escaped.append("&#39;");
                default -> escaped.append(c);
            }
        }
        return escaped.toString();
    }
}
