package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.client.Api;
import java.io.PrintWriter;
import java.util.concurrent.Callable;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Spec;

/** A command that asks the service. Results go to {@link #out}, talk to {@link #err}. */
abstract class ServiceCommand implements Callable<Integer> {
    @Spec
    @SuppressWarnings("NullAway.Init")
    private CommandSpec spec;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    private ServiceOptions service;

    /** @throws dev.oddsentry.cli.client.NotReachedException if nobody is logged in */
    final Api api() {
        return service.api();
    }

    final CommandSpec spec() {
        return spec;
    }

    final PrintWriter out() {
        return spec.commandLine().getOut();
    }

    final PrintWriter err() {
        return spec.commandLine().getErr();
    }
}
