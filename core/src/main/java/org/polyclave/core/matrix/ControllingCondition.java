package org.polyclave.core.matrix;

/**
 * One condition of {@code appliesWhen}: the character exists only where another character has one of some states.
 *
 * @param character index of the controlling character, which is categorical
 * @param states bit set of the states under which the dependent character applies
 */
public record ControllingCondition(int character, int states) {}
