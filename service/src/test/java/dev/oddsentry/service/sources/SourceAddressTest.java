package dev.oddsentry.service.sources;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class SourceAddressTest {

    @ParameterizedTest
    @ValueSource(
            strings = {
                "jdbc:postgresql://127.0.0.1:5432/ferry",
                "jdbc:postgresql:ferry",
                "jdbc:postgresql://a.skerryline.example,b.skerryline.example:5433/ferry?sslmode=verify-full&targetServerType=preferSecondary",
                "jdbc:postgresql://[::1]:5432/ferry?currentSchema=traffic",
            })
    void addressOfADatabaseIsAllowed(String address) {
        assertThatCode(() -> SourceAddress.parse(address)).doesNotThrowAnyException();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "jdbc:postgresql://h/d?readOnlyMode=ignore           | \"readOnlyMode\" is not allowed",
                "jdbc:postgresql://h/d?options=-c%20x=y              | \"options\" is not allowed",
                "jdbc:postgresql://h/d?preferQueryMode=simple        | \"preferQueryMode\" is not allowed",
                "jdbc:postgresql://h/d?socketFactory=evil.Factory    | \"socketFactory\" is not allowed",
                "jdbc:postgresql://h/d?sslmode=require&loggerFile=/x | \"loggerFile\" is not allowed",
                "jdbc:postgresql://h/d?READONLYMODE=ignore           | \"READONLYMODE\" is not allowed",
                "jdbc:postgresql://h/d?password=secret-1             | must not contain \"password\"",
                "jdbc:postgresql://h/d?user=x                        | must not contain \"user\"",
                "jdbc:postgresql://u:secret-1@h/d                    | must not contain a user or a password",
                "jdbc:mysql://h/d                                    | not an address of a PostgreSQL database",
            })
    void parameterThatLiftsALimitOrHoldsASecretIsRefused(String address, String words) {
        assertThatThrownBy(() -> SourceAddress.parse(address))
                .hasMessageContaining(words)
                .hasMessageNotContaining("secret-1");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "jdbc:postgresql://h/d?password=secret-1&ssl=true",
                "jdbc:postgresql://u:secret-1@h/d",
                "jdbc:postgresql://h/d?sslPassword=secret-1"
            })
    void addressThatWasStoredIsShownWithoutItsPassword(String address) {
        assertThat(SourceAddress.withoutSecrets(address)).doesNotContain("secret-1");
    }

    @ParameterizedTest
    @CsvSource({
        "jdbc:postgresql://h/d?password=secret-1&ssl=true, jdbc:postgresql://h/d?ssl=true",
        "jdbc:postgresql://h/d?ssl=true&password=secret-1, jdbc:postgresql://h/d?ssl=true",
        "jdbc:postgresql://h/d?password=secret-1,          jdbc:postgresql://h/d"
    })
    void passwordOfAnOlderAddressIsTakenOut(String stored, String address) {
        assertThat(SourceAddress.passwordIn(stored)).contains("secret-1");
        assertThat(SourceAddress.withoutPassword(stored)).isEqualTo(address);
    }
}
