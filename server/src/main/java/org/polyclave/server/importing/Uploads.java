package org.polyclave.server.importing;

import java.util.Map;
import java.util.UUID;
import org.polyclave.server.account.Account;
import org.polyclave.server.importing.persistence.UploadMapper;
import org.polyclave.server.job.Retention;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.ErrorResponseException;

/**
 * Files that somebody is importing. A file is sent once and read as often as its owner decides something about it; it is kept
 * for a day after the last of that, and only the last few of an account are.
 */
@Component
public class Uploads implements Retention {
    private static final int MOST = 4;

    private final UploadMapper uploads;

    Uploads(UploadMapper uploads) {
        this.uploads = uploads;
    }

    /** A file that was sent. */
    public record UploadedFile(String name, byte[] bytes) {}

    @Transactional
    public UUID keep(Account who, String fileName, byte[] bytes) {
        UUID id = UUID.randomUUID();
        uploads.insert(id.toString(), who.id(), fileName, bytes);
        uploads.removeAllBut(who.id(), MOST);
        return id;
    }

    /** @throws ErrorResponseException if the account has no such file, or it is not kept any more */
    void need(UUID id, long account) {
        if (uploads.touch(id.toString(), account) == 0) {
            throw gone();
        }
    }

    /** @throws ErrorResponseException if the account has no such file, or it is not kept any more */
    UploadedFile find(UUID id, long account) {
        UploadMapper.UploadRow row = uploads.find(id.toString(), account).orElseThrow(Uploads::gone);
        return new UploadedFile(row.fileName(), row.bytes());
    }

    private static ErrorResponseException gone() {
        return Problems.unprocessable(
                ProblemCode.UPLOAD_GONE, "The file is no longer kept here. Choose it again.", Map.of());
    }

    @Override
    public void forget() {
        uploads.purge();
    }
}
