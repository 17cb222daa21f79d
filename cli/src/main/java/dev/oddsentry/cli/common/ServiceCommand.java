package dev.oddsentry.cli.common;

import dev.oddsentry.cli.client.Api;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.charset.MalformedInputException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** A command that asks the service. Results go to {@link #out}, talk to {@link #err}. */
public abstract class ServiceCommand implements Callable<Integer> {
    @Spec
    @SuppressWarnings("NullAway.Init")
    private CommandSpec spec;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    private ServiceOptions service;

    /** @throws dev.oddsentry.cli.client.NotReachedException if nobody is logged in */
    protected final Api api() {
        return service.api();
    }

    protected final CommandSpec spec() {
        return spec;
    }

    protected final PrintWriter out() {
        return spec.commandLine().getOut();
    }

    /** The text of a file that was named in the command. */
    protected final String read(Path file) {
        try {
            return Files.readString(file);
        } catch (NoSuchFileException e) {
            throw new ParameterException(spec.commandLine(), "No such file: " + file + ".");
        } catch (MalformedInputException e) {
            throw new ParameterException(spec.commandLine(), file + " is not UTF-8 text.");
        } catch (IOException e) {
            throw new ParameterException(spec.commandLine(), "The file " + file + " cannot be read.");
        }
    }

    /** The bytes of a file that was named in the command. */
    protected final byte[] bytes(Path file) {
        try {
            return Files.readAllBytes(file);
        } catch (NoSuchFileException e) {
            throw new ParameterException(spec.commandLine(), "No such file: " + file + ".");
        } catch (IOException e) {
            throw new ParameterException(spec.commandLine(), "The file " + file + " cannot be read.");
        }
    }

    protected final PrintWriter err() {
        return spec.commandLine().getErr();
    }
}
