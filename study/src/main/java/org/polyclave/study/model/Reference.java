package org.polyclave.study.model;

import io.soabase.recordbuilder.core.RecordBuilder;

/**
 * Something that scores cite.
 *
 * @param citation as it is printed
 * @param doi digital object identifier, or empty
 */
@RecordBuilder
public record Reference(String id, String citation, String doi) implements ReferenceBuilder.With {}
