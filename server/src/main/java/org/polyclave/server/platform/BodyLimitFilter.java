package org.polyclave.server.platform;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ReadListener;
import jakarta.servlet.ServletException;
import jakarta.servlet.ServletInputStream;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletRequestWrapper;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.concurrent.Semaphore;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import org.springframework.web.servlet.HandlerExceptionResolver;

/**
 * Limits bodies before they are read. Who is not signed in sends little (a name and a password, answers to a key), and not
 * slowly; few of them are read at once, so that readers are served whatever others send.
 */
@Component
public class BodyLimitFilter extends OncePerRequestFilter {
    /** Answers to a key with hundreds of characters take a tenth of it. */
    private static final long OF_ANYBODY = 64 * 1024L;

    private static final long OF_ACCOUNTS = 32 * 1024 * 1024L;
    /** Of files; each kind has a limit of its own. */
    private static final long OF_FILES = 257 * 1024 * 1024L;

    private static final long NANOS_OF_ANYBODY = 20_000_000_000L;
    private static final int AT_ONCE = 40;

    private final Semaphore ofAnybody = new Semaphore(AT_ONCE);
    private final HandlerExceptionResolver handlerExceptionResolver;

    BodyLimitFilter(HandlerExceptionResolver handlerExceptionResolver) {
        this.handlerExceptionResolver = handlerExceptionResolver;
    }

    /** A body went on where its limit was, or took too long. */
    static final class BodyRefused extends IOException {
        private static final long serialVersionUID = 1;

        private final boolean slow;

        BodyRefused(boolean slow) {
            super(slow ? "The body came too slowly" : "The body is too large");
            this.slow = slow;
        }

        boolean isSlow() {
            return slow;
        }
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        long announced = request.getContentLengthLong();
        boolean hasBody = announced > 0 || request.getHeader("Transfer-Encoding") != null;
        if (!hasBody) {
            chain.doFilter(request, response);
            return;
        }
        boolean known = isKnown();
        long most = !known ? OF_ANYBODY : isForm(request) ? OF_FILES : OF_ACCOUNTS;
        if (announced > most) {
            refuse(request, response, Problems.tooLarge(most));
        } else if (known) {
            chain.doFilter(new Limited(request, most, Long.MAX_VALUE), response);
        } else if (ofAnybody.tryAcquire()) {
            try {
                chain.doFilter(new Limited(request, most, System.nanoTime() + NANOS_OF_ANYBODY), response);
            } finally {
                ofAnybody.release();
            }
        } else {
            refuse(request, response, Problems.tooMany("Too many are sending at once.", 5));
        }
    }

    private void refuse(HttpServletRequest request, HttpServletResponse response, Exception problem) {
        // What was not read is not read any more: the connection ends with the answer.
        response.setHeader("Connection", "close");
        handlerExceptionResolver.resolveException(request, response, null, problem);
    }

    private static boolean isKnown() {
        Authentication who = SecurityContextHolder.getContext().getAuthentication();
        return who != null && who.isAuthenticated();
    }

    private static boolean isForm(HttpServletRequest request) {
        String type = request.getContentType();
        return type != null && type.startsWith("multipart/form-data");
    }

    private static final class Limited extends HttpServletRequestWrapper {
        private final long most;
        private final long until;
        private @Nullable ServletInputStream body;

        Limited(HttpServletRequest request, long most, long until) {
            super(request);
            this.most = most;
            this.until = until;
        }

        @Override
        public ServletInputStream getInputStream() throws IOException {
            ServletInputStream opened = body;
            if (opened == null) {
                opened = new Counted(super.getInputStream(), most, until);
                body = opened;
            }
            return opened;
        }
    }

    private static final class Counted extends ServletInputStream {
        private final ServletInputStream body;
        private final long until;
        private long left;

        Counted(ServletInputStream body, long most, long until) {
            this.body = body;
            this.until = until;
            left = most;
        }

        private int counted(int read) throws IOException {
            left -= Math.max(0, read);
            if (left < 0) {
                throw new BodyRefused(false);
            }
            if (until != Long.MAX_VALUE && System.nanoTime() - until > 0) {
                throw new BodyRefused(true);
            }
            return read;
        }

        @Override
        public int read() throws IOException {
            int read = body.read();
            counted(read < 0 ? 0 : 1);
            return read;
        }

        @Override
        public int read(byte[] into, int from, int length) throws IOException {
            return counted(body.read(into, from, length));
        }

        @Override
        public boolean isFinished() {
            return body.isFinished();
        }

        @Override
        public boolean isReady() {
            return body.isReady();
        }

        @Override
        public void setReadListener(ReadListener listener) {
            body.setReadListener(listener);
        }
    }
}
