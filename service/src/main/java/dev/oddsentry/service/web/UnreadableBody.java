package dev.oddsentry.service.web;

import dev.oddsentry.core.problem.Nearest;
import java.util.Collection;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.http.converter.HttpMessageNotReadableException;
import tools.jackson.core.JacksonException;
import tools.jackson.core.exc.StreamConstraintsException;
import tools.jackson.databind.exc.InvalidFormatException;
import tools.jackson.databind.exc.MismatchedInputException;
import tools.jackson.databind.exc.UnrecognizedPropertyException;

/** Says what is wrong with a request's JSON, without the names of classes. */
final class UnreadableBody {
    private UnreadableBody() {}

    static String words(HttpMessageNotReadableException unreadable) {
        return switch (unreadable.getCause()) {
            case StreamConstraintsException _ ->
                "The JSON is nested too deeply, or one of its numbers or texts is too long.";
            case UnrecognizedPropertyException unknown -> unknown(unknown);
            case InvalidFormatException format ->
                "The JSON has a value that does not fit" + at(format) + values(format);
            case MismatchedInputException mismatch -> "The JSON has another form than expected" + at(mismatch) + ".";
            case JacksonException syntax -> "The body is not JSON" + line(syntax) + ".";
            case null, default -> "The request needs a body, as JSON.";
        };
    }

    /** {@code Unknown field "why". Did you mean "reason"? Fields: reason, rule, source.} */
    private static String unknown(UnrecognizedPropertyException unknown) {
        var known = new TreeSet<String>();
        if (unknown.getKnownPropertyIds() != null)
            unknown.getKnownPropertyIds().forEach(id -> known.add(id.toString()));
        return unknownName("field", unknown.getPropertyName(), known);
    }

    /** @param what {@code field} or {@code parameter} */
    static String unknownName(String what, String name, Collection<String> known) {
        return "Unknown " + what + " \"" + name + "\"."
                + Nearest.to(name, known)
                        .map(nearest -> " Did you mean \"" + nearest + "\"?")
                        .orElse("")
                + (known.isEmpty() ? "" : " Known: " + String.join(", ", known) + ".");
    }

    private static String values(InvalidFormatException format) {
        Class<?> wanted = format.getTargetType();
        if (wanted == null || !wanted.isEnum()) return ".";
        return ". Values: "
                + Stream.of(wanted.getEnumConstants()).map(Object::toString).collect(Collectors.joining(", ")) + ".";
    }

    private static String at(JacksonException e) {
        var path = new StringBuilder();
        for (var step : e.getPath()) {
            if (step.getPropertyName() == null)
                path.append('[').append(step.getIndex()).append(']');
            else path.append(path.isEmpty() ? "" : ".").append(step.getPropertyName());
        }
        return path.isEmpty() ? "" : " at \"" + path + "\"";
    }

    private static String line(JacksonException e) {
        var place = e.getLocation();
        return place == null || place.getLineNr() < 1
                ? ""
                : " (line " + place.getLineNr() + ", column " + place.getColumnNr() + ")";
    }
}
