package dev.oddsentry.service;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Objects;
import java.util.Set;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** What is shipped names its parts and holds their licences. A licence that nobody here has read yet fails the test. */
class LegalTest {
    private static final String EXAMINED = "Broadcom Foundation License";

    private static final Set<String> READ = Set.of(
            EXAMINED,
            "Apache-2.0",
            "Apache License, Version 2.0",
            "Apache License, version 2.0",
            "The Apache License, Version 2.0",
            "The Apache Software License, Version 2.0",
            "The Apache Software License, version 2.0",
            "Apache 2.0",
            "Apache 2",
            "Apache License 2.0",
            "Apache-2.0 license",
            "MIT",
            "MIT License",
            "The MIT License",
            "MIT-0",
            "BSD-2-Clause",
            "BSD 3-clause",
            "BSD-3-Clause",
            "The (New) BSD License",
            "Go License",
            "iCal4j - License",
            "EPL 2.0",
            "EPL-2.0",
            "EDL 1.0",
            "Eclipse Distribution License - v 1.0",
            "GPL2 w/ CPE",
            "LGPL-2.1-only",
            "GNU Lesser General Public Licence",
            "GNU Lesser General Public License (LGPL), version 2.1 or later",
            "Public Domain, per Creative Commons CC0");

    private static final Pattern LICENCES =
            Pattern.compile("^ {4,}((?:\\((?:[^()]|\\([^()]*\\))*\\) )+)", Pattern.MULTILINE);
    private static final Pattern ONE = Pattern.compile("\\(((?:[^()]|\\([^()]*\\))*)\\)");

    private static String legal(String name) throws IOException {
        try (var in = LegalTest.class.getResourceAsStream("/META-INF/legal/" + name)) {
            return new String(Objects.requireNonNull(in, name).readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    @Test
    void everyPartHasALicenceThatWasRead() throws IOException {
        var lines = LICENCES.matcher(legal("THIRD-PARTY.txt"))
                .results()
                .map(found -> found.group(1))
                .toList();
        assertThat(lines).hasSizeGreaterThan(80);
        assertThat(lines)
                .allSatisfy(line -> assertThat(ONE.matcher(line).results().map(found -> found.group(1)))
                        .isNotEmpty()
                        .isSubsetOf(READ));
    }

    /** NOTICE says why; a new version is looked at again. */
    @Test
    void licenceThatAPomNamesOtherwiseIsTheOneOfItsJar() throws IOException {
        assertThat(legal("THIRD-PARTY.txt").lines().filter(line -> line.contains(EXAMINED)))
                .isNotEmpty()
                .allSatisfy(
                        line -> assertThat(line).contains("org.springframework.session:spring-session-", ":4.1.1 "));
        for (String part : new String[] {"core", "jdbc"})
            assertThat(legal("texts/spring-session-" + part + "-4.1.1-jar/META-INF/LICENSE.txt"))
                    .contains("Apache License", "Version 2.0");
    }

    @Test
    void partsWithoutATextOfTheirOwnHaveOneHere() throws IOException {
        for (String name : new String[] {
            "Apache-2.0", "LGPL-2.1", "EPL-2.0", "ical4j", "jmustache", "re2j", "reactive-streams", "DejaVu-fonts"
        }) assertThat(legal("licenses/" + name + ".txt")).as(name).hasSizeGreaterThan(500);
    }

    @Test
    void listsOfPartsAreCycloneDx() throws IOException {
        assertThat(legal("bom.json")).contains("\"CycloneDX\"", "pkg:maven/org.postgresql/postgresql@");
        assertThat(legal("console/bom.json")).contains("\"CycloneDX\"", "pkg:npm/react@");
        assertThat(legal("console/THIRD-PARTY.txt")).contains("SIL OPEN FONT LICENSE", "react-bootstrap");
    }
}
