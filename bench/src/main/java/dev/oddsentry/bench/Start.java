package dev.oddsentry.bench;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** The start of a command beside the start of the JVM that it needs, in turn. */
final class Start {
    private static final int PAIRS = 21;

    private Start() {}

    public static void main(String[] arguments) throws IOException, InterruptedException {
        Path root = Path.of(System.getProperty("odd.root"));
        String java = Path.of(System.getProperty("java.home"), "bin", "java").toString();
        String target = root.resolve("cli/target").toString();
        var command = List.of(
                java,
                "-XX:AOTCache=" + target + "/odd.aot",
                "-XX:+UseSerialGC",
                "-XX:TieredStopAtLevel=1",
                "-Xlog:disable",
                "-jar",
                target + "/odd-cli.jar",
                "--version");
        var bare = new ArrayList<Long>();
        var whole = new ArrayList<Long>();
        var script = new ArrayList<Long>();
        for (int i = 0; i < PAIRS; i++) {
            bare.add(millis(List.of(java, "-version")));
            whole.add(millis(command));
            script.add(millis(List.of(root.resolve("odd").toString(), "--version")));
        }
        System.out.printf(
                "java -version %d ms; odd --version %d ms, %.1f x; by the checkout's script, which looks whether it must build, %d ms, %.1f x%n",
                median(bare),
                median(whole),
                (double) median(whole) / median(bare),
                median(script),
                (double) median(script) / median(bare));
    }

    private static long millis(List<String> command) throws IOException, InterruptedException {
        long began = System.nanoTime();
        var process = new ProcessBuilder(command)
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .start();
        if (process.waitFor() != 0) throw new IllegalStateException(command + " failed");
        return (System.nanoTime() - began) / 1_000_000;
    }

    private static long median(List<Long> times) {
        return times.stream().sorted().toList().get(times.size() / 2);
    }
}
