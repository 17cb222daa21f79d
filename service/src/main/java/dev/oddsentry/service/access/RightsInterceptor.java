package dev.oddsentry.service.access;

import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.web.RefusedException;
import jakarta.servlet.DispatcherType;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.Locale;
import java.util.Map;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;
import org.springframework.web.method.HandlerMethod;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.HandlerMapping;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/** Asks for each operation, before it reads what was sent, whether the person may do it. The name of an operation is that of its method. */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
class RightsInterceptor implements WebMvcConfigurer, HandlerInterceptor {
    /** What is sent says what it is about; the service asks when it has read it. */
    private static final String CONTENT = "content";

    private static final String OURS = "dev.oddsentry.";

    private final OperationRights rights;
    private final Subjects subjects;
    private final Access access;

    RightsInterceptor(OperationRights rights, Subjects subjects, Access access) {
        this.rights = rights;
        this.subjects = subjects;
        this.access = access;
    }

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(this).addPathPatterns("/api/**");
    }

    @Override
    public boolean preHandle(HttpServletRequest request, HttpServletResponse response, Object handler) {
        // The end of what was allowed when it began.
        if (request.getDispatcherType() == DispatcherType.ASYNC) return true;
        if (!(handler instanceof HandlerMethod method)
                || !method.getBeanType().getName().startsWith(OURS)) return true;
        var need = rights.of(method.getMethod().getName())
                .orElseThrow(() -> RefusedException.forbidden("Nobody may do this yet: it has no right."));
        if (need.right() == Right.EVERYONE) return true;
        var authentication = SecurityContextHolder.getContext().getAuthentication();
        if (!(authentication instanceof LoggedIn loggedIn))
            throw RefusedException.unauthorised("You are not logged in or your session expired.");
        Person person = loggedIn.getPrincipal();
        BearerTokenFilter.scopeOf(request).ifPresent(scope -> refuseBeyond(scope, need.right(), request));
        access.requireRole(person, need.right());
        if (need.about().isEmpty() || need.about().equals(CONTENT)) return true;
        var path = variables(request);
        subjects.require(person, need.about(), path);
        if (!need.right().isOfTeam()) return true;
        access.requireTeam(person, need.right(), subjects.owner(need.about(), path));
        subjects.refuseRetired(need.about(), path);
        return true;
    }

    /** What one has oneself may be read with any token, and be changed with one that may do everything. */
    private static void refuseBeyond(TokenScope scope, Right right, HttpServletRequest request) {
        boolean reads = right == Right.SELF && request.getMethod().equals("GET");
        var needed = reads || isItsOwnEnd(request) ? TokenScope.READ : right.scope();
        if (!scope.covers(needed))
            throw RefusedException.forbidden(
                    "This token is for \"" + words(scope) + "\"; this needs one for \"" + words(needed) + "\".");
    }

    private static boolean isItsOwnEnd(HttpServletRequest request) {
        return request.getMethod().equals("DELETE") && request.getRequestURI().endsWith("/api/tokens/current");
    }

    private static String words(TokenScope scope) {
        return scope.name().toLowerCase(Locale.ROOT);
    }

    @SuppressWarnings("unchecked")
    private static Map<String, String> variables(HttpServletRequest request) {
        var found = request.getAttribute(HandlerMapping.URI_TEMPLATE_VARIABLES_ATTRIBUTE);
        return found == null ? Map.of() : (Map<String, String>) found;
    }
}
