package org.polyclave.cli;

/** What a command's exit code says. */
final class ExitCode {
    static final int DONE = 0;
    static final int NOT_PROVEN = 1;
    static final int UNREADABLE = 2;
    static final int CANNOT_BE_MET = 3;
    static final int USAGE = 64;
    static final int ENVIRONMENT = 70;

    private ExitCode() {}
}
