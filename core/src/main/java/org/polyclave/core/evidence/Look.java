package org.polyclave.core.evidence;

/** One independent observation: of another part of the same individual, or by another person. */
public record Look(Observation observation, Certainty certainty) {}
