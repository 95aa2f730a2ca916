package org.polyclave.server.account.web;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.measuring.RuleOfThumb;
import org.polyclave.server.account.RulesOfThumb;
import org.polyclave.server.account.SignedIn;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Everybody's own rules of thumb; those of nobody in particular for readers without an account. */
@RestController
@RequestMapping("/api/v1/rules-of-thumb")
class RuleOfThumbController {
    record MeasuredRequest(List<String> measured) {}

    private final RulesOfThumb rules;

    RuleOfThumbController(RulesOfThumb rules) {
        this.rules = rules;
    }

    /** Sizes at hand: those that the account measured of its own, else those of people in general. */
    @GetMapping
    List<RulesOfThumb.OwnRule> all(@AuthenticationPrincipal @Nullable SignedIn who) {
        return rules.of(who);
    }

    /** What the measurements come to; kept for those who are signed in. */
    @PutMapping("/{rule}")
    RulesOfThumb.OwnRule measure(
            @PathVariable RuleOfThumb rule,
            @RequestBody MeasuredRequest request,
            @AuthenticationPrincipal @Nullable SignedIn who) {
        return rules.measure(who, rule, request.measured());
    }
}
