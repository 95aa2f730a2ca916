package org.polyclave.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.polyclave.cli.probe.HostileClient;
import org.polyclave.server.RunningApplication;

/** The running application withstands what {@code ./polyclave probe} tries. */
@ExtendWith(RunningApplication.class)
class HostileClientTest {
    private static final int SENDERS = 60;

    @Test
    void itWithstandsAHostileClient() throws InterruptedException {
        assertThat(new HostileClient(URI.create(RunningApplication.base()), SENDERS).tryAll())
                .hasSizeGreaterThan(8)
                .allSatisfy(finding -> assertThat(finding.withstood())
                        .as("%s: %s", finding.what(), finding.seen())
                        .isTrue());
    }
}
