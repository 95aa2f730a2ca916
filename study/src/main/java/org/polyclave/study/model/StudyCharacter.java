package org.polyclave.study.model;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.matrix.CharacterRole;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Handling;
import org.polyclave.core.matrix.Misreading;

/**
 * A character with its texts.
 *
 * @param unit unit in which numbers are shown; stored values are in the base unit
 * @param note how and where to look
 * @param months numbers 1 to 12 in which it can be seen; empty: all year
 * @param effort minutes
 * @param harms whether the specimen is harmed
 * @param hazardousToObserve whether it takes smelling, crushing, cutting or touching
 * @param tentative odour, behaviour and the like: never helps to rule out a dangerous row
 * @param misreading rate for a trained observer
 * @param group characters of one group are one feature; empty: as the rule says, mostly each its own
 * @param uncertainty reading uncertainty in the base unit
 * @param where where exactly on the organ it is seen or measured
 * @param looking what to know before looking
 * @param comparator what a relative character compares with: "the middle lobe"; empty if it compares with nothing
 * @param ratioOf ids of the two characters of which it is the ratio, or empty
 * @param trust how far it can be trusted, by audience and group
 * @param use what part it may play, and how often it is there to see
 * @param lead its clause in a lead; made from its name where its author wrote none
 */
@RecordBuilder
public record StudyCharacter(
        String id,
        String label,
        String question,
        String plainQuestion,
        CharacterType type,
        String unit,
        String organ,
        String method,
        String note,
        List<StudyState> states,
        List<AppliesWhen> appliesWhen,
        List<Integer> months,
        double effort,
        boolean harms,
        boolean hazardousToObserve,
        boolean tentative,
        double misreading,
        String group,
        double uncertainty,
        Where where,
        Looking looking,
        String comparator,
        List<String> ratioOf,
        Trust trust,
        Use use,
        LeadPattern lead)
        implements StudyCharacterBuilder.With {
    public static final double DEFAULT_MISREADING = Misreading.TRAINED_DEFAULT;

    public StudyCharacter {
        states = List.copyOf(states);
        appliesWhen = List.copyOf(appliesWhen);
        months = List.copyOf(months);
        where = Defaults.or(where, Where.NOT_SAID);
        looking = Defaults.or(looking, Looking.PLAIN);
        comparator = Defaults.or(comparator, "");
        ratioOf = Defaults.list(ratioOf);
        trust = Defaults.or(trust, Trust.USUAL);
        use = Defaults.or(use, Use.FREE);
        lead = Defaults.or(lead, LeadPattern.MADE);
    }

    /** A character with a name, a type and states, and everything else at its default. */
    public static StudyCharacter of(String label, CharacterType type, List<StudyState> states) {
        return new StudyCharacter(
                Slug.of(label),
                label,
                "",
                "",
                type,
                Units.defaultUnit(type),
                "",
                "",
                "",
                states,
                List.of(),
                List.of(),
                1,
                false,
                false,
                false,
                DEFAULT_MISREADING,
                "",
                0,
                Where.NOT_SAID,
                Looking.PLAIN,
                "",
                List.of(),
                Trust.USUAL,
                Use.FREE,
                LeadPattern.MADE);
    }

    public StudyCharacter withConditions(List<AppliesWhen> conditions) {
        return withAppliesWhen(conditions);
    }

    /** The same character read as another type, in its unit. */
    public StudyCharacter withType(CharacterType newType, String newUnit) {
        return with().type(newType).unit(newUnit).build();
    }

    /** Looking, photographing and measuring; every other method handles the specimen. */
    private static final Pattern LOOKING = Pattern.compile(
            "(?iU)|.*\\b(eyes?|lens|loupe|magnifier|microscope|binoculars?|ruler|calipers?|tape|photo\\w*|picture|camera|look\\w*"
                    + "|measur\\w*|scale|print|count\\w*)\\b.*");

    private static final Map<Handling, Pattern> HANDLED = handled();

    private static Map<Handling, Pattern> handled() {
        Map<Handling, Pattern> words = new EnumMap<>(Handling.class);
        words.put(Handling.SMELL, Pattern.compile("(?iU)\\b(smell|odou?r|scent|sniff)\\w*"));
        words.put(Handling.CRUSH, Pattern.compile("(?iU)\\b(crush|rub|burn|bruis|scratch)\\w*"));
        words.put(
                Handling.CUT,
                Pattern.compile("(?iU)\\b(cut|section|slic|break|snap|peel|tear|split|dissect|reagent)\\w*"));
        words.put(Handling.DIG, Pattern.compile("(?iU)\\b(dig|uproot|pull|lift)\\w*"));
        words.put(Handling.TOUCH, Pattern.compile("(?iU)\\b(touch|feel|handl|turn|squeez|bend|press)\\w*"));
        return words;
    }

    /** What observing it does to the specimen: as its method says; a method that nobody knows counts as touching. */
    public Handling handling() {
        // The gravest of several comes first.
        for (Handling kind : List.of(Handling.SMELL, Handling.CRUSH, Handling.CUT, Handling.DIG, Handling.TOUCH)) {
            Pattern words = HANDLED.get(kind);
            if (words != null && words.matcher(method).find()) {
                return kind;
            }
        }
        if (hazardousToObserve) {
            return Handling.CRUSH;
        }
        return LOOKING.matcher(method).matches() ? Handling.NONE : Handling.TOUCH;
    }

    private static final Pattern NO_SIGN_OF_ITS_OWN = Pattern.compile(
            "(?iU)\\b(stand|habitat|substrate|host|ground|locality|place|season|phenology|behaviou?r)\\b");

    /** Whether it may help to rule a danger out: no odour, no season, no place, no behaviour, nothing of the stand. */
    public boolean countsAgainstDangers() {
        return !tentative
                && use.role().decides()
                && type != CharacterType.MONTHS
                && looking.subject() == Subject.ORGANISM
                && handling() != Handling.SMELL
                && !NO_SIGN_OF_ITS_OWN.matcher(organ).find()
                && !NO_SIGN_OF_ITS_OWN.matcher(label).find();
    }

    public Optional<StudyState> state(String id) {
        return states.stream().filter(s -> s.id().equals(id)).findFirst();
    }

    /** Index of a state, -1 if there is none. */
    public int indexOf(String stateId) {
        for (int s = 0; s < states.size(); s++) {
            if (states.get(s).id().equals(stateId)) {
                return s;
            }
        }
        return -1;
    }

    /**
     * A character's alternative.
     *
     * @param mistakenFor ids of the states that readers commonly take it for
     * @param swatch colour as {@code #rrggbb}, or empty
     * @param comparedWith what the swatch was compared against: a chart, a light
     * @param picture id of a picture of the study, or empty
     * @param absent whether it says that something is not there, which never counts against a danger; null: as its words say
     * @param phrase its words in the clause of a lead; empty: its label
     */
    @RecordBuilder
    public record StudyState(
            String id,
            String label,
            String plain,
            String definition,
            List<String> mistakenFor,
            String swatch,
            String comparedWith,
            String picture,
            @Nullable Boolean absent,
            Phrase phrase)
            implements StudyCharacterStudyStateBuilder.With {
        private static final Pattern ABSENCE = Pattern.compile(
                "(?iU)\\b(absent|absence|none|no|not|nil|without|lacking|missing|unarmed|unspotted|unringed|hairless"
                        + "|glabrous|0)\\b|\\b\\p{L}{3,}less\\b");

        public StudyState {
            mistakenFor = Defaults.list(mistakenFor);
            swatch = Defaults.or(swatch, "");
            comparedWith = Defaults.or(comparedWith, "");
            picture = Defaults.or(picture, "");
            phrase = Defaults.or(phrase, Phrase.NONE);
        }

        public StudyState(String id, String label, String plain, String definition) {
            this(id, label, plain, definition, List.of(), "", "", "");
        }

        public StudyState(
                String id,
                String label,
                String plain,
                String definition,
                List<String> mistakenFor,
                String swatch,
                String comparedWith,
                String picture) {
            this(id, label, plain, definition, mistakenFor, swatch, comparedWith, picture, null, Phrase.NONE);
        }

        /** Whether it says that something is not there: as the author says, else as its words do. */
        public boolean isAbsence() {
            return absent == null ? ABSENCE.matcher(label).find() : absent;
        }

        public static StudyState of(String label) {
            return new StudyState(Slug.of(label), label, "", "");
        }
    }

    /**
     * A state's words in the clause of a lead ("reaching the stem").
     *
     * @param technical empty: its label
     * @param plain empty: its plain label
     * @param negative words that deny it ("not divided"), for the lead against one that shows only this state
     * @param plainNegative the same in plain words
     */
    public record Phrase(String technical, String plain, String negative, String plainNegative) {
        public static final Phrase NONE = new Phrase("", "", "", "");

        public Phrase {
            technical = Defaults.or(technical, "");
            plain = Defaults.or(plain, "");
            negative = Defaults.or(negative, "");
            plainNegative = Defaults.or(plainNegative, "");
        }
    }

    /**
     * The clause of a character in leads, with slots for what is seen, as {@code LeadNotation} reads it: "leaf margin {states}",
     * "leaf {value} wide".
     *
     * @param technical empty: made from organ and name
     * @param plain empty: as the technical one
     */
    public record LeadPattern(String technical, String plain) {
        public static final LeadPattern MADE = new LeadPattern("", "");

        public LeadPattern {
            technical = Defaults.or(technical, "");
            plain = Defaults.or(plain, "");
        }
    }

    /**
     * Where exactly a character is seen or measured. Statements about different places never contradict each other.
     *
     * @param position along the organ: base, middle, tip, node ...
     * @param side upper face, under face, edge ...
     * @param from landmark at which a measurement begins
     * @param to landmark at which it ends
     * @param dimension length, width, diameter or circumference, or which way something is counted
     * @param view from where it is looked at
     * @param magnification as needed
     * @param material state of the material: fresh, dry, in fluid, mountant
     */
    public record Where(
            String position,
            String side,
            String from,
            String to,
            String dimension,
            String view,
            String magnification,
            String material) {
        public static final Where NOT_SAID = new Where("", "", "", "", "", "", "", "");
        private static final Pattern NUMBER = Pattern.compile("\\d{1,6}");

        /** How many times it must be magnified at least, if a number says so. */
        public OptionalInt times() {
            Matcher number = NUMBER.matcher(magnification);
            return number.find() ? OptionalInt.of(Integer.parseInt(number.group())) : OptionalInt.empty();
        }
    }

    /**
     * What to know before looking.
     *
     * @param pitfalls what goes wrong
     * @param stages sexes and stages in which it can be seen; empty: all
     * @param delayMinutes how long to wait before it can be read
     * @param preservation what preservation does to it
     * @param subject what it belongs to
     * @param alteredBy treatments after which a specimen is not evidence for it
     */
    public record Looking(
            String pitfalls,
            List<String> stages,
            double delayMinutes,
            String preservation,
            Subject subject,
            List<Specimen.Treated> alteredBy) {
        public static final Looking PLAIN = new Looking("", List.of(), 0, "", Subject.ORGANISM);

        public Looking {
            stages = List.copyOf(stages);
            alteredBy = Defaults.list(alteredBy);
        }

        public Looking(
                String pitfalls, List<String> stages, double delayMinutes, String preservation, Subject subject) {
            this(pitfalls, stages, delayMinutes, preservation, subject, List.of());
        }
    }

    /**
     * How far readers can be trusted with a character.
     *
     * @param novice how often novices misread it; null: as usual
     * @param origin where the rates come from
     * @param groups taxa in which other rates hold
     */
    public record Trust(@Nullable Double novice, RateOrigin origin, List<InGroup> groups) {
        public static final Trust USUAL = new Trust(null, RateOrigin.DEFAULT, List.of());

        public Trust {
            origin = Defaults.or(origin, RateOrigin.DEFAULT);
            groups = Defaults.list(groups);
        }

        /** How often novices misread what trained observers misread at some rate. */
        public double noviceRate(double trained) {
            return novice == null ? Misreading.of(trained).novice() : novice;
        }
    }

    /** Where rates of misreading come from. */
    public enum RateOrigin {
        DEFAULT,
        EXPERT,
        MEASURED
    }

    /**
     * Other rates in a group, where a character cannot be trusted as elsewhere: of a taxon and all that belongs to it.
     *
     * @param row the taxon
     * @param trained how often trained observers misread it there
     * @param novice how often novices do; null: as usual, but no less than trained ones
     * @param why what makes it different there
     */
    public record InGroup(
            String row, double trained, @Nullable Double novice, String why) {
        public InGroup {
            why = Defaults.or(why, "");
        }

        public double noviceRate() {
            return novice == null ? Misreading.of(trained).novice() : novice;
        }

        public InGroup withRow(String newRow) {
            return new InGroup(newRow, trained, novice, why);
        }
    }

    /** What a character belongs to. */
    public enum Subject {
        ORGANISM,
        STAND,
        BEHAVIOUR,
        /** A sign of the individual, not of its taxon (farmed, regenerated, parasitised): it separates nothing. */
        INDIVIDUAL
    }

    /**
     * What its author lets it be used for.
     *
     * @param seenOn share of individuals that show the part at all; null: all
     */
    public record Use(CharacterRole role, @Nullable Double seenOn) {
        public static final Use FREE = new Use(CharacterRole.DECIDES, null);

        public Use {
            role = Defaults.or(role, CharacterRole.DECIDES);
        }

        /** How many individuals have to be looked at until one shows the part. */
        public double individuals() {
            return seenOn == null ? 1 : 1 / seenOn;
        }
    }

    /** The character applies only where another has one of some states. */
    public record AppliesWhen(String character, List<String> states) {
        public AppliesWhen {
            states = List.copyOf(states);
        }
    }
}
