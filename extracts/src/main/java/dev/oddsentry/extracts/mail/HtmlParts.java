package dev.oddsentry.extracts.mail;

import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.Outline;
import dev.oddsentry.core.extract.RowsAs;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;

/**
 * The pieces of every mail in HTML, with inline styles, since many readers drop style blocks: in a list each finding is two lines that fold by
 * themselves, so one column serves a desktop and a phone. Nothing is loaded from outside. Every text is escaped.
 */
final class HtmlParts {
    static final String INK = "#22303c";
    static final String SLATE = "#5d6b78";
    private static final String FONT = "-apple-system,'Segoe UI',Roboto,Helvetica,Arial,sans-serif";
    private static final String HAIR = "#e3ded4";
    private static final String MARK = "font-weight:600;border-bottom:2px solid " + INK;

    private static final int WIDE = 760;
    private static final int USUAL = 620;

    private final Wording words;
    private boolean hasTable;

    HtmlParts(Wording words) {
        this.words = words;
    }

    /** @param firstLine hidden, beside the subject in an inbox */
    String page(String subject, String firstLine, String body) {
        return "<!doctype html><html lang=\"" + words.phrases().language().code()
                + "\"><head><meta charset=\"utf-8\">"
                + "<meta name=\"viewport\" content=\"width=device-width\"><title>" + escape(subject)
                + "</title>" + (hasTable ? "<style>" + MailTable.NARROW + "</style>" : "")
                + "</head><body style=\"margin:0;background:#faf8f4;color:" + INK + ";font:16px/1.45 " + FONT
                + "\">" + div("display:none;max-height:0;overflow:hidden", escape(firstLine))
                + "<div style=\"max-width:" + (hasTable ? WIDE : USUAL)
                + "px;margin:0 auto;padding:20px 18px;background:#ffffff\">" + body
                + "</div></body></html>";
    }

    String kicker(String text) {
        return div("font-size:14px;color:" + SLATE, escape(text));
    }

    String headline(String text) {
        return "<h1 style=\"font-size:22px;line-height:1.25;font-weight:700;margin:4px 0 2px\">" + escape(text)
                + "</h1>";
    }

    String subheading(String text) {
        return "<h2 style=\"font-size:17px;line-height:1.3;font-weight:700;margin:22px 0 0\">" + escape(text) + "</h2>";
    }

    String aside(String text) {
        return div("color:" + SLATE + ";margin-bottom:10px", escape(text));
    }

    /** What a person wrote, its lines kept. */
    String paragraphs(String text) {
        return div("margin:12px 0;white-space:pre-line", escape(text.strip()));
    }

    String because(String text) {
        return div(
                "border-left:3px solid #2f7d6b;padding:2px 0 2px 12px;color:" + SLATE + ";font-size:14.5px",
                escape(text));
    }

    String foot(String text, List<Wording.Link> links) {
        String after =
                links.stream().map(link -> anchor(link.text(), link.to())).collect(Collectors.joining(" · "));
        return div(
                "color:" + SLATE + ";font-size:14px;margin-top:14px;border-top:1px solid " + HAIR + ";padding-top:10px",
                escape(text) + (after.isEmpty() ? "" : " " + after));
    }

    private static String anchor(String text, String to) {
        return "<a href=\"" + escape(to) + "\" style=\"color:" + SLATE + "\">" + escape(text) + "</a>";
    }

    /**
     * @param most how many rows have lines; all are counted
     * @param more what stands below for the rows that do not; empty for nothing
     */
    String findings(Extract extract, int most, String more) {
        var table = new MailTable(words, extract);
        var as = extract.arrangement().rowsAs();
        if (as == null) as = table.fits(most) ? RowsAs.TABLE : RowsAs.LIST;
        return switch (as) {
            case TABLE -> {
                hasTable = true;
                yield table.html(most, more);
            }
            case LIST -> list(extract, most, more);
            case FIGURES -> figures(extract);
        };
    }

    private String figures(Extract extract) {
        return words.rows().figures(extract).stream()
                .map(line -> div("padding:4px 0;font-weight:600", escape(line)))
                .collect(Collectors.joining());
    }

    private String list(Extract extract, int most, String more) {
        var html = new StringBuilder(
                "<table role=\"presentation\" style=\"width:100%;table-layout:fixed;border-collapse:collapse;background:#ffffff;overflow-wrap:anywhere;word-break:break-word\">");
        for (var line : Outline.of(extract, most)) {
            switch (line) {
                case Outline.RowLine(var row) ->
                    html.append("<tr><td style=\"padding:9px 0;border-bottom:1px solid " + HAIR
                                    + ";background:#ffffff;color:" + INK + "\">")
                            .append(titleLine(extract, row))
                            .append(detailLine(extract, row))
                            .append("</td></tr>");
                case Outline.GroupLine(var values, int rows) ->
                    html.append("<tr><td style=\"padding:16px 0 4px;font-weight:700;color:" + INK + "\">")
                            .append(escape(words.rows().group(extract, values) + ": " + rows))
                            .append("</td></tr>");
                case Outline.TotalLine total ->
                    html.append("<tr><td style=\"padding:6px 0;border-bottom:1px solid " + INK
                                    + ";font-weight:600;color:" + INK + "\">")
                            .append(escape(words.rows().total(extract, total)))
                            .append("</td></tr>");
            }
        }
        if (!more.isEmpty())
            html.append("<tr><td style=\"padding:9px 0;color:" + SLATE + "\">")
                    .append(escape(more))
                    .append("</td></tr>");
        return html.append("</table>").toString();
    }

    /** Of rows that nothing evaluated: one line each. */
    String rows(Extract extract, int most, String more) {
        var html = new StringBuilder(
                "<table role=\"presentation\" style=\"width:100%;table-layout:fixed;border-collapse:collapse;background:#ffffff;overflow-wrap:anywhere;word-break:break-word\">");
        for (var line : Outline.of(extract, most)) {
            String style = "padding:6px 0;border-bottom:1px solid " + HAIR + ";color:" + INK;
            String text = switch (line) {
                case Outline.RowLine(var row) -> words.rows().inOneLine(extract, row);
                case Outline.GroupLine(var values, int rows) -> words.rows().group(extract, values) + ": " + rows;
                case Outline.TotalLine total -> words.rows().total(extract, total);
            };
            String weight = line instanceof Outline.RowLine ? "" : ";font-weight:600";
            html.append("<tr><td style=\"")
                    .append(style)
                    .append(weight)
                    .append("\">")
                    .append(escape(text))
                    .append("</td></tr>");
        }
        if (!more.isEmpty())
            html.append("<tr><td style=\"padding:9px 0;color:" + SLATE + "\">")
                    .append(escape(more))
                    .append("</td></tr>");
        return html.append("</table>").toString();
    }

    private String titleLine(Extract extract, Extract.Row row) {
        var html = new StringBuilder(span(
                "color:" + MailTable.colour(row) + ";font-weight:600",
                escape(words.rows().severityAndKinds(row))));
        for (int i = 0; i < RowWords.titleColumns(extract); i++) {
            String value = marked(row.cells().get(i), escape(words.rows().value(extract, row, i)))
                    + escape(words.rows().was(extract, row, i));
            html.append(" &nbsp; ").append(i == 0 ? "<b>" + value + "</b>" : value);
        }
        return div("", html.toString());
    }

    private String detailLine(Extract extract, Extract.Row row) {
        List<String> parts = new ArrayList<>();
        for (int i = RowWords.titleColumns(extract); i < extract.columns().size(); i++) {
            parts.add(marked(row.cells().get(i), escape(words.rows().labelled(extract, row, i)))
                    + escape(words.rows().was(extract, row, i)));
        }
        String link = row.link() == null
                ? ""
                : (parts.isEmpty() ? "" : " &nbsp; ") + anchor(words.phrases().of("row.link"), row.link());
        return parts.isEmpty() && link.isEmpty() ? "" : div("padding-top:1px", String.join(", ", parts) + link);
    }

    private static String marked(Extract.Cell cell, String html) {
        return cell.marked() ? span(MARK, html) : html;
    }

    /** @param name the Content-ID of the part that holds it */
    String picture(String name, String alternative) {
        return "<img src=\"cid:" + name + "\" width=\"580\" alt=\"" + escape(alternative)
                + "\" style=\"width:100%;max-width:580px;height:auto;margin-top:16px;background:#ffffff\">";
    }

    String button(String text, String link) {
        return "<table role=\"presentation\" style=\"border-collapse:separate;margin:16px 0\"><tr>"
                + "<td style=\"background:" + INK + ";border:1px solid " + INK + ";border-radius:6px\"><a href=\""
                + escape(link)
                + "\" style=\"display:block;padding:10px 18px;color:#faf8f4;font-weight:600;text-decoration:none\">"
                + escape(text) + "</a></td></tr></table>";
    }

    static String div(String style, String html) {
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
