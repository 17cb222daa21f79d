package dev.oddsentry.extracts.pack;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.time.Instant;
import java.util.List;
import net.lingala.zip4j.io.outputstream.ZipOutputStream;
import net.lingala.zip4j.model.ZipParameters;
import net.lingala.zip4j.model.enums.AesKeyStrength;
import net.lingala.zip4j.model.enums.EncryptionMethod;
import org.jspecify.annotations.Nullable;

/** Files packed as a zip, encrypted with AES of 256 bits where there is a password. */
public final class ZipPack {
    private ZipPack() {}

    public record Entry(String name, byte[] bytes) {}

    /** @param password null for none */
    public static byte[] of(List<Entry> entries, Instant when, char @Nullable [] password) throws IOException {
        var out = new ByteArrayOutputStream();
        try (var zip = password == null ? new ZipOutputStream(out) : new ZipOutputStream(out, password)) {
            for (var entry : entries) {
                var parameters = new ZipParameters();
                parameters.setFileNameInZip(entry.name());
                parameters.setLastModifiedFileTime(when.toEpochMilli());
                if (password != null) {
                    parameters.setEncryptFiles(true);
                    parameters.setEncryptionMethod(EncryptionMethod.AES);
                    parameters.setAesKeyStrength(AesKeyStrength.KEY_STRENGTH_256);
                }
                zip.putNextEntry(parameters);
                zip.write(entry.bytes());
                zip.closeEntry();
            }
        }
        return out.toByteArray();
    }
}
