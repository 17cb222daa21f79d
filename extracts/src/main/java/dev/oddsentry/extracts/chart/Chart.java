package dev.oddsentry.extracts.chart;

import dev.oddsentry.core.extract.Language;
import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Font;
import java.awt.FontFormatException;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.time.Instant;
import java.time.ZoneId;
import java.util.Date;
import java.util.List;
import java.util.Objects;
import java.util.TimeZone;
import org.jfree.chart.ChartUtils;
import org.jfree.chart.JFreeChart;
import org.jfree.chart.axis.DateAxis;
import org.jfree.chart.axis.NumberAxis;
import org.jfree.chart.plot.XYPlot;
import org.jfree.chart.renderer.xy.XYLineAndShapeRenderer;
import org.jfree.chart.title.LegendTitle;
import org.jfree.data.time.FixedMillisecond;
import org.jfree.data.time.TimeSeries;
import org.jfree.data.time.TimeSeriesCollection;
import org.jspecify.annotations.Nullable;

/**
 * How a measured value moved over the past checks, a line for each group.
 *
 * @param label what was measured
 * @param unit of it; null for none
 * @param lines of at least one point each, oldest first
 */
public record Chart(String label, @Nullable String unit, ZoneId zone, Language language, List<Line> lines) {
    private static final int WIDTH = 580;
    private static final int HEIGHT = 210;
    /** For screens with twice the dots. */
    private static final int SCALE = 2;

    private static final Color INK = new Color(0x22303c);
    private static final Color SLATE = new Color(0x5d6b78);
    private static final Color HAIR = new Color(0xe3ded4);
    private static final List<Color> COLOURS = List.of(
            new Color(0xb3412e), new Color(0x2f7d6b), new Color(0xc77d0a), new Color(0x22303c), new Color(0x7a5c99));

    /** The font that the jar brings: what the machine has may lack letters, or be none at all. */
    private static final Font FONT = font();

    /** @param name of the group; empty where there is only one */
    public record Line(String name, List<Point> points) {
        Point last() {
            return points.getLast();
        }
    }

    public record Point(Instant slot, BigDecimal value) {}

    private static Font font() {
        try (InputStream file = Objects.requireNonNull(
                Chart.class.getResourceAsStream("/dev/oddsentry/extracts/page/DejaVuSans.ttf"))) {
            return Font.createFont(Font.TRUETYPE_FONT, file);
        } catch (IOException | FontFormatException e) {
            throw new IllegalStateException("the font of charts cannot be read", e);
        }
    }

    /** A PNG of 1160 × 420 dots, to be shown at half that size. */
    public byte[] png() {
        var data = new TimeSeriesCollection(TimeZone.getTimeZone(zone));
        for (int i = 0; i < lines.size(); i++) {
            var series = new TimeSeries(
                    lines.get(i).name().isEmpty() ? label : lines.get(i).name());
            for (var point : lines.get(i).points())
                series.addOrUpdate(
                        new FixedMillisecond(Date.from(point.slot())),
                        point.value().doubleValue());
            data.addSeries(series);
        }
        var chart = new JFreeChart(null, FONT, plot(data), false);
        chart.setBackgroundPaint(Color.WHITE);
        if (lines.size() > 1) {
            var legend = new LegendTitle(chart.getPlot());
            legend.setItemFont(FONT.deriveFont(12f));
            legend.setItemPaint(INK);
            legend.setFrame(org.jfree.chart.block.BlockBorder.NONE);
            chart.addLegend(legend);
        }
        var out = new ByteArrayOutputStream();
        try {
            ChartUtils.writeScaledChartAsPNG(out, chart, WIDTH, HEIGHT, SCALE, SCALE);
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
        return out.toByteArray();
    }

    private XYPlot plot(TimeSeriesCollection data) {
        var time = new DateAxis(null, TimeZone.getTimeZone(zone), language.locale());
        var values = new NumberAxis(unit == null ? label : label + " (" + unit + ")");
        values.setAutoRangeIncludesZero(false);
        for (var axis : List.of(time, values)) {
            axis.setTickLabelFont(FONT.deriveFont(11f));
            axis.setTickLabelPaint(SLATE);
            axis.setLabelFont(FONT.deriveFont(12f));
            axis.setLabelPaint(INK);
            axis.setAxisLinePaint(HAIR);
            axis.setTickMarkPaint(HAIR);
        }
        var renderer = new XYLineAndShapeRenderer(true, true);
        for (int i = 0; i < lines.size(); i++) {
            renderer.setSeriesPaint(i, COLOURS.get(i % COLOURS.size()));
            renderer.setSeriesStroke(i, new BasicStroke(2f));
            renderer.setSeriesShape(i, new java.awt.geom.Ellipse2D.Double(-2, -2, 4, 4));
        }
        var plot = new XYPlot(data, time, values, renderer);
        plot.setBackgroundPaint(Color.WHITE);
        plot.setOutlineVisible(false);
        plot.setRangeGridlinePaint(HAIR);
        plot.setDomainGridlinesVisible(false);
        return plot;
    }
}
