package dev.oddsentry.service.web;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.Collection;
import java.util.Map;
import java.util.TreeSet;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.springframework.core.DefaultParameterNameDiscoverer;
import org.springframework.stereotype.Component;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.method.HandlerMethod;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/**
 * Refuses a query parameter that the operation does not have: a misspelt {@code treatAsKnown} would otherwise send messages, and a misspelt filter
 * would list everything.
 */
@Component
class KnownParameters implements WebMvcConfigurer, HandlerInterceptor {
    private final DefaultParameterNameDiscoverer names = new DefaultParameterNameDiscoverer();
    private final Map<HandlerMethod, Parameters> known = new ConcurrentHashMap<>();

    /** @param any {@code true} if the operation takes parameters of any name, such as the columns of a key */
    private record Parameters(Collection<String> names, boolean any) {}

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(this).addPathPatterns("/api/**");
    }

    @Override
    public boolean preHandle(HttpServletRequest request, HttpServletResponse response, Object handler) {
        if (!(handler instanceof HandlerMethod method) || request.getQueryString() == null) return true;
        var parameters = known.computeIfAbsent(method, this::of);
        if (parameters.any) return true;
        for (String name : request.getParameterMap().keySet())
            if (!parameters.names.contains(name))
                throw RefusedException.malformed(UnreadableBody.unknownName("parameter", name, parameters.names));
        return true;
    }

    private Parameters of(HandlerMethod method) {
        var found = new TreeSet<String>();
        boolean any = false;
        for (var parameter : method.getMethodParameters()) {
            var asked = parameter.getParameterAnnotation(RequestParam.class);
            if (asked == null) continue;
            if (Map.class.isAssignableFrom(parameter.getParameterType())) any = true;
            parameter.initParameterNameDiscovery(names);
            found.add(name(asked, parameter.getParameterName()));
        }
        return new Parameters(found, any);
    }

    private static String name(RequestParam asked, @Nullable String declared) {
        if (!asked.name().isEmpty()) return asked.name();
        return declared == null ? "" : declared;
    }
}
