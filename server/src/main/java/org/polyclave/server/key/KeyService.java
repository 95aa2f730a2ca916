package org.polyclave.server.key;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.polyclave.core.key.KeyGenerator;
import org.polyclave.core.key.KeyObjective;
import org.polyclave.core.key.KeyOptions;
import org.polyclave.core.key.KeyOutcome;
import org.polyclave.core.key.KeyResult;
import org.polyclave.core.run.CancelSignal;
import org.polyclave.formats.key.KeyJson;
import org.polyclave.formats.key.KeyRenderer;
import org.polyclave.formats.key.KeyView;
import org.polyclave.formats.key.KeyWording;
import org.polyclave.formats.study.CompiledStudy;
import org.polyclave.formats.study.KeyContext;
import org.polyclave.server.platform.Problems;
import org.springframework.stereotype.Service;

/** Dichotomous keys of compiled studies. */
@Service
public class KeyService {
    private static final Duration LONGEST = Duration.ofSeconds(60);

    private final Clock clock;

    KeyService(Clock clock) {
        this.clock = clock;
    }

    /**
     * What key is wanted.
     *
     * @param months months in which every question must be answerable; empty: any
     * @param organs organs at hand; empty: all
     * @param methods methods at hand; empty: all
     * @param forbidden ids of characters that must not be asked
     */
    public record Wish(
            KeyObjective objective,
            boolean evenWeights,
            Set<Integer> months,
            Set<String> organs,
            Set<String> methods,
            Set<String> forbidden) {
        public static final Wish CAUTIOUS =
                new Wish(KeyObjective.CAUTIOUS, true, Set.of(), Set.of(), Set.of(), Set.of());
    }

    /** A key with the study it was made of, restricted to what is at hand. */
    public record Made(CompiledStudy compiled, KeyResult result) {
        public KeyView view() {
            return KeyWording.word(compiled, result);
        }

        /** The key as a file: {@code text}, {@code markdown}, {@code json} or {@code html}. */
        public String render(String format) {
            return switch (format) {
                case "text" -> KeyRenderer.text(view(), compiled.study());
                case "markdown" -> KeyRenderer.markdown(view(), compiled.study());
                case "json" -> KeyJson.write(compiled, result);
                case "html" -> KeyRenderer.html(view(), compiled.study());
                default -> throw Problems.badRequest("format", "Keys are written as text, markdown, json or html.");
            };
        }
    }

    /** Generates and proves; gives up with a sentence after a minute. */
    public Made make(CompiledStudy whole, Wish wish) {
        KeyContext context = new KeyContext(wish.months(), lower(wish.organs()), lower(wish.methods()));
        CompiledStudy compiled = without(context.apply(whole), wish.forbidden());
        KeyOptions options = KeyOptions.DEFAULT.withObjective(wish.objective()).withEvenWeights(wish.evenWeights());
        Instant deadline = clock.instant().plus(LONGEST);
        CancelSignal late = () -> clock.instant().isAfter(deadline);
        KeyOutcome outcome = new KeyGenerator().generate(compiled.matrix(), options, late);
        if (outcome instanceof KeyOutcome.Generated generated) {
            return new Made(compiled, generated.result());
        }
        if (outcome instanceof KeyOutcome.TooManyTerminals many) {
            List<String> loose = many.looseCharacters().stream()
                    .map(c -> compiled.characters().get(c).label())
                    .toList();
            throw Problems.unprocessable(
                    "too-many-terminals",
                    "The key would name its taxa over and over. Characters that vary or are unknown most: "
                            + String.join(", ", loose) + ". Score these, or leave them out.",
                    Map.of("characters", loose));
        }
        throw outcome instanceof KeyOutcome.NoRows
                ? Problems.unprocessable(
                        "no-rows", "There are no taxa to make a key of. Import a matrix first.", Map.of())
                : Problems.unprocessable(
                        "too-slow",
                        "No key was complete after a minute. Leave out characters, or make the key with ./polyclave key.",
                        Map.of());
    }

    private static Set<String> lower(Set<String> names) {
        return names.stream().map(n -> n.toLowerCase(java.util.Locale.ROOT)).collect(Collectors.toSet());
    }

    private static CompiledStudy without(CompiledStudy compiled, Set<String> forbidden) {
        List<Integer> dropped = new ArrayList<>();
        for (int c = 0; c < compiled.characters().size(); c++) {
            if (forbidden.contains(compiled.characters().get(c).id())) {
                dropped.add(c);
            }
        }
        return dropped.isEmpty() ? compiled : compiled.without(dropped);
    }
}
