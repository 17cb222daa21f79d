package dev.oddsentry.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;

/** A process's own idea of what time it is, by Debian's libfaketime: its clock on the wall jumps, the one that only counts does not. */
final class FalseClock {
    private final Path offset;
    private final Path library;

    private FalseClock(Path offset, Path library) {
        this.offset = offset;
        this.library = library;
    }

    /** @return empty where the library is not installed */
    static Optional<FalseClock> in(Path folder, String name) throws IOException {
        try (var libraries = Files.newDirectoryStream(Path.of("/usr/lib"), "*-linux-gnu")) {
            for (Path each : libraries) {
                Path library = each.resolve("faketime/libfaketimeMT.so.1");
                if (Files.exists(library)) {
                    var clock = new FalseClock(folder.resolve("clock-" + name), library);
                    clock.ahead("+0");
                    return Optional.of(clock);
                }
            }
        }
        return Optional.empty();
    }

    /** What a process that goes by this clock is started with. */
    Map<String, String> environment() {
        return Map.of(
                "LD_PRELOAD",
                library.toString(),
                "DONT_FAKE_MONOTONIC",
                "1",
                // Its mending of an old library's waits lets each wait of a JVM end at once.
                "FAKETIME_FORCE_MONOTONIC_FIX",
                "0",
                "FAKETIME_TIMESTAMP_FILE",
                offset.toString(),
                "FAKETIME_CACHE_DURATION",
                "1");
    }

    /** @param by such as {@code +3h} or {@code -3h}; takes effect within a second */
    void ahead(String by) throws IOException {
        Files.writeString(offset, by + "\n");
    }
}
