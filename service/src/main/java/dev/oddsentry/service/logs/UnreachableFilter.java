package dev.oddsentry.service.logs;

import ch.qos.logback.classic.Level;
import ch.qos.logback.classic.Logger;
import ch.qos.logback.classic.LoggerContext;
import ch.qos.logback.classic.turbo.TurboFilter;
import ch.qos.logback.core.spi.FilterReply;
import java.net.SocketException;
import java.net.SocketTimeoutException;
import java.net.UnknownHostException;
import java.sql.SQLException;
import java.sql.SQLTransientConnectionException;
import java.util.ArrayDeque;
import java.util.Arrays;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Set;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.slf4j.ILoggerFactory;
import org.slf4j.LoggerFactory;
import org.slf4j.Marker;
import org.slf4j.helpers.MessageFormatter;
import org.springframework.beans.factory.DisposableBean;
import org.springframework.stereotype.Component;

/**
 * Logs in one line that a server cannot be reached, in whatever logger it is met. Database, sources and mail servers do go away, and everything
 * that then fails would otherwise log the same long trace. A logger at DEBUG keeps its traces.
 */
@Component
public class UnreachableFilter extends TurboFilter implements DisposableBean {
    private static final String CALLER = Logger.class.getName();

    private static final Pattern LINE_BREAKS = Pattern.compile("\\s*\\R\\s*");

    private static final Pattern END = Pattern.compile("[.:!\\s]+$");

    /** Connection lost or refused, and a server that shuts down, starts or has no connection left. */
    private static final Pattern CONNECTION_STATES = Pattern.compile("08...|57P0[1-5]|53300");

    private final ILoggerFactory loggers = LoggerFactory.getILoggerFactory();

    UnreachableFilter() {
        if (loggers instanceof LoggerContext logback) logback.addTurboFilter(this);
    }

    @Override
    public void destroy() {
        if (loggers instanceof LoggerContext logback)
            logback.getTurboFilterList().remove(this);
    }

    @Override
    public FilterReply decide(
            @Nullable Marker marker,
            Logger logger,
            Level level,
            @Nullable String format,
            Object @Nullable [] parameters,
            @Nullable Throwable thrown) {
        var unreachable = unreachable(thrown == null ? last(parameters) : thrown);
        if (unreachable == null || logger.isDebugEnabled()) return FilterReply.NEUTRAL;
        String message = String.valueOf(MessageFormatter.basicArrayFormat(format, withoutThrowable(parameters)));
        String line = LINE_BREAKS
                .matcher(END.matcher(message).replaceFirst("") + ": " + unreachable.getMessage())
                .replaceAll(" ");
        logger.log(marker, CALLER, Level.toLocationAwareLoggerInteger(level), "{}", new Object[] {line}, null);
        return FilterReply.DENY;
    }

    private static @Nullable Throwable last(Object @Nullable [] parameters) {
        return parameters != null
                        && parameters.length > 0
                        && parameters[parameters.length - 1] instanceof Throwable thrown
                ? thrown
                : null;
    }

    private static Object @Nullable [] withoutThrowable(Object @Nullable [] parameters) {
        return last(parameters) == null || parameters == null
                ? parameters
                : Arrays.copyOf(parameters, parameters.length - 1);
    }

    /** The innermost cause that says that a server cannot be reached, also of what failed on the way out; null for none. */
    private static @Nullable Throwable unreachable(@Nullable Throwable thrown) {
        if (thrown == null) return null;
        Throwable found = null;
        Set<Throwable> seen = Collections.newSetFromMap(new IdentityHashMap<>());
        var left = new ArrayDeque<Throwable>(List.of(thrown));
        while (!left.isEmpty()) {
            var each = left.removeFirst();
            if (!seen.add(each)) continue;
            if (isUnreachable(each)) found = each;
            if (each.getCause() != null) left.add(each.getCause());
            left.addAll(List.of(each.getSuppressed()));
        }
        return found;
    }

    private static boolean isUnreachable(Throwable thrown) {
        return switch (thrown) {
            case SQLTransientConnectionException _ -> true;
            case SQLException sql ->
                sql.getSQLState() != null
                        && CONNECTION_STATES.matcher(sql.getSQLState()).matches();
            case SocketException _, SocketTimeoutException _, UnknownHostException _ -> true;
            default -> false;
        };
    }
}
