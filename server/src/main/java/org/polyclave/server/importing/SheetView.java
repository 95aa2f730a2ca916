package org.polyclave.server.importing;

import java.util.List;
import org.polyclave.files.table.SheetMapping;

/**
 * A table as it stands.
 *
 * @param rows its first rows
 * @param remembered whether the mapping is the one with which such a table was read before
 */
public record SheetView(List<List<String>> rows, SheetMapping mapping, boolean remembered) {}
