package dev.oddsentry.cli.output;

import java.util.ArrayList;
import java.util.List;

/** Where two texts differ, line by line, by their longest common lines. */
public final class LineDifferences {
    private LineDifferences() {}

    /** {@code - line} for those that are gone and {@code + line} for those that came, in order; what is the same is left out. */
    public static List<String> lines(String before, String after) {
        var old = before.lines().toList();
        var now = after.lines().toList();
        int[][] common = common(old, now);
        var lines = new ArrayList<String>();
        int i = 0;
        int j = 0;
        while (i < old.size() || j < now.size()) {
            if (i < old.size() && j < now.size() && old.get(i).equals(now.get(j))) {
                i++;
                j++;
            } else if (j >= now.size() || (i < old.size() && common[i + 1][j] >= common[i][j + 1])) {
                lines.add("- " + old.get(i++));
            } else {
                lines.add("+ " + now.get(j++));
            }
        }
        return lines;
    }

    /** How many lines are common from each pair of places on. */
    private static int[][] common(List<String> old, List<String> now) {
        int[][] common = new int[old.size() + 1][now.size() + 1];
        for (int i = old.size() - 1; i >= 0; i--)
            for (int j = now.size() - 1; j >= 0; j--)
                common[i][j] = old.get(i).equals(now.get(j))
                        ? common[i + 1][j + 1] + 1
                        : Math.max(common[i + 1][j], common[i][j + 1]);
        return common;
    }
}
