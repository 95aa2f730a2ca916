package org.polyclave.server.importing;

import java.util.Map;
import java.util.Optional;
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

    /**
     * A file that was sent.
     *
     * @param lookedAt sheet of a workbook that was looked at last
     * @param signature the same for tables with the headings of that sheet; empty if none was looked at
     */
    public record UploadedFile(String name, byte[] bytes, String lookedAt, String signature) {
        /** Of a sheet, if it was the one that was looked at last: then it need not be opened for it again. */
        Optional<String> signatureOf(String sheet) {
            return signature.isEmpty() || !lookedAt.equals(sheet) ? Optional.empty() : Optional.of(signature);
        }
    }

    void noteSignature(UUID id, long account, String sheet, String signature) {
        uploads.noteSignature(id.toString(), account, sheet, signature);
    }

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
        return new UploadedFile(row.fileName(), row.bytes(), row.lookedAt(), row.signature());
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
