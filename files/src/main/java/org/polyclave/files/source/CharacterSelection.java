package org.polyclave.files.source;

import java.util.List;

/**
 * The characters that a file holds, where not all of them need to be read.
 *
 * @param total characters of the file
 * @param read how many of them were read
 * @param sets sets of characters that the file names
 */
public record CharacterSelection(int total, int read, List<CharacterSet> sets) {
    public CharacterSelection {
        sets = List.copyOf(sets);
    }

    /**
     * @param name as it is written in a selection
     * @param characters how many it holds
     */
    public record CharacterSet(String name, int characters) {}
}
