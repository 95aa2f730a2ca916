package org.polyclave.files.nexus;

import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;

/**
 * What a file announces of its characters, before its matrix is read: how many there are, over all blocks, and which sets of
 * them it names.
 *
 * @param sets by name, what each set holds, as the file writes it
 */
record NexusOutline(int characters, Map<String, String> sets) {
    /** Of a file that is broken, what stands before the place; reading it tells where that is. */
    static NexusOutline of(String text) {
        Outlining outlining = new Outlining(new NexusTokens(text));
        try {
            outlining.run();
        } catch (NexusTokens.Broken told) {
            // The reader meets the same, and says so.
        }
        return new NexusOutline(outlining.characters, outlining.sets);
    }

    private static final class Outlining {
        private final NexusTokens in;
        private final Map<String, String> sets = new LinkedHashMap<>();
        private int characters;

        Outlining(NexusTokens in) {
            this.in = in;
        }

        void run() {
            in.take("#NEXUS");
            while (in.skip()) {
                in.command();
                boolean matrix = in.peek()
                        .filter(b -> b.equalsIgnoreCase("CHARACTERS") || b.equalsIgnoreCase("DATA"))
                        .isPresent();
                in.skipCommand();
                block(matrix);
            }
        }

        private void block(boolean matrix) {
            for (String command = in.command(); !NexusReader.isEnd(command); command = in.command()) {
                if (matrix && command.equals("DIMENSIONS")) {
                    characters += Math.max(0, NexusReader.dimensions(in).getOrDefault("NCHAR", 0));
                } else if (command.equals("CHARSET")) {
                    set();
                } else if (!command.equals(";")) {
                    in.skipCommand();
                }
            }
            in.take(";");
        }

        private void set() {
            in.take("*");
            String name = in.need("a name");
            boolean vector = false;
            if (in.take("(")) {
                vector = in.need("a format").toUpperCase(Locale.ROOT).equals("VECTOR");
                in.take(")");
            }
            in.take("=");
            StringBuilder holds = new StringBuilder();
            for (String token = in.need("';'"); !token.equals(";"); token = in.need("';'")) {
                holds.append(NexusSelection.isName(token) ? NexusSelection.written(token) : token)
                        .append(' ');
            }
            if (!vector) {
                sets.put(name, holds.toString().strip());
            }
        }
    }
}
