package org.polyclave.study.model;

/** In what the sexes and stages of a taxon may differ. */
public enum Facet {
    SEX,
    LIFE_STAGE,
    /** Dress or season: breeding, in winter, in flower. */
    DRESS,
    CASTE,
    CANE_YEAR,
    /** Colour morphs, and whatever else people name. */
    MORPH
}
