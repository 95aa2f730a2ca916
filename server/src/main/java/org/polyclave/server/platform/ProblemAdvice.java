package org.polyclave.server.platform;

import org.apache.catalina.connector.ClientAbortException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.multipart.MaxUploadSizeExceededException;
import org.springframework.web.servlet.mvc.method.annotation.ResponseEntityExceptionHandler;

/** Turns what was not foreseen into problem+json; the stack trace goes to the log only. */
@RestControllerAdvice
class ProblemAdvice extends ResponseEntityExceptionHandler {
    private static final Logger LOG = LoggerFactory.getLogger(ProblemAdvice.class);

    @ExceptionHandler(DuplicateKeyException.class)
    ProblemDetail raced(DuplicateKeyException raced) {
        ProblemDetail problem = ProblemDetail.forStatusAndDetail(
                HttpStatus.CONFLICT,
                "Somebody changed the same thing at the same moment. Load it again and repeat your change.");
        problem.setProperty("code", "raced");
        return problem;
    }

    @ExceptionHandler(IllegalArgumentException.class)
    ProblemDetail wrong(IllegalArgumentException wrong) {
        ProblemDetail problem = ProblemDetail.forStatusAndDetail(
                HttpStatus.BAD_REQUEST,
                wrong.getMessage() == null ? "The request cannot be read." : wrong.getMessage());
        problem.setProperty("code", "bad-request");
        return problem;
    }

    /** The reader has left; there is nobody to answer. */
    @ExceptionHandler(ClientAbortException.class)
    void gone(ClientAbortException left) {
        LOG.debug("A reader left before the answer", left);
    }

    @ExceptionHandler(Exception.class)
    ProblemDetail unforeseen(Exception failure) {
        LOG.error("Unforeseen failure", failure);
        ProblemDetail problem = ProblemDetail.forStatusAndDetail(
                HttpStatus.INTERNAL_SERVER_ERROR,
                "Polyclave failed at this. Nothing was changed. Try again; if it fails again, tell whoever runs this installation.");
        problem.setProperty("code", "failed");
        return problem;
    }

    @Override
    protected org.springframework.http.ResponseEntity<Object> handleMaxUploadSizeExceededException(
            MaxUploadSizeExceededException tooLarge,
            org.springframework.http.HttpHeaders headers,
            org.springframework.http.HttpStatusCode status,
            org.springframework.web.context.request.WebRequest request) {
        ProblemDetail problem = ProblemDetail.forStatusAndDetail(
                HttpStatus.CONTENT_TOO_LARGE, "The file is too large: tables up to 25 MB, study files up to 256 MB.");
        problem.setProperty("code", "too-large");
        return createResponseEntity(problem, headers, HttpStatus.CONTENT_TOO_LARGE, request);
    }
}
