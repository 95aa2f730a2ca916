package org.polyclave.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.ServerSocket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What starts and stops the application, with a server that only pretends where the real one is not needed. */
class LauncherTest {
    /** The launcher's own steps, with another server than the one that is built. */
    private static final String PRETENDING = """
            set -eu
            for step in common postgres server; do
                . "$ROOT/scripts/$step.sh"
            done
            jar_of() { echo none; }
            JAVA=$POLYCLAVE_HOME/java
            launch
            echo "serving on $POLYCLAVE_PORT"
            kill "$launched"
            """;

    @TempDir
    private Path home;

    /** @param output what it said, errors too */
    private record Ended(int code, String output) {}

    private Ended run(Map<String, String> environment, String... command) throws IOException, InterruptedException {
        Path output = home.resolve("output");
        ProcessBuilder builder =
                new ProcessBuilder(List.of(command)).redirectErrorStream(true).redirectOutput(output.toFile());
        builder.environment().put("ROOT", "..");
        builder.environment().put("POLYCLAVE_HOME", home.toString());
        builder.environment().putAll(environment);
        Process process = builder.start();
        assertThat(process.waitFor(60, TimeUnit.SECONDS)).as("it ends").isTrue();
        return new Ended(process.exitValue(), Files.readString(output));
    }

    private Ended launch(String server) throws IOException, InterruptedException {
        Path java = Files.writeString(home.resolve("java"), "#!/bin/sh\n" + server);
        assertThat(java.toFile().setExecutable(true)).isTrue();
        return run(Map.of("POLYCLAVE_PORT", "8497", "POLYCLAVE_PORT_ASKED", ""), "sh", "-c", PRETENDING);
    }

    @Test
    void aServerThatLivesIsGivenTheTimeItNeeds() throws Exception {
        Ended slow = launch("sleep 7; echo 'Ready for readers'; exec sleep 30\n");
        assertThat(slow.output()).contains("s: The server is starting").contains("serving on 8497");
        assertThat(slow.code()).isZero();
    }

    @Test
    void aPortThatWasTakenMeanwhileIsLeftForAnother() throws Exception {
        Ended again = launch("if [ ! -f $POLYCLAVE_HOME/tried ]; then touch $POLYCLAVE_HOME/tried;"
                + " echo 'Web server failed to start. Port 8497 was already in use.'; exit 1; fi\n"
                + "echo 'Ready for readers'; exec sleep 30\n");
        assertThat(again.output()).contains("serving on");
        assertThat(again.code()).isZero();
        Ended broken = launch("echo 'No database'; exit 1\n");
        assertThat(broken.code()).isEqualTo(70);
        assertThat(broken.output()).contains("No database").contains("The server did not start.");
        assertThat(home.resolve("server.pid")).doesNotExist();
    }

    @Test
    void aBadPortLeavesNothingRunning() throws Exception {
        Ended bad = run(Map.of("POLYCLAVE_PORT", "many"), "../polyclave", "start");
        assertThat(bad.code()).isEqualTo(70);
        assertThat(bad.output()).contains("'many', which is not a number");
        try (ServerSocket taken = new ServerSocket(0)) {
            String port = Integer.toString(taken.getLocalPort());
            Ended busy = run(Map.of("POLYCLAVE_PORT", port), "../polyclave", "start");
            assertThat(busy.code()).isEqualTo(70);
            assertThat(busy.output()).contains("Port " + port + " is in use by another program");
        }
        assertThat(home.resolve("server.pid")).doesNotExist();
    }

    @Test
    void aProcessOfAnotherCheckoutIsNotTakenForItsOwn() throws Exception {
        Process other = new ProcessBuilder("sleep", "60").start();
        try {
            Files.write(home.resolve("server.pid"), Long.toString(other.pid()).getBytes(StandardCharsets.UTF_8));
            assertThat(run(Map.of(), "../polyclave", "status").output()).contains("The server is not running.");
            run(Map.of(), "../polyclave", "stop");
            assertThat(other.isAlive()).isTrue();
        } finally {
            other.destroy();
        }
    }

    @Test
    void whoMayNotWriteGetsASentence() throws Exception {
        Ended refused = run(Map.of("POLYCLAVE_HOME", "/proc/polyclave"), "../polyclave", "start");
        assertThat(refused.code()).isEqualTo(70);
        assertThat(refused.output()).contains("Cannot write to /proc/polyclave").contains("POLYCLAVE_HOME");
    }
}
