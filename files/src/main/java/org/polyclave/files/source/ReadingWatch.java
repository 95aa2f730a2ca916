package org.polyclave.files.source;

import java.util.concurrent.CancellationException;
import org.polyclave.core.run.CancelSignal;
import org.polyclave.core.run.Progress;

/**
 * Goes along with the reading of a large file: told how far it is, and able to stop it. A reader says {@link #at} between lines
 * or columns, never within a cell.
 */
public final class ReadingWatch {
    /** Nobody waits, and nobody cancels. */
    public static final ReadingWatch NONE = new ReadingWatch(CancelSignal.NEVER, Progress.UNSEEN);

    private final CancelSignal cancel;
    private final Progress progress;
    private final double from;
    private final double to;

    public ReadingWatch(CancelSignal cancel, Progress progress) {
        this(cancel, progress, 0, 1);
    }

    private ReadingWatch(CancelSignal cancel, Progress progress, double from, double to) {
        this.cancel = cancel;
        this.progress = progress;
        this.from = from;
        this.to = to;
    }

    /** The watch of a step that is the part from {@code from} to {@code to} of this one's. */
    public ReadingWatch part(double from, double to) {
        double all = this.to - this.from;
        return new ReadingWatch(cancel, progress, this.from + all * from, this.from + all * to);
    }

    /**
     * So much is done.
     *
     * @throws CancellationException if nobody wants the rest
     */
    public void at(long done, long all) {
        progress.report(from + (to - from) * Math.min(1, done / (double) Math.max(1, all)));
        if (cancel.isCancelled()) {
            throw new CancellationException("Reading was cancelled");
        }
    }
}
