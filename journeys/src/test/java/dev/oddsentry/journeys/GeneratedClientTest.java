package dev.oddsentry.journeys;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatExceptionOfType;

import dev.oddsentry.client.ApiClient;
import dev.oddsentry.client.ApiException;
import dev.oddsentry.client.api.AccessApi;
import dev.oddsentry.client.api.ChecksApi;
import dev.oddsentry.client.api.DefinitionsApi;
import dev.oddsentry.client.api.FindingsApi;
import dev.oddsentry.client.api.OutboxApi;
import dev.oddsentry.client.api.RulesApi;
import dev.oddsentry.client.api.ThresholdsApi;
import dev.oddsentry.client.model.CheckView;
import dev.oddsentry.client.model.FindingView;
import dev.oddsentry.client.model.HandlingBody;
import dev.oddsentry.client.model.HandlingEntry;
import dev.oddsentry.client.model.LogInBody;
import dev.oddsentry.client.model.RuleSummary;
import dev.oddsentry.client.model.ThresholdChangeBody;
import dev.oddsentry.client.model.ThresholdValueBody;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import java.math.BigDecimal;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** A client that a common generator makes from the published description works against the running service. */
class GeneratedClientTest {
    private final RunningService service = RunningService.get();
    private final LateSailings sailings =
            new LateSailings(service).late("SK-1", 20).late("SK-2", 60);
    private final ApiClient client = new ApiClient();

    @BeforeEach
    void logIn() throws ApiException {
        client.updateBaseUri(service.baseUrl());
        var issued = new AccessApi(client)
                .issueToken(new LogInBody().login("operator").password(RunningService.OPERATOR_PASSWORD));
        client.setRequestInterceptor(request -> request.header("Authorization", "Bearer " + issued.getToken()));
    }

    @Test
    void clientChecksARuleAndHandlesItsFinding() throws ApiException {
        sailings.active();
        var check = new ChecksApi(client).checkRule(sailings.name, null, "once");
        assertThat(check.getState()).isEqualTo(CheckView.StateEnum.FIRED);
        assertThat(check.getUpdates()).isEqualTo(2);
        var findings = new FindingsApi(client).listFindingsOfRule(sailings.name, null, null);
        assertThat(findings.getFindings()).extracting(FindingView::getIdentity).containsExactly("SK-2", "SK-1");
        var handled = new FindingsApi(client)
                .handleFinding(
                        sailings.name, new HandlingBody().key(List.of("SK-2")).kind(HandlingBody.KindEnum.TAKE));
        assertThat(handled.getHandling())
                .extracting(HandlingEntry::getKind)
                .containsExactly(HandlingEntry.KindEnum.TAKE);
        assertThat(new OutboxApi(client)
                        .listMessages(sailings.name, null, null, null)
                        .getMessages())
                .hasSize(1);
    }

    @Test
    void clientSavesDefinitionsAndReadsThem() throws ApiException {
        String rule = sailings.saved();
        var saved = new DefinitionsApi(client).saveDefinition(rule, "a first try", null, null);
        assertThat(saved.getRevision()).isEqualTo(1);
        assertThat(new RulesApi(client).listRules())
                .filteredOn(each -> each.getName().equals(sailings.name))
                .extracting(RuleSummary::getState)
                .containsExactly(RuleSummary.StateEnum.DRAFT);
        assertThat(new RulesApi(client).getRule(sailings.name).getText().getExceptions())
                .isEqualTo("delay_min > 15 and reason is null");
    }

    @Test
    void clientReadsWhyItIsRefused() {
        var body = new ThresholdChangeBody()
                .reason("agreed")
                .values(List.of(new ThresholdValueBody().number(BigDecimal.TEN)));
        assertThatExceptionOfType(ApiException.class)
                .isThrownBy(() -> new ThresholdsApi(client).setThresholdValues("no-such-threshold", body))
                .satisfies(refused -> assertThat(refused.getCode()).isEqualTo(404))
                .withMessageContaining("no-such-threshold");
    }
}
