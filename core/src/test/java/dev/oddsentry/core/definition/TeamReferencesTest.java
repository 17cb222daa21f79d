package dev.oddsentry.core.definition;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class TeamReferencesTest {
    private static Map<String, Object> rule(String recipient) {
        return Document.tree(Document.read("""
                kind: rule
                name: late-sailings
                owner: Traffic reporting
                query: sailings
                exceptions: delay_min > 15
                memory: { key: [sailing] }
                delivery:
                  to: ["%s", ines.holm@skerryline.example]
                  subject: "team: Traffic reporting"
                """.formatted(recipient)).definition());
    }

    @ParameterizedTest
    @CsvSource({
        "team: Traffic reporting,      true",
        "team:Traffic reporting,       true",
        "'  team:  Traffic reporting', true",
        "team: Traffic,                false",
        "person: traffic,              false",
        "list: Traffic reporting,      false"
    })
    void theTeamIsMailedWhereItIsARecipient(String recipient, boolean mailed) {
        assertThat(TeamReferences.mails(rule(recipient), "Traffic reporting")).isEqualTo(mailed);
    }

    @Test
    void aRenamedTeamIsNamedAnewAsOwnerAndRecipientAndNowhereElse() {
        var renamed = TeamReferences.renamed(rule("team: Traffic reporting"), "Traffic reporting", "Båt & trafikk");
        var rule = (RuleDefinition)
                Document.read(Document.print(Document.read(asText(renamed)).definition()))
                        .definition();
        assertThat(rule.owner()).isEqualTo("Båt & trafikk");
        assertThat(rule.delivery().to()).containsExactly("team: Båt & trafikk", "ines.holm@skerryline.example");
        assertThat(rule.delivery().texts().subject()).isEqualTo("team: Traffic reporting");
    }

    @Test
    void amongThoseThatSeeItATeamIsNamedAnewAndTheNewOwnerTakesThePlaceOfTheOldOne() {
        var rule = new HashMap<>(rule("team: Deck"));
        rule.put("visible_to", List.of("Traffic reporting", "Deck"));
        assertThat(TeamReferences.shows(rule, "Deck")).isTrue();
        assertThat(TeamReferences.shows(rule, "Engine")).isFalse();
        assertThat(TeamReferences.shows(rule("team: Deck"), "Deck")).isFalse();
        assertThat(TeamReferences.renamed(rule, "Deck", "Dekk"))
                .containsEntry("visible_to", List.of("Traffic reporting", "Dekk"));
        assertThat(TeamReferences.ownedBy(rule, "Engine")).containsEntry("visible_to", List.of("Engine", "Deck"));
        assertThat(TeamReferences.ownedBy(rule, "Deck")).containsEntry("visible_to", List.of("Deck"));
    }

    private static String asText(Map<String, Object> tree) {
        return new tools.jackson.databind.json.JsonMapper().writeValueAsString(tree);
    }

    @Test
    void whatNamesAnotherTeamStaysAsItIs() {
        var rule = rule("team: Deck");
        assertThat(TeamReferences.renamed(rule, "Engine", "Machines")).isEqualTo(rule);
        assertThat(TeamReferences.ownedBy(rule, "Deck")).containsEntry("owner", "Deck");
        assertThat(rule).containsEntry("owner", "Traffic reporting");
    }

    @Test
    void aDraftMayHoldNothing() {
        var draft = new HashMap<String, Object>(Map.of("owner", "Deck"));
        draft.put("delivery", null);
        draft.put("labels", Arrays.asList(null, "team: Deck", List.of()));
        assertThat(TeamReferences.renamed(draft, "Deck", "Bridge"))
                .containsEntry("owner", "Bridge")
                .containsEntry("delivery", null)
                .containsEntry("labels", Arrays.asList(null, "team: Bridge", List.of()));
    }
}
