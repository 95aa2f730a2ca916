package org.polyclave.server.measuring;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.util.Map;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.IntFunction;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/** Sends what instruments say, event by event, until the reader goes. */
@Component
public class InstrumentStreams {
    private static final int MOST = 8;
    private static final long HOUR = 3_600_000;

    private final Semaphore places = new Semaphore(MOST);
    private final ScheduledExecutorService clockwork = Executors.newScheduledThreadPool(1, task -> {
        Thread thread = new Thread(task, "instruments");
        thread.setDaemon(true);
        return thread;
    });

    /** @param event text of the n-th event */
    public SseEmitter open(String name, long everyMillis, IntFunction<String> event) {
        if (!places.tryAcquire()) {
            throw Problems.conflict(
                    ProblemCode.INSTRUMENT_BUSY,
                    "The instrument is in use. Close it where you do not need it.",
                    Map.of());
        }
        SseEmitter emitter = new SseEmitter(HOUR);
        AtomicInteger step = new AtomicInteger();
        ScheduledFuture<?> sending = clockwork.scheduleAtFixedRate(
                () -> send(emitter, name, event.apply(step.getAndIncrement())),
                everyMillis / 4,
                everyMillis,
                TimeUnit.MILLISECONDS);
        Runnable over = new Runnable() {
            private boolean done;

            @Override
            public synchronized void run() {
                if (!done) {
                    done = true;
                    sending.cancel(false);
                    places.release();
                }
            }
        };
        emitter.onCompletion(over);
        emitter.onTimeout(over);
        emitter.onError(failure -> over.run());
        return emitter;
    }

    private static void send(SseEmitter emitter, String name, String text) {
        try {
            emitter.send(SseEmitter.event().name(name).data(text));
        } catch (IOException | IllegalStateException gone) {
            emitter.completeWithError(gone);
        }
    }

    @PreDestroy
    void stop() {
        clockwork.shutdownNow();
    }
}
