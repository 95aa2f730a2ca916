package org.polyclave.server.store;

import java.util.Locale;

/**
 * Something in a study that is changed as a whole.
 *
 * @param id row of a cell, or the row or character itself; empty for what a study has only once
 * @param character character of a cell
 */
public record StudyObject(Kind kind, String id, String character) {
    /** What there is to change. */
    public enum Kind {
        CELL,
        ROW,
        CHARACTER,
        TERM,
        REFERENCE,
        CLAIM,
        PICTURE,
        OPINION,
        SPECIMEN,
        READING,
        SCOPE,
        OUTSIDE
    }

    public static final StudyObject SCOPE = new StudyObject(Kind.SCOPE, "", "");
    public static final StudyObject OUTSIDE = new StudyObject(Kind.OUTSIDE, "", "");

    public static StudyObject cell(String row, String character) {
        return new StudyObject(Kind.CELL, row, character);
    }

    public static StudyObject row(String id) {
        return new StudyObject(Kind.ROW, id, "");
    }

    public static StudyObject character(String id) {
        return new StudyObject(Kind.CHARACTER, id, "");
    }

    /** One of the small objects of a study. */
    public static StudyObject entry(Kind kind, String id) {
        return new StudyObject(kind, id, "");
    }

    /** Whether it is one of a study's small objects: terms, references, claims, pictures, opinions, specimens, readings. */
    public boolean isEntry() {
        return switch (kind) {
            case TERM, REFERENCE, CLAIM, PICTURE, OPINION, SPECIMEN, READING -> true;
            default -> false;
        };
    }

    /** Whether it changes nothing of what a study is about, but what is known of that: scores, accepted or not, and readings. */
    public boolean isData() {
        return kind == Kind.CELL || kind == Kind.OPINION || kind == Kind.READING;
    }

    /** The name under which revisions and changes are kept; identifiers are slugs and have no slash. */
    public String key() {
        return switch (kind) {
            case CELL -> "cell/" + id + "/" + character;
            case ROW -> "row/" + id;
            case CHARACTER -> "character/" + id;
            case TERM, REFERENCE, CLAIM, PICTURE, OPINION, SPECIMEN, READING ->
                kind.name().toLowerCase(Locale.ROOT) + "/" + id;
            case SCOPE -> "scope";
            case OUTSIDE -> "outside";
        };
    }

    public static StudyObject of(String key) {
        String[] parts = key.split("/", -1);
        return switch (parts[0]) {
            case "cell" -> cell(parts[1], parts[2]);
            case "row" -> row(parts[1]);
            case "character" -> character(parts[1]);
            case "term" -> entry(Kind.TERM, parts[1]);
            case "reference" -> entry(Kind.REFERENCE, parts[1]);
            case "claim" -> entry(Kind.CLAIM, parts[1]);
            case "picture" -> entry(Kind.PICTURE, parts[1]);
            case "opinion" -> entry(Kind.OPINION, parts[1]);
            case "specimen" -> entry(Kind.SPECIMEN, parts[1]);
            case "reading" -> entry(Kind.READING, parts[1]);
            case "scope" -> SCOPE;
            case "outside" -> OUTSIDE;
            default -> throw new IllegalArgumentException("No object is called " + key);
        };
    }

    /** The object as a sentence names it. */
    public String words() {
        return switch (kind) {
            case CELL -> id + " × " + character;
            case ROW -> "taxon " + id;
            case CHARACTER -> "character " + id;
            case TERM, REFERENCE, CLAIM, PICTURE, OPINION, SPECIMEN, READING ->
                kind.name().toLowerCase(Locale.ROOT) + " " + id;
            case SCOPE -> "the scope";
            case OUTSIDE -> "the taxa near but outside";
        };
    }
}
