package org.polyclave.study.model;

/**
 * Something that scores cite.
 *
 * @param citation as it is printed
 * @param doi digital object identifier, or empty
 */
public record Reference(String id, String citation, String doi) {
    public Reference withId(String newId) {
        return new Reference(newId, citation, doi);
    }
}
