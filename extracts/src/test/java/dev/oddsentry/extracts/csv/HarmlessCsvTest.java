package dev.oddsentry.extracts.csv;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class HarmlessCsvTest {

    @ParameterizedTest
    @ValueSource(
            strings = {
                "=1+1",
                "+cmd|' /C calc'!A0",
                "-2+3+cmd|' /C calc'!A0",
                "@SUM(A1)",
                "\t=1",
                "\r=1",
                "\n=1",
                "\nSK-1",
                "\uff1d1+1",
                "\uff0bA1",
                "\uff0dA1",
                "\uff20SUM(A1)",
                "  =1+1",
                "\u00a0=1",
                "\u200b=1",
                "\ufeff=HYPERLINK(\"http://x.example\")",
                "\u202e=1",
                "-A1",
                "+A1"
            })
    void textThatCouldBeAFormulaIsShownAsText(String text) {
        assertThat(CsvExtract.harmless(text)).isEqualTo("'" + text);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "SK-412",
                "a=1",
                "+47 22 33 44 55",
                "-01:30:00",
                "-12.5",
                "+47 (22) 33-44",
                "–",
                "ærfugl",
                "'quoted'"
            })
    void otherTextIsNotTouched(String text) {
        assertThat(CsvExtract.harmless(text)).isEqualTo(text);
    }
}
