package org.polyclave.server.platform;

import java.sql.SQLException;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.apache.catalina.connector.ClientAbortException;
import org.jspecify.annotations.Nullable;
import org.mybatis.spring.MyBatisSystemException;
import org.polyclave.study.rules.InvalidInput;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.TypeMismatchException;
import org.springframework.dao.DataAccessResourceFailureException;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.HttpStatusCode;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.jdbc.CannotGetJdbcConnectionException;
import org.springframework.transaction.CannotCreateTransactionException;
import org.springframework.validation.FieldError;
import org.springframework.web.ErrorResponseException;
import org.springframework.web.bind.MethodArgumentNotValidException;
import org.springframework.web.bind.MissingServletRequestParameterException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.context.request.WebRequest;
import org.springframework.web.method.annotation.HandlerMethodValidationException;
import org.springframework.web.multipart.MaxUploadSizeExceededException;
import org.springframework.web.servlet.mvc.method.annotation.ResponseEntityExceptionHandler;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.DatabindException;

/**
 * Turns exceptions into problem+json. Only what is thrown to be told becomes a 4xx; anything else is a fault of ours: it is
 * logged, and the answer says that it failed.
 */
@RestControllerAdvice
class ProblemAdvice extends ResponseEntityExceptionHandler {
    private static final Logger LOG = LoggerFactory.getLogger(ProblemAdvice.class);
    /** Class of SQLSTATE for values that are not such as their type has (ISO/IEC 9075). */
    private static final String DATA_EXCEPTION = "22";

    private static final String UNREACHABLE =
            "Polyclave cannot reach its database just now, so nothing was read or changed. Try again in a minute; if it stays"
                    + " so, tell whoever runs this installation.";

    @ExceptionHandler(DuplicateKeyException.class)
    ProblemDetail raced(DuplicateKeyException raced) {
        return problem(
                HttpStatus.CONFLICT,
                ProblemCode.RACED,
                "Somebody changed the same thing at the same moment. Reload, and repeat your change.");
    }

    /** The database refuses what no text can hold, a NUL for example; whoever sent it is to be told, not to be told that we failed. */
    @ExceptionHandler(DataIntegrityViolationException.class)
    ProblemDetail unstorable(DataIntegrityViolationException refused) {
        boolean data = refused.getMostSpecificCause() instanceof SQLException sql
                && String.valueOf(sql.getSQLState()).startsWith(DATA_EXCEPTION);
        return data
                ? problem(
                        HttpStatus.BAD_REQUEST,
                        ProblemCode.BAD_REQUEST,
                        "What was sent holds a character, or a number, that cannot be stored. Remove it, and send it again.")
                : unforeseen(refused);
    }

    /** Also from within the filters of sessions and security. */
    @ExceptionHandler({DataAccessResourceFailureException.class, CannotCreateTransactionException.class})
    ProblemDetail unreachable(Exception down) {
        LOG.error("The database cannot be reached", down);
        return problem(HttpStatus.SERVICE_UNAVAILABLE, ProblemCode.DATABASE, UNREACHABLE);
    }

    /** What a mapper met: no connection at all comes wrapped. */
    @ExceptionHandler(MyBatisSystemException.class)
    ProblemDetail unmapped(MyBatisSystemException failure) {
        for (Throwable cause = failure; cause != null; cause = cause.getCause()) {
            if (cause instanceof CannotGetJdbcConnectionException) {
                return unreachable(failure);
            }
        }
        return unforeseen(failure);
    }

    @ExceptionHandler(InvalidInput.class)
    ProblemDetail invalid(InvalidInput invalid) {
        return problem(HttpStatus.BAD_REQUEST, ProblemCode.BAD_REQUEST, sentence(invalid));
    }

    /** The reader has left; there is nobody to answer. */
    @ExceptionHandler(ClientAbortException.class)
    void gone(ClientAbortException left) {
        LOG.debug("A reader left before the answer", left);
    }

    @ExceptionHandler(Exception.class)
    ProblemDetail unforeseen(Exception failure) {
        LOG.error("Unforeseen failure", failure);
        return problem(
                HttpStatus.INTERNAL_SERVER_ERROR,
                ProblemCode.FAILED,
                "Polyclave failed at this, and nothing was changed. Try again; if it fails again, tell whoever runs this installation.");
    }

    @Override
    protected ResponseEntity<Object> handleMaxUploadSizeExceededException(
            MaxUploadSizeExceededException tooLarge, HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        return answer(
                problem(
                        HttpStatus.CONTENT_TOO_LARGE,
                        ProblemCode.TOO_LARGE,
                        "The file is too large: tables up to 25 MB, study files up to 256 MB."),
                headers,
                request);
    }

    /** A body that cannot be read says where; what a constructor refused says why. */
    @Override
    protected @Nullable ResponseEntity<Object> handleHttpMessageNotReadable(
            HttpMessageNotReadableException unreadable,
            HttpHeaders headers,
            HttpStatusCode status,
            WebRequest request) {
        for (Throwable cause = unreadable; cause != null; cause = cause.getCause()) {
            if (cause instanceof ErrorResponseException deliberate) {
                return answer(deliberate.getBody(), headers, request);
            }
            if (cause instanceof BodyLimitFilter.BodyRefused refused) {
                return answer(refused(refused), headers, request);
            }
            if (cause instanceof InvalidInput invalid) {
                return answer(invalid(invalid), headers, request);
            }
        }
        Optional<String> field =
                unreadable.getCause() instanceof JacksonException json ? field(json) : Optional.empty();
        ProblemDetail problem = problem(
                HttpStatus.BAD_REQUEST,
                ProblemCode.BAD_REQUEST,
                field.map(f -> "The field '" + f + "' of the request cannot be read. Send it as the API describes it.")
                        .orElse("The request has no body that can be read as JSON."));
        field.ifPresent(f -> problem.setProperty("field", f));
        return answer(problem, headers, request);
    }

    private static ProblemDetail refused(BodyLimitFilter.BodyRefused refused) {
        return refused.isSlow()
                ? problem(
                        HttpStatus.REQUEST_TIMEOUT,
                        ProblemCode.TOO_SLOW,
                        "What you sent came too slowly. Check the connection, and send it again.")
                : problem(
                        HttpStatus.CONTENT_TOO_LARGE,
                        ProblemCode.TOO_LARGE,
                        "This is too large to be read here. Send it in parts.");
    }

    private static Optional<String> field(JacksonException unreadable) {
        if (!(unreadable instanceof DatabindException) || unreadable.getPath().isEmpty()) {
            return Optional.empty();
        }
        StringBuilder path = new StringBuilder();
        for (JacksonException.Reference step : unreadable.getPath()) {
            if (step.getPropertyName() != null) {
                path.append(path.isEmpty() ? "" : ".").append(step.getPropertyName());
            } else {
                path.append('[').append(step.getIndex()).append(']');
            }
        }
        return Optional.of(path.toString());
    }

    @Override
    protected @Nullable ResponseEntity<Object> handleMethodArgumentNotValid(
            MethodArgumentNotValidException invalid, HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        List<FieldError> errors = invalid.getBindingResult().getFieldErrors();
        return errors.isEmpty()
                ? super.handleMethodArgumentNotValid(invalid, headers, status, request)
                : answer(
                        ofField(
                                errors.get(0).getField(),
                                String.valueOf(errors.get(0).getDefaultMessage())),
                        headers,
                        request);
    }

    @Override
    protected @Nullable ResponseEntity<Object> handleHandlerMethodValidationException(
            HandlerMethodValidationException invalid, HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        return invalid.getParameterValidationResults().stream()
                .findFirst()
                .map(r -> answer(
                        ofField(
                                String.valueOf(r.getMethodParameter().getParameterName()),
                                String.valueOf(r.getResolvableErrors().get(0).getDefaultMessage())),
                        headers,
                        request))
                .orElseGet(() -> super.handleHandlerMethodValidationException(invalid, headers, status, request));
    }

    @Override
    protected @Nullable ResponseEntity<Object> handleMissingServletRequestParameter(
            MissingServletRequestParameterException missing,
            HttpHeaders headers,
            HttpStatusCode status,
            WebRequest request) {
        return answer(Problems.missing(missing.getParameterName()).getBody(), headers, request);
    }

    @Override
    protected @Nullable ResponseEntity<Object> handleTypeMismatch(
            TypeMismatchException mismatch, HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        String name = mismatch.getPropertyName() == null ? "" : mismatch.getPropertyName();
        return answer(ofField(name, "cannot be read"), headers, request);
    }

    private static ProblemDetail ofField(String field, String what) {
        ProblemDetail problem = problem(
                HttpStatus.BAD_REQUEST,
                ProblemCode.BAD_REQUEST,
                "The field '" + field + "' of the request " + what + ".");
        problem.setProperty("field", field);
        return problem;
    }

    private static String sentence(Exception told) {
        return told.getMessage() == null ? "The request cannot be read." : told.getMessage();
    }

    private static ProblemDetail problem(HttpStatus status, ProblemCode code, String sentence) {
        return Problems.of(status, code, sentence, Map.of()).getBody();
    }

    private ResponseEntity<Object> answer(ProblemDetail problem, HttpHeaders headers, WebRequest request) {
        return createResponseEntity(problem, headers, HttpStatusCode.valueOf(problem.getStatus()), request);
    }
}
