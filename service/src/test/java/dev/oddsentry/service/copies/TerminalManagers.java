package dev.oddsentry.service.copies;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.Mails;
import dev.oddsentry.service.RunningService;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import tools.jackson.databind.JsonNode;

/** Managers of terminals, who get personal copies of a rule of late sailings. */
abstract class TerminalManagers {
    final RunningService service = RunningService.get();
    final HttpApi api = service.api();
    final LateSailings sailings = new LateSailings(service);
    final Mails mails = new Mails(service);
    final String path = "/api/rules/" + sailings.name;
    final String managers = sailings.name + "-managers";
    final String holm = "holm-" + sailings.name + "@skerryline.example";
    final String vik = "vik-" + sailings.name + "@skerryline.example";

    @BeforeEach
    void twoManagers() {
        service.ferry("create table \"" + managers + "\" (terminal text, address text, hello text, least int)");
        manager("Holm", holm, 0);
        manager("Vik", vik, 0);
        api.push("kind: query\nname: " + managers + "\nsource: ferry\nsql: 'select * from \"" + managers
                + "\" order by terminal'\n");
        // From where it sails and where it goes to: one sailing may concern two.
        sailings.change("alter table sailing_table add terminals text");
    }

    @AfterEach
    void pause() {
        api.postAnswer(path + "/pause", "");
    }

    void manager(String terminal, String address, int least) {
        service.ferry("insert into \"" + managers + "\" values ('" + terminal + "', '" + address + "', 'Good morning, "
                + terminal + "', " + least + ")");
    }

    void managers(String change) {
        service.ferry(change.replace("manager_table", "\"" + managers + "\""));
    }

    void late(String sailing, int minutes, String terminals) {
        sailings.change(
                "insert into sailing_table values ('" + sailing + "', " + minutes + ", null, '" + terminals + "')");
    }

    String query() {
        return sailings.query("select sailing, delay_min, reason from \"" + sailings.name
                        + "\" where terminals like '%' || :terminal || '%' and delay_min >= :least")
                + "parameters: { terminal: { type: text }, least: { type: number, default: 0 } }\n";
    }

    String copies(String more) {
        return "copies: { from: " + managers
                + ", key: terminal, greeting: hello, parameters: { terminal: terminal, least: least }" + more + " }\n";
    }

    void active(String more) {
        api.push(query());
        api.push(sailings.rule() + copies(more));
        api.post(path + "/activate", "");
    }

    Map<String, JsonNode> copiesOf(JsonNode check) {
        return api.get("/api/checks/" + check.path("id").asString() + "/copies")
                .valueStream()
                .collect(Collectors.toMap(each -> each.path("copy").asString(), Function.identity()));
    }

    String state(JsonNode check, String copy) {
        return copiesOf(check).get(copy).path("state").asString();
    }
}
