package dev.oddsentry.service.web;

import org.springframework.http.converter.HttpMessageNotReadableException;
import tools.jackson.core.JacksonException;
import tools.jackson.core.exc.StreamConstraintsException;
import tools.jackson.databind.exc.InvalidFormatException;
import tools.jackson.databind.exc.MismatchedInputException;

/** Says what is wrong with a request's JSON, without the names of classes. */
final class UnreadableBody {
    private UnreadableBody() {}

    static String words(HttpMessageNotReadableException unreadable) {
        return switch (unreadable.getCause()) {
            case StreamConstraintsException _ ->
                "The JSON is nested too deeply, or one of its numbers or texts is too long.";
            case InvalidFormatException format -> "The JSON has a value that does not fit" + at(format) + ".";
            case MismatchedInputException mismatch -> "The JSON has another form than expected" + at(mismatch) + ".";
            case JacksonException syntax -> "The body is not JSON" + line(syntax) + ".";
            case null, default -> "The request needs a body, as JSON.";
        };
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
