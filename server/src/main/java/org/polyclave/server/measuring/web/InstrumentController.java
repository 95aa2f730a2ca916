package org.polyclave.server.measuring.web;

import java.util.Base64;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.server.account.Account;
import org.polyclave.server.account.Current;
import org.polyclave.server.account.SignedIn;
import org.polyclave.server.measuring.InstrumentStreams;
import org.polyclave.server.measuring.SimulatedInstruments;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.polyclave.study.model.Units;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.http.MediaType;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/** Instruments that are attached, for who is signed in; only the demo has any. */
@RestController
@RequestMapping("/api/v1/instruments")
class InstrumentController {
    private static final long PRESS = 2500;
    private static final long FRAME = 600;
    private static final List<Integer> OBJECTIVES = List.of(10, 20, 40);

    private final ObjectProvider<SimulatedInstruments> simulated;
    private final InstrumentStreams streams;

    InstrumentController(ObjectProvider<SimulatedInstruments> simulated, InstrumentStreams streams) {
        this.simulated = simulated;
        this.streams = streams;
    }

    /** What can be opened: caliper, camera. */
    @GetMapping
    List<String> attached(@AuthenticationPrincipal @Nullable SignedIn who) {
        return who == null || simulated.getIfAvailable() == null ? List.of() : List.of("caliper", "camera");
    }

    /**
     * Readings of a caliper as server-sent events {@code reading}, each the text that it would type.
     *
     * @param around about how large the things are that the simulated one is put to
     */
    @GetMapping(path = "/caliper", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    SseEmitter caliper(
            @Current Account who,
            @RequestParam(defaultValue = "10") double around,
            @RequestParam(defaultValue = "mm") String unit) {
        SimulatedInstruments instruments = instruments();
        double millimetres = around * Units.factor(CharacterType.LENGTH, unit).orElse(1.0);
        double size = millimetres > 0 && Double.isFinite(millimetres) ? millimetres : 10;
        long seed = System.nanoTime();
        return streams.open("reading", PRESS, step -> instruments.caliper(size, seed, step));
    }

    /** Frames of a microscope camera as server-sent events {@code frame}, each a JPEG in Base64. */
    @GetMapping(path = "/camera", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    SseEmitter camera(
            @Current Account who,
            @RequestParam(defaultValue = "10") int magnification,
            @RequestParam(defaultValue = "1") long slide) {
        SimulatedInstruments instruments = instruments();
        if (!OBJECTIVES.contains(magnification)) {
            throw Problems.badRequest(ProblemCode.MAGNIFICATION, "The camera has objectives of 10, 20 and 40.");
        }
        return streams.open(
                "frame",
                FRAME,
                step -> Base64.getEncoder().encodeToString(instruments.camera(magnification, slide, step)));
    }

    private SimulatedInstruments instruments() {
        SimulatedInstruments attached = simulated.getIfAvailable();
        if (attached == null) {
            throw Problems.notFound();
        }
        return attached;
    }
}
