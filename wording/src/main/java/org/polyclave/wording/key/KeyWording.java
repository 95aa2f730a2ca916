package org.polyclave.wording.key;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.key.Key;
import org.polyclave.core.key.KeyResult;
import org.polyclave.core.key.Occurring;
import org.polyclave.core.key.PathDangers;
import org.polyclave.core.key.Proof;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.rules.Ranks;
import org.polyclave.wording.lead.English;

/** Words a whole key: parallel leads, the same characters in the same order, names with their hazards. */
public final class KeyWording {
    private final CompiledStudy compiled;
    private final Occurring occurring;
    private final IdentityHashMap<Key.ToRows, List<PathDangers.NotRuledOut>> dangers;

    private KeyWording(
            CompiledStudy compiled, Key key, IdentityHashMap<Key.ToRows, List<PathDangers.NotRuledOut>> dangers) {
        this.compiled = compiled;
        occurring = Occurring.of(compiled.matrix(), key);
        this.dangers = dangers;
    }

    public static KeyView word(CompiledStudy compiled, KeyResult result) {
        return new KeyWording(compiled, result.key(), PathDangers.of(compiled.matrix(), result.key())).view(result);
    }

    /** The leads of each couplet of a key that was read, in words. */
    public static List<List<KeyView.LeadView>> leads(CompiledStudy compiled, Key key) {
        KeyWording wording = new KeyWording(compiled, key, new IdentityHashMap<>());
        return key.couplets().stream().map(wording::leads).toList();
    }

    /** One sentence a failure, with couplet, lead, row and state by name. */
    public static List<String> failures(CompiledStudy compiled, Proof proof) {
        KeyWording wording = new KeyWording(compiled, Key.of(List.of()), new IdentityHashMap<>());
        List<String> sentences =
                new ArrayList<>(proof.failures().stream().map(wording::failure).toList());
        if (!proof.complete()) {
            sentences.add("The key is too complex to be checked completely; nothing is proven.");
        }
        return sentences;
    }

    /** What the keys of all objectives are like, this one's among them. */
    public static List<KeyView.ComparedView> compared(KeyResult result) {
        return result.compared().stream().map(KeyView.ComparedView::of).toList();
    }

    /**
     * Taxa of a study that a part does not have, each with the worst hazard of its rows, and rows of other taxa; the
     * dangerous ones first.
     */
    public static List<KeyView.NameView> leftOut(CompiledStudy whole, CompiledStudy part) {
        Set<String> there = part.rows().stream().map(StudyRow::id).collect(Collectors.toSet());
        Set<String> names = IntStream.range(0, whole.rows().size())
                .filter(i -> there.contains(whole.rows().get(i).id()))
                .mapToObj(i -> whole.nameOf(i).id())
                .collect(Collectors.toSet());
        Map<String, List<Integer>> missing = new LinkedHashMap<>();
        for (int i = 0; i < whole.rows().size(); i++) {
            String row = whole.rows().get(i).id();
            String name = whole.nameOf(i).id();
            if (!there.contains(row)) {
                missing.computeIfAbsent(names.contains(name) ? row : name, n -> new ArrayList<>())
                        .add(i);
            }
        }
        return missing.entrySet().stream()
                .map(e -> names.contains(whole.nameOf(e.getValue().get(0)).id())
                        ? name(whole.rows().get(e.getValue().get(0)), List.of())
                        : taxon(whole, e.getValue()))
                .sorted(Comparator.comparing(n -> n.hazard().isDangerous() ? 0 : 1))
                .toList();
    }

    private KeyView view(KeyResult result) {
        Map<Integer, KeyResult.CoupletReason> reasons = new HashMap<>();
        result.reasons().forEach(r -> reasons.put(r.couplet(), r));
        List<KeyView.CoupletView> couplets = new ArrayList<>();
        for (Key.Couplet couplet : result.key().couplets()) {
            couplets.add(couplet(couplet, reasons.get(couplet.number())));
        }
        KeyResult.Figures figures = result.figures();
        KeyView.TerminalView whole = couplets.isEmpty() ? terminal(result.key().whole()) : null;
        return new KeyView(
                compiled.study().title(),
                couplets,
                whole,
                new KeyView.FiguresView(
                        figures.rows(),
                        figures.couplets(),
                        figures.terminals(),
                        figures.expectedSteps(),
                        figures.longestPath(),
                        figures.entropyBound(),
                        figures.leastSteps(),
                        KeyView.RiskView.of(figures.trained()),
                        KeyView.RiskView.of(figures.novice()),
                        figures.completion().name(),
                        result.proof().proven(),
                        result.proof().observations(),
                        failures(compiled, result.proof())),
                List.of());
    }

    private KeyView.CoupletView couplet(Key.Couplet couplet, KeyResult.@Nullable CoupletReason reason) {
        List<KeyView.LeadView> leads = leads(couplet);
        Integer from = couplet.from().isPresent() ? couplet.from().getAsInt() : null;
        if (reason == null) {
            return new KeyView.CoupletView(
                    couplet.number(), from, leads, "", 0, null, List.of(), List.of(), List.of(), List.of());
        }
        List<KeyView.AlternativeView> alternatives = reason.alternatives().stream()
                .map(a -> new KeyView.AlternativeView(
                        character(a.character()).id(),
                        StatementWording.subject(character(a.character())),
                        a.gain(),
                        a.duplicated(),
                        a.misread(),
                        prices(a.prices())))
                .toList();
        return new KeyView.CoupletView(
                couplet.number(),
                from,
                leads,
                character(reason.character()).id(),
                reason.gain(),
                reason.misread(),
                ids(reason.rows()),
                ids(reason.duplicated()),
                prices(reason.prices()),
                alternatives);
    }

    private static List<KeyView.PriceView> prices(List<KeyResult.Price> prices) {
        return prices.stream()
                .map(price -> new KeyView.PriceView(price.kind(), price.couplets()))
                .toList();
    }

    private List<String> ids(List<Integer> rows) {
        return rows.stream().map(r -> compiled.rows().get(r).id()).toList();
    }

    private StudyCharacter character(int index) {
        return compiled.characters().get(index);
    }

    private List<KeyView.LeadView> leads(Key.Couplet couplet) {
        List<List<KeyView.StatementView>> statements = new CoupletWording(compiled, couplet, occurring).statements();
        List<KeyView.LeadView> leads = new ArrayList<>();
        for (int l = 0; l < statements.size(); l++) {
            leads.add(lead(couplet.leads().get(l), statements.get(l)));
        }
        return leads;
    }

    private KeyView.LeadView lead(Key.Lead lead, List<KeyView.StatementView> statements) {
        boolean ends = lead.to() instanceof Key.ToRows;
        return new KeyView.LeadView(
                CoupletWording.sentence(
                        statements.stream().map(KeyView.StatementView::text).toList()),
                CoupletWording.sentence(statements.stream()
                        .map(KeyView.StatementView::plainText)
                        .toList()),
                statements,
                ends ? null : (Integer) ((Key.ToCouplet) lead.to()).number(),
                ends ? terminal((Key.ToRows) lead.to()) : null);
    }

    private KeyView.TerminalView terminal(Key.ToRows terminal) {
        List<KeyView.NameView> names =
                terminal.rows().stream().map(r -> name(compiled, r)).toList();
        List<KeyView.OpenDangerView> open = dangers.getOrDefault(terminal, List.of()).stream()
                .map(d -> new KeyView.OpenDangerView(
                        danger(d.danger()),
                        d.signs().stream()
                                .map(c -> English.lower(StatementWording.subject(character(c))))
                                .toList()))
                .toList();
        return new KeyView.TerminalView(names, reason(terminal), group(terminal), open);
    }

    /** The name that a dangerous row belongs to, as dangerous as the row. */
    private KeyView.NameView danger(int row) {
        StudyRow of = compiled.rows().get(row);
        return name(compiled.nameOf(row).withHazards(of.hazard(), of.hazards()), List.of());
    }

    /** Name of a row for screens. */
    public static KeyView.NameView name(CompiledStudy compiled, int row) {
        return name(compiled.rows().get(row), compiled.targets().get(row).folded());
    }

    /** The taxon, or group, that some rows of one name are named as; as dangerous as the worst of them. */
    public static KeyView.NameView taxon(CompiledStudy compiled, List<Integer> rows) {
        StudyRow named = compiled.nameOf(rows.get(0));
        StudyRow worst = rows.stream()
                .map(r -> compiled.rows().get(r))
                .max(Comparator.comparing(StudyRow::hazard))
                .orElse(named);
        boolean above = worst.hazard().compareTo(named.hazard()) > 0;
        return name(above ? named.withHazards(worst.hazard(), worst.hazards()) : named, List.of());
    }

    private static KeyView.NameView name(StudyRow row, List<String> folded) {
        return new KeyView.NameView(
                row.id(),
                row.label(),
                row.stage(),
                row.plain(),
                row.rank(),
                row.hazard(),
                HazardWording.describe(row),
                folded);
    }

    private KeyView.@Nullable NameView group(Key.ToRows terminal) {
        return terminal.reason() == Key.Reason.ONE_TAXON ? taxon(compiled, terminal.rows()) : null;
    }

    private String reason(Key.ToRows terminal) {
        return switch (terminal.reason()) {
            case NONE -> "";
            case ONE_TAXON ->
                compiled.nameOf(terminal.rows().get(0)).stopsHere()
                        ? "the key stops at this group"
                        : "its sexes, stages and forms are not distinguished here";
            case INSEPARABLE -> "nothing in this matrix separates these any further";
        };
    }

    private String failure(Proof.Failure failure) {
        String row = failure.row().isPresent()
                ? "'" + compiled.rows().get(failure.row().getAsInt()).name() + "'"
                : "";
        String place =
                failure.couplet().isPresent() ? "Couplet " + failure.couplet().getAsInt() : "The key";
        String lead = failure.lead().isPresent() ? ", lead " + failure.lead().getAsInt() : "";
        String seen = failure.character().isPresent() ? " with " + seen(failure) : "";
        return switch (failure.kind()) {
            case NO_LEAD -> place + ": no lead accepts " + row + seen + ".";
            case SEVERAL_LEADS -> place + lead + ": more than one lead accepts " + row + seen + ".";
            case WRONG_NAME -> place + lead + ": " + row + seen + " ends here, but is not named.";
            case UNREACHED_COUPLET -> place + ": no specimen of any row ever comes here.";
            case UNREACHED_TERMINAL -> place + lead + ": no specimen of any row ever ends here.";
            case ROW_MISSING -> "The key never names " + row + ".";
            case LOOP -> place + lead + ": leads back to a couplet that was already passed.";
            case DANGLING_TARGET -> place + lead + ": goes to a couplet that does not exist.";
            case NOT_SUFFICIENT -> place + lead + ": the confirming statement is not reliable for " + row + seen + ".";
            case CONTRARY_TENDENCY ->
                place + lead + ": '" + seen(failure) + "' is no more usual here than under the other leads.";
            case NAMED_IN_VAIN -> place + lead + ": names " + row + ", but none of its specimens ends here.";
            case COULD_BE_SEPARATED ->
                place + lead + ": stops although " + subject(failure) + " still separates " + row
                        + " from others named here.";
            case TOO_FEW_LEADS -> place + ": has fewer than two leads.";
            case DUPLICATE_NUMBER -> place + ": the number is used twice.";
            case WRONG_BACK_REFERENCE -> place + ": its back-reference names a couplet that does not lead here.";
        };
    }

    private String seen(Proof.Failure failure) {
        return failure.observed()
                .map(o ->
                        StatementWording.clause(o, character(failure.character().getAsInt())))
                .orElseGet(() -> subject(failure));
    }

    private String subject(Proof.Failure failure) {
        return English.lower(
                StatementWording.subject(character(failure.character().getAsInt())));
    }

    /** Names of rows, joined; those of a group stand behind its own name. */
    public static String names(KeyView.TerminalView terminal) {
        KeyView.NameView group = terminal.group();
        if (group == null) {
            return terminal.names().stream().map(KeyWording::full).collect(Collectors.joining(" / "));
        }
        return groupName(group) + ": " + String.join(", ", members(terminal, group));
    }

    private static String full(KeyView.NameView name) {
        String folded = name.folded().isEmpty() ? "" : " (also " + String.join(", ", name.folded()) + ")";
        return (name.stage().isEmpty() ? name.label() : name.label() + ", " + name.stage()) + folded;
    }

    /** With its rank where that is not in the name: "tribe Delmorini". */
    static String groupName(KeyView.NameView group) {
        String rank = group.rank().strip().toLowerCase(Locale.ROOT);
        boolean told = rank.equals("aggregate") || rank.equals("species complex");
        return Ranks.isAboveSpecies(rank) && !told ? rank + " " + group.label() : group.label();
    }

    /** What ends here of a group: its taxa, or the sexes and stages of the one. */
    public static List<String> members(KeyView.TerminalView terminal, KeyView.NameView group) {
        return terminal.names().stream()
                .map(n -> n.label().equals(group.label()) && !n.stage().isEmpty() ? n.stage() : n.label())
                .distinct()
                .toList();
    }
}
