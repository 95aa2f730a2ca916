package org.polyclave.server.account;

import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatExceptionOfType;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import org.junit.jupiter.api.Test;
import org.springframework.web.ErrorResponseException;

final class SignInAttemptsTest {
    private Instant now = Instant.parse("2031-05-04T10:00:00Z");
    private final SignInAttempts attempts = new SignInAttempts(new Clock() {
        @Override
        public ZoneId getZone() {
            return ZoneOffset.UTC;
        }

        @Override
        public Clock withZone(ZoneId zone) {
            return this;
        }

        @Override
        public Instant instant() {
            return now;
        }
    });

    private void fail(String name, String address, int times) {
        for (int k = 0; k < times; k++) {
            attempts.failed(name, address);
        }
    }

    private void mayTry(String name, String address) {
        assertThatCode(() -> attempts.check(name, address)).doesNotThrowAnyException();
    }

    private void mustWait(String name, String address) {
        assertThatExceptionOfType(ErrorResponseException.class).isThrownBy(() -> attempts.check(name, address));
    }

    @Test
    void whoMistypesIsNotHinderedAndWhoGuessesWaitsTwiceAsLongEachTime() {
        fail("isolde", "10.0.0.1", 4);
        mayTry("isolde", "10.0.0.1");
        attempts.failed("isolde", "10.0.0.1");
        mustWait("Isolde ", "10.0.0.1");
        mayTry("isolde", "10.0.0.2");
        now = now.plusSeconds(2);
        mayTry("isolde", "10.0.0.1");
        fail("isolde", "10.0.0.1", 5);
        now = now.plusSeconds(30);
        mustWait("isolde", "10.0.0.1");
        now = now.plusSeconds(3);
        mayTry("isolde", "10.0.0.1");
        attempts.succeeded("isolde", "10.0.0.1");
        fail("isolde", "10.0.0.1", 4);
        mayTry("isolde", "10.0.0.1");
    }

    @Test
    void neitherManyAddressesNorManyNamesHelp() {
        for (int k = 0; k < 20; k++) {
            fail("oswin", "10.1.0." + k, 1);
        }
        mustWait("oswin", "10.2.0.1");
        for (int k = 0; k < 50; k++) {
            fail("somebody-" + k, "10.3.0.1", 1);
        }
        mustWait("lark", "10.3.0.1");
        now = now.plus(Duration.ofMinutes(6));
        mayTry("lark", "10.3.0.1");
    }
}
