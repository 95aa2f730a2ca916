package org.polyclave.cli;

import java.io.PrintWriter;
import java.net.URI;
import java.util.concurrent.Callable;
import org.polyclave.cli.probe.HostileClient;
import org.polyclave.study.rules.InvalidInput;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Tries an installation as a hostile client would. It changes nothing, but its address has to wait at sign-in afterwards. */
@Command(
        name = "probe",
        description =
                "Try an installation of your own as a hostile client would: large and slow bodies, guessed passwords,"
                        + " forged and broken requests. It changes nothing; sign-in from this machine is slowed for a while.",
        mixinStandardHelpOptions = true)
final class ProbeCommand implements Callable<Integer> {
    @Spec
    @SuppressWarnings("NullAway.Init")
    private CommandSpec spec;

    @Parameters(index = "0", paramLabel = "URL", description = "Address of the installation, http://127.0.0.1:8420.")
    @SuppressWarnings("NullAway.Init")
    private URI address;

    @Option(names = "--senders", description = "How many slow senders to be at once.", defaultValue = "230")
    private int senders = 230;

    @Override
    public Integer call() throws InterruptedException {
        if (address.getHost() == null) {
            throw new InvalidInput("'" + address + "' is not an address. Write for example http://127.0.0.1:8420.");
        }
        PrintWriter out = spec.commandLine().getOut();
        boolean safe = true;
        for (HostileClient.Finding finding : new HostileClient(address, senders).tryAll()) {
            out.println((finding.withstood() ? "withstood  " : "FAILED     ") + finding.what() + ": " + finding.seen());
            safe &= finding.withstood();
        }
        out.flush();
        return safe ? 0 : ExitCode.NOT_PROVEN;
    }
}
