package dev.oddsentry.core.value;

/** A column of a query's result, by the name the source gave it. */
public record Column(String name, Type type) {}
