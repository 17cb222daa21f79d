package dev.oddsentry.core.definition;

/** Reads a threshold's document. */
final class ThresholdReader {
    private ThresholdReader() {}

    static ThresholdDefinition read(Fields top) {
        var common = CommonFields.read(top);
        var threshold = new ThresholdDefinition(
                common.id(),
                common.name(),
                common.title(),
                top.text("unit").orElse(null),
                top.text("description").orElse(null),
                top.texts("key"));
        top.refuseOthers();
        return threshold;
    }
}
