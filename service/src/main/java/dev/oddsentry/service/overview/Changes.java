package dev.oddsentry.service.overview;

import static dev.oddsentry.service.db.generated.Tables.AUDIT_EVENT;
import static dev.oddsentry.service.db.generated.Tables.FINDING_EVENT;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE_RECIPIENT;
import static dev.oddsentry.service.db.generated.Tables.RECIPIENT_TRY;
import static dev.oddsentry.service.db.generated.Tables.RULE_CHECK;
import static org.jooq.impl.DSL.field;
import static org.jooq.impl.DSL.max;
import static org.jooq.impl.DSL.select;
import static org.jooq.impl.DSL.selectCount;

import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.outbox.RecipientState;
import dev.oddsentry.service.rules.CheckState;
import java.io.IOException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.CopyOnWriteArraySet;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.SmartLifecycle;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/**
 * Tells consoles that are open that something has changed, also on another node: one look a second at the newest of each kind, by indexes
 * alone, and none while nobody listens. What changed is theirs to ask. A change that no look can see, such as a check that is run again
 * and ends between two of them, is found when the console asks by itself.
 */
@Component
public class Changes implements SmartLifecycle {
    private static final Logger LOG = LoggerFactory.getLogger(Changes.class);
    private static final Duration LOOK_EVERY = Duration.ofSeconds(1);
    /** A connection that nothing goes through is cut by what lies between. */
    private static final int LOOKS_TO_A_SIGN_OF_LIFE = 15;

    private static final Duration LONGEST = Duration.ofMinutes(10);

    private final DSLContext db;
    private final Set<SseEmitter> listeners = new CopyOnWriteArraySet<>();
    private volatile @Nullable ScheduledExecutorService looking;
    private @Nullable Record seen;
    private int looks;

    Changes(DSLContext db) {
        this.db = db;
    }

    /** Ends after ten minutes, and the browser asks again: so that one who may no longer look is told so. */
    public SseEmitter listen() {
        var listener = new SseEmitter(LONGEST.toMillis());
        listener.onCompletion(() -> listeners.remove(listener));
        listener.onError(_ -> listeners.remove(listener));
        listener.onTimeout(listener::complete);
        // A browser asks again soon; a service that is about to end, or that cannot read its records, must not keep it.
        if (!isRunning() || !added(listener)) listener.complete();
        else send(listener, SseEmitter.event().comment("listening"));
        return listener;
    }

    /** The looks compare with a state from before the console is told that it is connected, so nothing after that goes unseen. */
    private synchronized boolean added(SseEmitter listener) {
        try {
            if (seen == null) seen = newest();
            listeners.add(listener);
            return true;
        } catch (RuntimeException e) {
            LOG.debug("The state could not be read for a console", e);
            return false;
        }
    }

    private void look() {
        try {
            var moved = whatMovedSinceTheLastLook();
            if (!moved.isEmpty()) {
                for (var listener : listeners)
                    send(listener, SseEmitter.event().name("changed").data(String.join(" ", moved)));
            } else if (++looks % LOOKS_TO_A_SIGN_OF_LIFE == 0) {
                for (var listener : listeners) send(listener, SseEmitter.event().comment("here"));
            }
        } catch (RuntimeException e) {
            // The records may be unreachable for a while; the next look tries again.
            LOG.debug("Consoles could not be notified of changes", e);
        }
    }

    private synchronized List<String> whatMovedSinceTheLastLook() {
        if (listeners.isEmpty()) {
            seen = null;
            return List.of();
        }
        var now = newest();
        var before = seen;
        seen = now;
        return before == null || before.equals(now) ? List.of() : whatMoved(before, now);
    }

    private Record newest() {
        return db.select(
                        field(select(max(RULE_CHECK.SLOT)).from(RULE_CHECK)).as("checks"),
                        field(selectCount().from(RULE_CHECK).where(RULE_CHECK.STATE.eq(CheckState.RUNNING)))
                                .as("checks_running"),
                        field(select(max(FINDING_EVENT.ID)).from(FINDING_EVENT)).as("findings"),
                        field(select(max(MESSAGE.CREATED_AT)).from(MESSAGE)).as("mail"),
                        field(select(max(RECIPIENT_TRY.ID)).from(RECIPIENT_TRY)).as("mail_tries"),
                        field(selectCount()
                                        .from(MESSAGE_RECIPIENT)
                                        .where(MESSAGE_RECIPIENT.STATE.in(
                                                RecipientState.QUEUED, RecipientState.SENDING, RecipientState.UNSURE)))
                                .as("mail_waiting"),
                        // Looking at something is in the audit too, and changes nothing.
                        field(select(AUDIT_EVENT.ID)
                                        .from(AUDIT_EVENT)
                                        .where(AUDIT_EVENT.ACT.notIn(AuditAct.looks()))
                                        .orderBy(AUDIT_EVENT.ID.desc())
                                        .limit(1))
                                .as("definitions"))
                .fetchSingle();
    }

    private static List<String> whatMoved(Record before, Record now) {
        var moved = new ArrayList<String>();
        for (var each : now.fields()) {
            String what = each.getName().replaceFirst("_.*", "");
            boolean same = Objects.equals(before.get(each), now.get(each));
            if (!same && !moved.contains(what)) moved.add(what);
        }
        return moved;
    }

    private void send(SseEmitter listener, SseEmitter.SseEventBuilder event) {
        try {
            listener.send(event);
        } catch (IOException | IllegalStateException gone) {
            listeners.remove(listener);
        }
    }

    @Override
    public void start() {
        var timer = Executors.newSingleThreadScheduledExecutor(
                Thread.ofPlatform().name("changes").daemon(true).factory());
        timer.scheduleWithFixedDelay(this::look, LOOK_EVERY.toMillis(), LOOK_EVERY.toMillis(), TimeUnit.MILLISECONDS);
        looking = timer;
    }

    /** Before the web server, which would wait for every console that is open. */
    @Override
    public void stop() {
        if (looking != null) looking.shutdownNow();
        looking = null;
        listeners.forEach(SseEmitter::complete);
        listeners.clear();
    }

    @Override
    public boolean isRunning() {
        return looking != null;
    }

    @Override
    public int getPhase() {
        return Integer.MAX_VALUE;
    }
}
