package dev.oddsentry.cli.common;

import dev.oddsentry.cli.output.Listing;
import java.io.PrintWriter;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Option;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;

/** How a listing is printed. */
public final class OutputOptions {
    @ArgGroup
    private @Nullable Format format;

    static final class Format {
        @Option(names = "--json", description = "The service's answer as JSON.")
        boolean json;

        @Option(names = "--csv", description = "The table as CSV.")
        boolean csv;
    }

    /** {@code true} if neither JSON nor CSV is wanted, so that a person reads it. */
    public boolean isTable() {
        return format == null || (!format.json && !format.csv);
    }

    /** @param nothing printed in place of an empty table */
    public void print(PrintWriter out, Object answer, Supplier<Listing> table, String nothing) {
        if (format != null && format.json) {
            printJson(out, answer);
            return;
        }
        Listing listing = table.get();
        if (format != null && format.csv) listing.printCsv(out);
        else if (listing.isEmpty()) out.println(nothing);
        else listing.printTable(out);
    }

    public boolean isJson() {
        return format != null && format.json;
    }

    public static void printJson(PrintWriter out, Object answer) {
        out.println(JsonMapper.builder()
                .enable(SerializationFeature.INDENT_OUTPUT)
                .build()
                .writeValueAsString(answer));
    }
}
