package dev.morphema.benchmarks;

import java.awt.Color;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import org.jfree.chart.ChartFactory;
import org.jfree.chart.ChartUtils;
import org.jfree.chart.JFreeChart;
import org.jfree.chart.plot.CategoryPlot;
import org.jfree.chart.renderer.category.BarRenderer;
import org.jfree.chart.renderer.category.StandardBarPainter;
import org.jfree.data.category.DefaultCategoryDataset;

/** Draws medians as bars. */
final class Plot {
    private static final int WIDTH = 1000;
    private static final int HEIGHT = 500;

    private static final Color GRID = new Color(0xCCCCCC);
    /** In the order of the contenders. */
    private static final List<Color> COLOURS = List.of(new Color(0x0B5F76), new Color(0x8FA3AD), new Color(0xE0A458));

    private Plot() {}

    /**
     * Draws the cpu time of each contender as a multiple of that of the program written by hand.
     */
    static void write(List<Comparison.Row> rows, Path file) throws IOException {
        DefaultCategoryDataset data = new DefaultCategoryDataset();
        for (Comparison.Row row : rows) {
            double hand = rows.stream()
                    .filter(r -> r.workload() == row.workload() && r.contender().equals("hand"))
                    .findFirst()
                    .orElseThrow()
                    .medians()
                    .cpu();
            if (row.contender().equals(Contenders.LIMIT)) {
                continue;
            }
            data.addValue(
                    row.medians().cpu() / hand, row.contender(), row.workload().name());
        }
        JFreeChart chart = ChartFactory.createBarChart(
                "Cpu time, the program written by hand being 1", "workload", "times the program written by hand", data);
        CategoryPlot plot = chart.getCategoryPlot();
        plot.setBackgroundPaint(Color.WHITE);
        plot.setOutlineVisible(false);
        plot.setRangeGridlinePaint(GRID);
        BarRenderer bars = (BarRenderer) plot.getRenderer();
        bars.setBarPainter(new StandardBarPainter());
        bars.setItemMargin(0.05);
        for (int i = 0; i < COLOURS.size(); i++) {
            bars.setSeriesPaint(i, COLOURS.get(i));
        }
        ChartUtils.saveChartAsPNG(file.toFile(), chart, WIDTH, HEIGHT);
    }
}
