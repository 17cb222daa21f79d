package dev.oddsentry.service.db;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.definition.Document;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** Documents as they were stored before their keys had one spelling are read afterwards, and lose nothing. */
class DocumentKeysTest {
    private static final JsonMapper JSON = new JsonMapper();

    private static final String RULE = """
            {"kind":"rule","name":"late","title":"Late","owner":"Traffic reporting","query":"sailings","zone":"Europe/Oslo","copied from":"other",
             "per":["vessel"],"measures":{"b_miles":{"value":"sum(miles)"},"a_litres":{"value":"sum(litres) / b_miles"}},"groups from":"last 5 checks",
             "exceptions":"a_litres > 3","fire when":"exceptions() > 1 and news('worsened') > 0 or news () > 3",
             "memory":{"mode":"incremental","report":["new","eased","moved away"],"absence":"passed by","hold":"2 checks","misses":"3 checks","guard":"2 checks",
                       "remind every":"3 days","most cleared":"20 %","most opened":500,"forget after":"90 days","first check":"take as known"},
             "schedule":{"start":"2026-01-05T05:40","recur":["FREQ=DAILY"],"working days":[3],"on holiday":"drop","missed":"each","events":["loaded"],
                         "after":["crew",{"rule":"bunkering","on":["failed","blank"]}],"ready when":{"query":"loaded","ask every":"3 minutes","until":"1 hour"}},
             "checking":{"time limit":"10 minutes","retries":3,"retry after":"2 minutes","when blank":"tell"},
             "copies":{"from":"managers","key":"place","newcomers":"take as known"},
             "delivery":{"to":["a@skerryline.example"],"reply to":["b@skerryline.example"],"may leave":true,"most an hour":12,"all quiet":true,
                         "subject":"{{news}} late, {{#moved_away}}{{moved_away}} gone{{/moved_away}}","opening":"{{eased}} better",
                         "layout":{"columns":["vessel"],"group by":["vessel"],"rows in mail":20,"still open":true,"besides":["news"]},
                         "attach":[{"format":"csv","mark":false}],
                         "also send":[{"query":"crew","attach":[{"format":"csv","mark":true}],"rows in mail":5}]}}
            """;

    private static ObjectNode renamed(String document) {
        return DocumentKeys.renamed((ObjectNode) JSON.readTree(document));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                RULE,
                "{\"kind\":\"query\",\"name\":\"q\",\"source\":\"ferry\",\"sql\":\"select 1 as a where 'x' in (:t)\",\"parameters\":{\"t\":{\"type\":\"text\",\"several\":true}}}",
                "{\"kind\":\"calendar\",\"name\":\"norway\",\"worked\":[\"2026-05-16\"]}",
                "{\"kind\":\"layout\",\"name\":\"late-list\",\"private to\":\"ines\",\"columns\":[\"a\"],\"group by\":[\"a\"],\"besides\":[\"severity\",\"news\"]}",
                "{\"kind\":\"round-up\",\"name\":\"week\",\"owner\":\"Terminals\",\"zone\":\"UTC\",\"rules\":[\"late\"],\"to\":[\"a@skerryline.example\"],\"at once\":\"critical\",\"schedule\":{\"start\":\"2026-01-05T08:00\",\"recur\":[\"FREQ=WEEKLY\"],\"on holiday\":\"next working day\"}}",
            })
    void documentOfEarlierNamesIsReadAfterwards(String document) {
        var present = renamed(document);
        var definition = Document.read(JSON.writeValueAsString(present)).definition();
        assertThat(Document.read(Document.print(definition)).definition()).isEqualTo(definition);
        assertThat(DocumentKeys.renamed(present.deepCopy())).as("renamed twice").isEqualTo(present);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "\"measures\":{\"b_miles\":{\"value\":\"sum(miles)\"},\"a_litres\"",
                "\"expected_groups\":\"last 5 checks\"",
                "\"copied_from\":\"other\"",
                "updates('worsened') > 0 or updates() > 3",
                "\"report\":[\"new\",\"improved\",\"moved\"]",
                "\"absence\":\"ages_out\",\"open_after\":\"2 checks\",\"clear_after\":\"3 checks\",\"confirm_after\":\"2 checks\"",
                "\"max_cleared\":\"20 %\",\"max_opened\":500,\"forget_after\":\"90 days\",\"first_check\":\"treat_as_known\"",
                "\"working_days\":[3],\"on_holidays\":\"skip\"",
                "\"on\":[\"failed\",\"no_rows\"]",
                "\"ready_when\":{\"query\":\"loaded\",\"every\":\"3 minutes\"",
                "\"when_empty\":\"notify\"",
                "\"limits\":{\"time_limit\":\"10 minutes\",\"retries\":3,\"retry_after\":\"2 minutes\"}",
                "\"newcomers\":\"treat_as_known\"",
                "\"subject\":\"{{updates}} late, {{#moved}}{{moved}} gone{{/moved}}\",\"opening\":\"{{improved}} better\"",
                "\"extra_columns\":[\"update\"]",
                "\"attach\":[{\"format\":\"csv\",\"byte_order_mark\":false}]",
                "\"also_send\":[{\"query\":\"crew\",\"attach\":[{\"format\":\"csv\",\"byte_order_mark\":true}],\"rows_in_mail\":5}]",
            })
    void everyPartHasItsPresentName(String part) {
        assertThat(JSON.writeValueAsString(renamed(RULE))).contains(part);
    }
}
