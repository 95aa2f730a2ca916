package org.polyclave.server.platform;

import java.util.List;
import java.util.Map;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.web.ErrorResponseException;

/** What went wrong, as problem+json: a code for programs, one sentence for people, and no internals. */
public final class Problems {
    private Problems() {}

    /** There is no such thing, or none for this account; the two are not told apart. */
    public static ErrorResponseException notFound() {
        return of(
                HttpStatus.NOT_FOUND,
                ProblemCode.NOT_FOUND,
                "There is nothing here, or it is not shared with you.",
                Map.of());
    }

    /** Nobody knows who asks. */
    public static ErrorResponseException unauthorized(String sentence) {
        return of(HttpStatus.UNAUTHORIZED, ProblemCode.UNAUTHORIZED, sentence, Map.of());
    }

    public static ErrorResponseException forbidden(String sentence) {
        return of(HttpStatus.FORBIDDEN, ProblemCode.FORBIDDEN, sentence, Map.of());
    }

    public static ErrorResponseException badRequest(ProblemCode code, String sentence) {
        return of(HttpStatus.BAD_REQUEST, code, sentence, Map.of());
    }

    public static ErrorResponseException unprocessable(ProblemCode code, String sentence, Map<String, ?> details) {
        return of(HttpStatus.UNPROCESSABLE_CONTENT, code, sentence, details);
    }

    public static ErrorResponseException conflict(ProblemCode code, String sentence, Map<String, ?> details) {
        return of(HttpStatus.CONFLICT, code, sentence, details);
    }

    /** A field or parameter that a request must have. */
    public static ErrorResponseException missing(String field) {
        return of(
                HttpStatus.BAD_REQUEST,
                ProblemCode.MISSING,
                "The request needs the field '" + field + "'.",
                Map.of("field", field));
    }

    /** Too often, or too many at once. */
    public static ErrorResponseException tooMany(String what, long seconds) {
        ErrorResponseException problem = of(
                HttpStatus.TOO_MANY_REQUESTS,
                ProblemCode.TOO_MANY,
                what + " Try again in "
                        + (seconds == 1
                                ? "a second."
                                : seconds < 100 ? seconds + " seconds." : (seconds + 59) / 60 + " minutes."),
                Map.of("seconds", seconds));
        problem.getHeaders().set("Retry-After", String.valueOf(seconds));
        return problem;
    }

    /** @param most bytes that would be read */
    public static ErrorResponseException tooLarge(long most) {
        String limit = most >= 1024 * 1024 ? most / (1024 * 1024) + " MB" : most / 1024 + " kB";
        return of(
                HttpStatus.CONTENT_TOO_LARGE,
                ProblemCode.TOO_LARGE,
                "This is too large: at most " + limit + " are read here.",
                Map.of());
    }

    /** Not now, but soon. */
    public static ErrorResponseException unavailable(ProblemCode code, String sentence) {
        return of(HttpStatus.SERVICE_UNAVAILABLE, code, sentence, Map.of());
    }

    /** Several sentences, one for each problem found. */
    public static ErrorResponseException unreadable(List<String> problems) {
        return unprocessable(
                ProblemCode.UNREADABLE,
                problems.isEmpty() ? "The file cannot be read." : problems.get(0),
                Map.of("problems", problems));
    }

    static ErrorResponseException of(HttpStatus status, ProblemCode code, String sentence, Map<String, ?> details) {
        ProblemDetail problem = ProblemDetail.forStatusAndDetail(status, sentence);
        problem.setProperty("code", code.code());
        details.forEach(problem::setProperty);
        return new ErrorResponseException(status, problem, null);
    }
}
