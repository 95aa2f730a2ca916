package org.polyclave.wording.cover;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.polyclave.study.model.OutsideTaxon;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyScope;
import org.polyclave.study.notation.MonthNotation;
import org.polyclave.wording.catalogue.Catalogue;
import org.polyclave.wording.key.HazardWording;

/**
 * The cover of an edition: what readers learn before they open a key.
 *
 * @param line number, day and authors
 * @param notice why the edition should not be used any more; empty if nothing speaks against it
 * @param withdrawn whether it was withdrawn, and not only followed by a newer one
 * @param warnings dangers that cannot surely be told apart, each with the words of the author
 * @param hard dangers that can be ruled out, but hardly
 * @param about what it covers, leaves out and asks for; what nobody wrote has no heading
 * @param outside relatives and doubles that the key does not name
 * @param keys names of the keys that it holds besides the one of all taxa
 */
public record Cover(
        String line,
        String title,
        String notice,
        boolean withdrawn,
        List<String> cautions,
        List<Warning> warnings,
        List<String> hard,
        List<Fact> about,
        List<Outside> outside,
        List<String> keys) {
    private static final Catalogue SENTENCES = Catalogue.english("cover");
    private static final int ALL_YEAR = 12;

    public Cover {
        cautions = List.copyOf(cautions);
        warnings = List.copyOf(warnings);
        hard = List.copyOf(hard);
        about = List.copyOf(about);
        outside = List.copyOf(outside);
        keys = List.copyOf(keys);
    }

    /** What stands first, in bold, and what the author says of it. */
    public record Warning(String what, String words) {}

    /** A heading, and a paragraph for each text below it. */
    public record Fact(String heading, List<String> texts) {}

    /** @param dangerous whether readers have to be warned of it */
    public record Outside(String name, String why, String hazard, boolean dangerous) {}

    /** Whether an edition is to be used. */
    public enum Standing {
        CURRENT,
        SUPERSEDED,
        WITHDRAWN
    }

    /**
     * A dangerous row that this edition cannot separate well enough.
     *
     * @param others names of what it may be taken for; none, if it is in no key
     * @param months numbers of the months in which it may
     * @param words of the author; empty if it can be ruled out, but hardly
     */
    public record Declared(String danger, List<String> others, List<Integer> months, String words) {}

    /**
     * The cover of an edition.
     *
     * @param date day of publication, ISO 8601
     * @param reason why it was withdrawn, if it was
     */
    public static Cover of(
            Study study,
            int number,
            String date,
            List<String> authors,
            List<String> cautions,
            List<Declared> declared,
            List<String> kit,
            Standing standing,
            String reason) {
        return new Cover(
                text("line", Map.of("n", String.valueOf(number), "date", date, "authors", String.join(", ", authors))),
                study.title(),
                switch (standing) {
                    case CURRENT -> "";
                    case SUPERSEDED -> word("superseded");
                    case WITHDRAWN -> text("withdrawn", Map.of("reason", reason));
                },
                standing == Standing.WITHDRAWN,
                cautions,
                declared.stream()
                        .filter(d -> !d.words().isEmpty())
                        .map(d -> new Warning(warning(d), d.words()))
                        .toList(),
                declared.stream()
                        .filter(d -> d.words().isEmpty())
                        .map(d -> text("hard-one", facts(d)))
                        .toList(),
                about(study.scope(), kit),
                study.nearButOutside().stream().map(Cover::outside).toList(),
                List.of());
    }

    /** The same cover of an edition that holds further keys, in this order. */
    public Cover holding(List<String> names) {
        return new Cover(line, title, notice, withdrawn, cautions, warnings, hard, about, outside, names);
    }

    private static String warning(Declared declared) {
        return declared.others().isEmpty()
                ? text("not-in-key", Map.of("danger", declared.danger()))
                : text("not-apart", facts(declared));
    }

    private static Map<String, Object> facts(Declared declared) {
        boolean always = declared.months().size() == ALL_YEAR;
        return Map.of(
                "danger",
                declared.danger(),
                "others",
                String.join("; ", declared.others()),
                "months",
                always ? "" : MonthNotation.words(declared.months()));
    }

    private static List<Fact> about(StudyScope scope, List<String> kit) {
        List<Fact> about = new ArrayList<>();
        add(about, "covers", scope.covers());
        add(about, "leaves-out", scope.leavesOut());
        add(about, "region", scope.region());
        add(about, "stages", scope.stages());
        add(
                about,
                "kit",
                scope.equipment(),
                kit.isEmpty() ? "" : text("asks-for", Map.of("things", String.join(", ", kit))));
        return about;
    }

    private static void add(List<Fact> about, String heading, String... texts) {
        List<String> written = Stream.of(texts).filter(t -> !t.isBlank()).toList();
        if (!written.isEmpty()) {
            about.add(new Fact(word(heading), written));
        }
    }

    private static Outside outside(OutsideTaxon taxon) {
        return new Outside(
                taxon.name(),
                taxon.why(),
                HazardWording.severity(taxon.hazard()),
                taxon.hazard().isDangerous());
    }

    /** A word or sentence of the cover that is the same on each. */
    public static String word(String key) {
        return text(key, Map.of());
    }

    private static String text(String key, Map<String, ?> facts) {
        return SENTENCES.text(key, facts);
    }
}
