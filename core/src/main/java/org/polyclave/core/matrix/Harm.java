package org.polyclave.core.matrix;

/**
 * In which ways a specimen may harm whoever handles it.
 *
 * @param attacks venomous, biting or stinging: nobody handles it, however mild
 * @param grave bit set of {@link #EATING}, {@link #SKIN}, {@link #BREATHING}: routes of serious or life-threatening hazards, or of
 *     what nobody has assessed
 * @param mild the same for hazards that ask for caution
 */
public record Harm(boolean attacks, int grave, int mild) {
    public static final int EATING = 1;
    /** Skin and eyes, and spines. */
    public static final int SKIN = 2;

    public static final int BREATHING = 4;
    /** A hazard that does not say by which way it harms harms by all. */
    public static final int ALL = EATING | SKIN | BREATHING;

    public static final Harm NONE = new Harm(false, 0, 0);

    /** Where nothing but the severity is known. */
    public static Harm of(Hazard hazard) {
        return switch (hazard) {
            case NONE_KNOWN -> NONE;
            case NOT_ASSESSED -> new Harm(false, SKIN | BREATHING, 0);
            case CAUTION -> new Harm(false, 0, ALL);
            case SERIOUS, LIFE_THREATENING -> new Harm(false, ALL, 0);
        };
    }

    public Harm and(Harm other) {
        return new Harm(attacks || other.attacks, grave | other.grave, mild | other.mild);
    }

    public boolean isNone() {
        return !attacks && (grave | mild) == 0;
    }

    /** Skin, eyes or spines, however mildly. */
    public boolean bySkin() {
        return ((grave | mild) & SKIN) != 0;
    }

    boolean byBreathingGravely() {
        return (grave & BREATHING) != 0;
    }
}
