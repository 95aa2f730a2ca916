package org.polyclave.study.model;

import org.polyclave.core.matrix.Hazard;

/** A known relative or double that the study does not score. */
public record OutsideTaxon(String name, String why, Hazard hazard) {}
