package dev.oddsentry.service.api;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;

/** Lists that grow without end are given page by page, and no entry is lost or given twice, whatever is added meanwhile. */
class PagesTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final LateSailings sailings = new LateSailings(service);

    @BeforeEach
    void ruleWithOneCheckAndOneMessage() {
        sailings.late("SK-1", 20).active();
        api.check(sailings.name);
    }

    private void clone(String table, String column, String changed, int rows) {
        service.execute("records", """
                insert into %s select (jsonb_populate_record(null::%s, to_jsonb(t) || jsonb_build_object('id', gen_random_uuid()) || %s)).*
                from (select t.* from %s t join definition d on d.id = t.rule_id where d.name = '%s' order by t.%s limit 1) t,
                     generate_series(1, %d) n
                """.formatted(table, table, changed, table, sailings.name, column, rows));
    }

    private List<JsonNode> pages(String path, String field, Consumer<Integer> afterEach) {
        var all = new ArrayList<JsonNode>();
        String next = null;
        int pages = 0;
        do {
            var page = api.get(path + (next == null ? "" : (path.contains("?") ? "&" : "?") + "after=" + next));
            page.path(field).forEach(all::add);
            next = page.path("next").isString() ? page.path("next").asString() : null;
            afterEach.accept(++pages);
        } while (next != null);
        return all;
    }

    @Test
    void checksOfARuleAreGivenPageByPage() {
        clone(
                "rule_check",
                "slot",
                "jsonb_build_object('slot', t.slot - n * interval '1 minute', 'request_key', null)",
                230);
        var checks = pages("/api/rules/" + sailings.name + "/checks", "checks", page -> {
            if (page == 1) api.check(sailings.name);
        });
        assertThat(checks).hasSize(231);
        assertThat(checks.stream().map(check -> check.path("id").asString())).doesNotHaveDuplicates();
        assertThat(checks.stream().map(check -> check.path("slot").asString()))
                .isSortedAccordingTo(Comparator.reverseOrder());
    }

    @Test
    void messagesOfTheSameInstantAreGivenOnceEach() {
        clone(
                "message",
                "created_at",
                "jsonb_build_object('created_at', date_trunc('minute', t.created_at) - (n / 90) * interval '1 hour',"
                        + " 'message_id', t.message_id || n)",
                430);
        var messages = pages("/api/outbox?rule=" + sailings.name, "messages", _ -> {});
        assertThat(messages).hasSize(431);
        assertThat(messages.stream().map(message -> message.path("id").asString()))
                .doesNotHaveDuplicates();
    }

    @Test
    void revisionsAreGivenPageByPageThoughOneIsSavedInBetween() {
        service.execute("records", """
                insert into definition_revision (definition_id, revision, document, reason, at)
                select r.definition_id, n, r.document, 'edit ' || n, r.at
                  from definition d join definition_revision r on r.definition_id = d.id and r.revision = d.revision,
                       generate_series(2, 450) n
                 where d.name = '%s' and d.kind = 'RULE';
                update definition set revision = 450 where name = '%1$s' and kind = 'RULE'
                """.formatted(sailings.name));
        var revisions = pages("/api/definitions/rule/" + sailings.name + "/revisions", "revisions", page -> {
            if (page == 1) api.push(sailings.rule().replace("delay_min > 15", "delay_min > 16"));
        });
        assertThat(revisions.stream().map(revision -> revision.path("revision").asInt()))
                .hasSize(450)
                .doesNotHaveDuplicates()
                .isSortedAccordingTo(Comparator.reverseOrder());
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "/api/outbox?after=yesterday",
                "/api/rules/{name}/checks?after=1-2",
                "/api/definitions/rule/{name}/revisions?after=0"
            })
    void placeThatIsNoneIsRefused(String path) {
        var refused = api.send("GET", path.replace("{name}", sailings.name), null, Map.of());
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.body().path("detail").asString()).contains("use the value of next from an earlier answer");
    }
}
