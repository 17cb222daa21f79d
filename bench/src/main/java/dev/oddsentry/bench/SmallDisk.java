package dev.oddsentry.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.Optional;

/** A disk of its own in memory, which can be filled to the last byte. Only root may make one. */
final class SmallDisk implements AutoCloseable {
    private static final int BLOCK = 64 * 1024;

    private final Path folder;

    private SmallDisk(Path folder) {
        this.folder = folder;
    }

    /** @return empty where this process may not mount one */
    static Optional<SmallDisk> mount(int megabytes) throws IOException, InterruptedException {
        Path folder = Files.createTempDirectory("odd-disk-");
        int exit = run("mount", "-t", "tmpfs", "-o", "size=" + megabytes + "m", "tmpfs", folder.toString());
        if (exit != 0) return Optional.empty();
        // PostgreSQL runs as another user than root.
        Files.setPosixFilePermissions(folder, PosixFilePermissions.fromString("rwxrwxrwx"));
        var disk = new SmallDisk(folder);
        Runtime.getRuntime().addShutdownHook(new Thread(disk::close, "unmount"));
        return Optional.of(disk);
    }

    Path folder() {
        return folder;
    }

    void fill() throws IOException {
        try (var filler = Files.newOutputStream(filler())) {
            var block = new byte[BLOCK];
            while (true) filler.write(block);
        } catch (IOException full) {
            if (!Files.exists(filler())) throw full;
        }
    }

    void empty() throws IOException {
        Files.deleteIfExists(filler());
    }

    private Path filler() {
        return folder.resolve("filler");
    }

    @Override
    public void close() {
        try {
            if (Files.exists(folder) && run("umount", "--lazy", folder.toString()) == 0) Files.deleteIfExists(folder);
        } catch (IOException e) {
            System.err.println("not unmounted: " + folder + ": " + e.getMessage());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private static int run(String... command) throws IOException, InterruptedException {
        return new ProcessBuilder(command)
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .start()
                .waitFor();
    }
}
