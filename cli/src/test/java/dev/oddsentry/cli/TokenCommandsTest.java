package dev.oddsentry.cli;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

/** Tokens and sessions from the command line. */
class TokenCommandsTest extends AgainstAService {
    @Test
    void tokenAloneIsOnTheOutputSoThatAScriptCanTakeIt() {
        answer("POST /api/tokens/named", "{\"token\":\"odd_secret\",\"expiresAt\":\"2027-02-28T04:40:00Z\"}");
        var ran = odd("create-token", "nightly pull", "--for", "check", "--days", "90");
        assertThat(ran.out().strip()).isEqualTo("odd_secret");
        assertThat(ran.err()).contains("Store it now, it is not shown again. It expires Sun 28 Feb");
        assertThat(asked)
                .singleElement()
                .satisfies(call ->
                        assertThat(call).contains("\"name\":\"nightly pull\"", "\"scope\":\"CHECK\"", "\"days\":90"));
        assertThat(odd("create-token", "x", "--for", "everything").status()).isEqualTo(2);
    }

    @Test
    void tokensAreListedAndRevoked() {
        String id = "0c7d2f7e-6d3c-4a53-9b64-8b1d5a0e9c77";
        answer(
                "GET /api/tokens",
                "[{\"id\":\"" + id
                        + "\",\"login\":\"ines\",\"name\":\"nightly pull\",\"scope\":\"READ\",\"createdAt\":\"2026-11-24T04:40:00Z\",\"expiresAt\":\"2027-02-28T04:40:00Z\",\"lastUsedAt\":null}]");
        answer("DELETE /api/tokens/" + id, "");
        assertThat(odd("tokens").out()).contains("nightly pull", "read", "never", id);
        assertThat(odd("revoke-token", id).out()).contains("Revoked.");
    }

    @Test
    void sessionsAreListedAndEnded() {
        answer(
                "GET /api/sessions",
                "[{\"id\":\"0c7d2f7e-6d3c-4a53-9b64-8b1d5a0e9c77\",\"beganAt\":\"2026-11-24T04:40:00Z\",\"usedAt\":\"2026-11-24T05:40:00Z\",\"endsAt\":\"2026-11-24T17:40:00Z\",\"current\":false}]");
        answer("DELETE /api/sessions", "{\"sessions\":1}");
        assertThat(odd("sessions").out()).contains("05:40");
        assertThat(odd("sessions", "--end-all").out()).contains("Ended 1 session.");
    }
}
