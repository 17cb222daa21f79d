package dev.oddsentry.core.definition;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.definition.PersonReferences.Named;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

class PersonReferencesTest {
    private static final Named INES = new Named("ines", "ines.holm@skerryline.example");
    private static final Named PER = new Named("per", "per.aune@skerryline.example");

    private static Map<String, Object> delivery(Object to) {
        return Map.of("kind", "rule", "delivery", Map.of("to", to));
    }

    private static Object replaced(Object to) {
        return ((Map<?, ?>) PersonReferences.replaced(delivery(to), INES, PER).get("delivery")).get("to");
    }

    @Test
    void isReplacedAsItWasNamed() {
        assertThat(replaced(List.of("person: ines", "team: Traffic reporting")))
                .isEqualTo(List.of("person: per", "team: Traffic reporting"));
        assertThat(replaced(List.of("Ines.Holm@SkerryLine.example"))).isEqualTo(List.of("per.aune@skerryline.example"));
        assertThat(replaced(List.of("Ines Holm <ines.holm@skerryline.example>")))
                .isEqualTo(List.of("per.aune@skerryline.example"));
    }

    @Test
    void whoWasNamedAlreadyIsNotNamedTwice() {
        assertThat(replaced(List.of("per.aune@skerryline.example", "ines.holm@skerryline.example")))
                .isEqualTo(List.of("per.aune@skerryline.example"));
    }

    @Test
    void splitsAndListsAreRecipientsToo() {
        var split = Map.of("Lomvi", List.of("ines.holm@skerryline.example"), "Terna", List.of("x@skerryline.example"));
        assertThat(replaced(split))
                .isEqualTo(Map.of(
                        "Lomvi", List.of("per.aune@skerryline.example"), "Terna", List.of("x@skerryline.example")));
        Map<String, Object> list = Map.of("recipients", List.of("person: ines"));
        assertThat(PersonReferences.mails(list, INES)).isTrue();
        assertThat(PersonReferences.mails(list, PER)).isFalse();
    }

    @Test
    void sameTextElsewhereIsNoRecipient() {
        Map<String, Object> query = Map.of(
                "parameters",
                Map.of("who", Map.of("choices", List.of("ines.holm@skerryline.example"))),
                "owner",
                "ines");
        assertThat(PersonReferences.mails(query, INES)).isFalse();
    }

    @Test
    void whoHasNoAddressIsNamedByLogInAlone() {
        var program = new Named("nightly", "");
        assertThat(PersonReferences.mails(delivery(List.of("")), program)).isFalse();
        assertThat(PersonReferences.mails(delivery(List.of("person: nightly")), program))
                .isTrue();
        assertThat(PersonReferences.replaced(delivery(List.of("ines.holm@skerryline.example")), INES, program))
                .isEqualTo(delivery(List.of("person: nightly")));
    }
}
