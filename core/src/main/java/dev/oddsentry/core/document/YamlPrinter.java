package dev.oddsentry.core.document;

import java.util.Map;
import org.snakeyaml.engine.v2.api.Dump;
import org.snakeyaml.engine.v2.api.DumpSettings;
import org.snakeyaml.engine.v2.common.FlowStyle;

/** Trees of maps, lists and scalars as YAML. */
public final class YamlPrinter {
    private static final int WIDTH = 100;

    private YamlPrinter() {}

    public static String print(Map<String, Object> tree) {
        var settings = DumpSettings.builder()
                .setDefaultFlowStyle(FlowStyle.BLOCK)
                .setUseUnicodeEncoding(true)
                // Two empty lists are one object, which would be written once and referred to.
                .setDereferenceAliases(true)
                .setWidth(WIDTH)
                .build();
        return new Dump(settings).dumpToString(tree);
    }
}
