package dev.oddsentry.service.web;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletRequestWrapper;
import java.nio.charset.StandardCharsets;
import java.util.Collections;
import java.util.Enumeration;
import java.util.LinkedHashMap;
import java.util.Map;
import org.apache.tomcat.util.http.Parameters;
import org.jspecify.annotations.Nullable;

/** A request whose parameters are those of its form alone. The server cannot read them, since the body has been read. */
final class FormRequest extends HttpServletRequestWrapper {
    private static final int MOST = 50;

    private final Map<String, String[]> fields = new LinkedHashMap<>();

    FormRequest(HttpServletRequest request, byte[] body) {
        super(request);
        var form = new Parameters();
        form.setCharset(StandardCharsets.UTF_8);
        form.setLimit(MOST);
        // It decodes in place.
        form.processParameters(body.clone(), 0, body.length);
        for (String name : Collections.list(form.getParameterNames())) fields.put(name, form.getParameterValues(name));
    }

    @Override
    public @Nullable String getParameter(String name) {
        var values = fields.get(name);
        return values == null ? null : values[0];
    }

    @Override
    public String @Nullable [] getParameterValues(String name) {
        return fields.get(name);
    }

    @Override
    public Enumeration<String> getParameterNames() {
        return Collections.enumeration(fields.keySet());
    }

    @Override
    public Map<String, String[]> getParameterMap() {
        return Collections.unmodifiableMap(fields);
    }
}
