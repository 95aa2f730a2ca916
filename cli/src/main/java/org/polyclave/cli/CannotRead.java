package org.polyclave.cli;

import java.util.List;

/** A file cannot be read; every problem is a sentence with its place. */
final class CannotRead extends RuntimeException {
    private static final long serialVersionUID = 1;

    private final transient List<String> problems;

    CannotRead(List<String> problems) {
        super(String.join("\n", problems));
        this.problems = List.copyOf(problems);
    }

    List<String> problems() {
        return problems;
    }
}
