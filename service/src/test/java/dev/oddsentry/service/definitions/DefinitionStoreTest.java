package dev.oddsentry.service.definitions;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import java.util.Map;
import java.util.UUID;
import org.jooq.DSLContext;
import org.junit.jupiter.api.Test;
import org.springframework.transaction.support.TransactionTemplate;

/** Documents are read once for each revision; what a transaction took back is never among them. */
class DefinitionStoreTest {
    private final RunningService service = RunningService.get();
    private final DefinitionStore store = service.bean(DefinitionStore.class);
    private final LateSailings sailings = new LateSailings(service).active();

    private RuleDefinition rule() {
        return store.rule(sailings.name).orElseThrow().definition();
    }

    @Test
    void aRevisionIsReadOnceAndANewOneIsSeenAtOnce() {
        assertThat(rule()).isSameAs(rule());
        service.api().push(sailings.rule().replace("Late sailings of", "Very late sailings of"));
        assertThat(rule().title()).startsWith("Very late sailings of");
        assertThat(store.rules().stream().map(each -> each.definition().title()))
                .contains(rule().title());
    }

    @Test
    void aRevisionThatIsRolledBackIsForgottenWithIt() {
        var before = store.rule(sailings.name).orElseThrow();
        UUID author = service.bean(DSLContext.class)
                .fetchValue("select id from person limit 1")
                .toString()
                .transform(UUID::fromString);
        service.bean(TransactionTemplate.class).executeWithoutResult(transaction -> {
            store.addRevision(before.id(), 2, before.definition().withParameters(Map.of("never", "saved")), "", author);
            store.moveTo(before.id(), before.definition(), 2);
            assertThat(rule().parameters()).as("seen in the transaction").containsKey("never");
            transaction.setRollbackOnly();
        });
        assertThat(rule()).isEqualTo(before.definition());
        service.api().push(sailings.rule().replace("Late sailings of", "Other sailings of"));
        assertThat(store.rule(sailings.name).orElseThrow().revision()).isEqualTo(2);
        assertThat(rule().title()).startsWith("Other sailings of");
        assertThat(rule().parameters()).isEmpty();
    }
}
