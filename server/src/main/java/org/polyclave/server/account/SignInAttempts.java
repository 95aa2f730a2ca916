package org.polyclave.server.account;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import org.polyclave.server.platform.Problems;
import org.springframework.stereotype.Component;

/**
 * Slows down who guesses passwords. After some failures the next attempt has to wait, twice as long each time: of an account
 * from one address, of an account from anywhere, and from one address at any accounts. A right password before the wait is
 * over is not looked at either, so that nobody learns anything from being fast.
 */
@Component
public class SignInAttempts {
    private static final Duration REMEMBERED = Duration.ofHours(1);
    private static final long LONGEST_WAIT = 300;
    private static final int MOST_REMEMBERED = 100_000;

    private final Clock clock;
    private final Cache<String, Failures> failures = Caffeine.newBuilder()
            .maximumSize(MOST_REMEMBERED)
            .expireAfterWrite(REMEMBERED)
            .build();

    SignInAttempts(Clock clock) {
        this.clock = clock;
    }

    private record Failures(int count, Instant until) {
        /** @param free failures that make nobody wait: people mistype */
        Failures another(int free, Instant now) {
            int over = Math.min(30, count + 1 - free);
            long wait = over < 0 ? 0 : Math.min(LONGEST_WAIT, 1L << over);
            return new Failures(count + 1, now.plusSeconds(wait));
        }
    }

    /** What failures are counted by, and how many of them are free. */
    private record Counted(String key, int free) {}

    private static List<Counted> counted(String name, String address) {
        String account = name.strip().toLowerCase(Locale.ROOT);
        return List.of(
                new Counted("both " + address + ' ' + account, 5),
                new Counted("account " + account, 20),
                new Counted("address " + address, 50));
    }

    /** Refuses an attempt that comes too early. */
    public void check(String name, String address) {
        Instant now = clock.instant();
        for (Counted by : counted(name, address)) {
            Failures so = failures.getIfPresent(by.key());
            if (so != null && now.isBefore(so.until())) {
                throw Problems.tooMany(
                        "There were too many wrong passwords.",
                        Math.max(1, Duration.between(now, so.until()).toSeconds() + 1));
            }
        }
    }

    public void failed(String name, String address) {
        Instant now = clock.instant();
        for (Counted by : counted(name, address)) {
            failures.asMap()
                    .compute(by.key(), (k, so) -> (so == null ? new Failures(0, now) : so).another(by.free(), now));
        }
    }

    /** Whoever is let in has known the password: what they mistyped before is forgotten. */
    public void succeeded(String name, String address) {
        failures.invalidate(counted(name, address).get(0).key());
    }
}
