package org.polyclave.server.account;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.measuring.RuleOfThumb;
import org.polyclave.server.account.persistence.RuleOfThumbMapper;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.polyclave.study.model.Units;
import org.polyclave.study.notation.TypedNumber;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Sizes that people carry with them, as each of them measured their own. */
@Service
public class RulesOfThumb {
    private static final int MOST = 50;
    private static final TypeReference<List<Double>> NUMBERS = new TypeReference<>() {};

    private final RuleOfThumbMapper mapper;
    private final JsonMapper json;

    RulesOfThumb(RuleOfThumbMapper mapper, JsonMapper json) {
        this.mapper = mapper;
        this.json = json;
    }

    /**
     * A rule with its size in mm.
     *
     * @param mean of one's own if it was measured, else of people at large
     * @param spread standard deviation of the same
     * @param measured one's own, in mm; empty if nothing was
     */
    public record OwnRule(RuleOfThumb rule, double mean, double spread, List<Double> measured) {}

    public List<OwnRule> of(@Nullable SignedIn who) {
        Map<RuleOfThumb, List<Double>> own = measured(who);
        return Arrays.stream(RuleOfThumb.values())
                .map(rule -> ownRule(rule, own.getOrDefault(rule, List.of())))
                .toList();
    }

    /** Sizes by which an account's rough lengths are taken. */
    public Function<RuleOfThumb, RuleOfThumb.Size> sizes(long account) {
        Map<RuleOfThumb, List<Double>> own = measured(account);
        return rule -> size(rule, own.getOrDefault(rule, List.of()));
    }

    /** @param measured in mm; of fewer than {@link RuleOfThumb#LEAST}, or of what is no such size, the typical one */
    public static RuleOfThumb.Size size(RuleOfThumb rule, List<Double> measured) {
        boolean own = measured.size() >= RuleOfThumb.LEAST && measured.stream().allMatch(rule::isBelievable);
        return own ? rule.of(measured.stream().mapToDouble(m -> m).toArray()) : rule.typical();
    }

    /**
     * Takes what somebody measured of their own; it is kept if they are signed in.
     *
     * @param typed lengths with their unit, or in mm; none: back to the typical size
     */
    @Transactional
    public OwnRule measure(@Nullable SignedIn who, RuleOfThumb rule, List<String> typed) {
        List<Double> measured = new ArrayList<>();
        for (String text : typed) {
            if (!text.isBlank()) {
                measured.add(length(rule, text));
            }
        }
        if (!measured.isEmpty() && (measured.size() < RuleOfThumb.LEAST || measured.size() > MOST)) {
            throw Problems.unprocessable(
                    ProblemCode.TOO_FEW,
                    "Measure it " + RuleOfThumb.LEAST + " to " + MOST
                            + " times, starting afresh each time, so that the spread shows.",
                    Map.of());
        }
        if (who != null && measured.isEmpty()) {
            mapper.remove(who.account().id(), rule.name());
        } else if (who != null) {
            mapper.put(who.account().id(), rule.name(), json.writeValueAsString(measured));
        }
        return ownRule(rule, measured);
    }

    private static double length(RuleOfThumb rule, String text) {
        Optional<Double> length = TypedNumber.parse(text)
                .flatMap(n -> Units.factor(CharacterType.LENGTH, n.unit()).map(f -> Units.scaled(n.number(), f)));
        if (length.isEmpty()) {
            throw Problems.unprocessable(
                    ProblemCode.NO_LENGTH,
                    "'" + text.strip() + "' is not a length. Write for example '16.5' or '5/8 in'.",
                    Map.of());
        }
        if (!rule.isBelievable(length.get())) {
            throw Problems.unprocessable(
                    ProblemCode.NO_SUCH_SIZE,
                    "'" + text.strip() + "' comes to " + length.get() + " mm. Nobody's is that size: check the unit.",
                    Map.of());
        }
        return length.get();
    }

    private static OwnRule ownRule(RuleOfThumb rule, List<Double> measured) {
        RuleOfThumb.Size size = size(rule, measured);
        return new OwnRule(rule, size.mean(), size.spread(), List.copyOf(measured));
    }

    private Map<RuleOfThumb, List<Double>> measured(@Nullable SignedIn who) {
        return who == null ? Map.of() : measured(who.account().id());
    }

    private Map<RuleOfThumb, List<Double>> measured(long account) {
        Map<RuleOfThumb, List<Double>> own = new EnumMap<>(RuleOfThumb.class);
        for (RuleOfThumbMapper.Row row : mapper.of(account)) {
            own.put(RuleOfThumb.valueOf(row.rule()), json.readValue(row.measured(), NUMBERS));
        }
        return own;
    }
}
