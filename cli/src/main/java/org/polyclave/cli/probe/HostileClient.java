package org.polyclave.cli.probe;

import java.io.IOException;
import java.io.OutputStream;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import javax.net.ssl.SSLSocketFactory;

/**
 * What somebody tries who means ill and has no account. Each trial says what was seen, so that a failure can be understood
 * without being repeated.
 */
public final class HostileClient {
    private static final Duration PATIENCE = Duration.ofSeconds(10);
    private static final long LARGE = 90_000_000;
    private static final int AT_ONCE = 12;
    private static final int GUESSES = 40;
    private static final int TOO_MANY_REQUESTS = 429;
    private static final int TOO_LARGE = 413;
    private static final int SLOWEST_ANSWER_MILLIS = 5_000;
    private static final int SERVER_ERROR = 500;

    private final URI address;
    private final int senders;
    private final HttpClient http =
            HttpClient.newBuilder().connectTimeout(PATIENCE).build();
    /** Cross-site request forgery is tried without it; everything else as the page of the installation would send it. */
    private String csrf = "";

    /** @param senders slow ones to be at once */
    public HostileClient(URI address, int senders) {
        this.address = address;
        this.senders = senders;
    }

    /** @param seen what happened */
    public record Finding(String what, boolean withstood, String seen) {}

    private record Outcome(boolean withstood, String seen) {}

    private interface Trial {
        Outcome run() throws IOException, InterruptedException;
    }

    /** Everything, the slowest and the one that closes the door to this address last. */
    public List<Finding> tryAll() throws InterruptedException {
        return List.of(
                tried("answers at all", this::greets),
                tried("headers that keep pages apart", this::headers),
                tried("a request forged by another site", this::forgery),
                tried(AT_ONCE + " large bodies that are announced", this::announced),
                tried("a large body that is not announced", this::chunked),
                tried("broken, missing and over-long fields", this::broken),
                tried("what only those may see who are signed in", this::closed),
                tried(senders + " slow senders", this::slow),
                tried(GUESSES + " guessed passwords", this::guesses));
    }

    private static Finding tried(String what, Trial trial) throws InterruptedException {
        try {
            Outcome outcome = trial.run();
            return new Finding(what, outcome.withstood(), outcome.seen());
        } catch (IOException failure) {
            return new Finding(what, false, "the connection broke: " + failure);
        }
    }

    private HttpRequest.Builder request(String path) {
        return HttpRequest.newBuilder(address.resolve(path)).timeout(PATIENCE);
    }

    private HttpRequest.Builder sending(String path) {
        return request(path)
                .header("Content-Type", "application/json")
                .header("X-XSRF-TOKEN", csrf)
                .header("Cookie", "XSRF-TOKEN=" + csrf);
    }

    private HttpResponse<String> post(String path, String body) throws IOException, InterruptedException {
        return http.send(sending(path).POST(BodyPublishers.ofString(body)).build(), BodyHandlers.ofString());
    }

    private HttpResponse<String> get(String path) throws IOException, InterruptedException {
        return http.send(request(path).GET().build(), BodyHandlers.ofString());
    }

    private Outcome greets() throws IOException, InterruptedException {
        HttpResponse<String> session = get("/api/v1/session");
        for (String cookie : session.headers().allValues("set-cookie")) {
            if (cookie.startsWith("XSRF-TOKEN=")) {
                csrf = cookie.substring("XSRF-TOKEN=".length()).split(";", 2)[0];
            }
        }
        return new Outcome(session.statusCode() == 200 && !csrf.isEmpty(), "answer " + session.statusCode());
    }

    private Outcome headers() throws IOException, InterruptedException {
        var headers = get("/sign-in").headers();
        List<String> missing = new ArrayList<>();
        boolean framed = headers.firstValue("content-security-policy")
                .filter(p -> p.contains("frame-ancestors 'none'") && !p.contains("unsafe-eval"))
                .isEmpty();
        if (framed) {
            missing.add("a content security policy");
        }
        if (headers.firstValue("x-content-type-options")
                .filter("nosniff"::equals)
                .isEmpty()) {
            missing.add("nosniff");
        }
        boolean secure = "https".equals(address.getScheme());
        if (secure && headers.firstValue("strict-transport-security").isEmpty()) {
            missing.add("strict transport security");
        }
        if (secure
                && get("/api/v1/session").headers().allValues("set-cookie").stream()
                        .anyMatch(c -> !c.contains("Secure"))) {
            missing.add("Secure on a cookie");
        }
        return new Outcome(
                missing.isEmpty(), missing.isEmpty() ? "all there" : "missing: " + String.join(", ", missing));
    }

    private Outcome forgery() throws IOException, InterruptedException {
        int status = http.send(
                        request("/api/v1/session")
                                .header("Content-Type", "application/json")
                                .POST(BodyPublishers.ofString("{\"name\":\"nobody\",\"password\":\"nothing\"}"))
                                .build(),
                        BodyHandlers.ofString())
                .statusCode();
        return new Outcome(status == 403, "answer " + status);
    }

    /** Twelve at once, of which not a byte is to be waited for. */
    private Outcome announced() throws IOException, InterruptedException {
        List<Socket> sockets = new ArrayList<>();
        int refused = 0;
        try {
            for (int i = 0; i < AT_ONCE; i++) {
                Socket socket = open();
                sockets.add(socket);
                write(socket, head("/api/v1/session", "Content-Length: " + LARGE));
            }
            for (Socket socket : sockets) {
                refused += status(socket).filter(s -> s == TOO_LARGE).isPresent() ? 1 : 0;
            }
        } finally {
            close(sockets);
        }
        return answersStill(refused == AT_ONCE, refused + " of " + AT_ONCE + " refused before they were read");
    }

    private Outcome chunked() throws IOException, InterruptedException {
        byte[] piece = new byte[8192];
        Arrays.fill(piece, (byte) 'x');
        // A beginning that is in order, so that nothing but its length can be wrong with it.
        byte[] start = "9\r\n{\"name\":\"\r\n".getBytes(StandardCharsets.US_ASCII);
        byte[] chunk = (Integer.toHexString(piece.length) + "\r\n").getBytes(StandardCharsets.US_ASCII);
        long sent = 0;
        Optional<Integer> status = Optional.empty();
        try (Socket socket = open()) {
            OutputStream out = socket.getOutputStream();
            out.write(head("/api/v1/session", "Transfer-Encoding: chunked"));
            out.write(start);
            try {
                while (sent < LARGE) {
                    out.write(chunk);
                    out.write(piece);
                    out.write("\r\n".getBytes(StandardCharsets.US_ASCII));
                    sent += piece.length;
                }
            } catch (IOException cutOff) {
                // That is what is hoped for; the answer may have been lost with it.
            }
            status = status(socket);
        } catch (IOException cutOff) {
            // Likewise.
        }
        boolean refused = sent < LARGE / 10;
        return answersStill(
                refused,
                "cut off after " + sent / 1000 + " kB"
                        + status.map(s -> ", answer " + s).orElse(""));
    }

    private Outcome broken() throws IOException, InterruptedException {
        String tooLong = "x".repeat(50_000);
        List<String> bodies = List.of(
                "{}",
                "{\"name\":null,\"password\":\"x\"}",
                "{\"name\":[],\"password\":{}}",
                "[",
                "",
                "{\"name\":\"" + tooLong + "\",\"password\":\"x\"}",
                "{\"name\":\"\\u0000\",\"password\":\"x\"}");
        List<Integer> statuses = new ArrayList<>();
        for (String body : bodies) {
            statuses.add(post("/api/v1/session", body).statusCode());
        }
        boolean named = post("/api/v1/session", "{}").body().contains("\"field\":\"name\"");
        boolean refused = statuses.stream().allMatch(s -> s >= 400 && s < SERVER_ERROR);
        return new Outcome(
                refused && named,
                "answers " + statuses + (named ? ", the missing field named" : ", the missing field not named"));
    }

    private Outcome closed() throws IOException, InterruptedException {
        List<String> open = new ArrayList<>();
        for (String path : List.of(
                "/api/v1/studies", "/api/v1/accounts", "/api/v1/tokens", "/api/v1/account/sessions", "/actuator/env")) {
            if (get(path).statusCode() == 200) {
                open.add(path);
            }
        }
        return new Outcome(open.isEmpty(), open.isEmpty() ? "refused" : "open to everybody: " + open);
    }

    /**
     * Half send bodies, half heads, a byte now and then. Readers are to be served all the while, and slow bodies cut off: they
     * hold a worker each, which a head that is not whole does not.
     */
    private Outcome slow() throws IOException, InterruptedException {
        List<Socket> bodies = new ArrayList<>();
        List<Socket> heads = new ArrayList<>();
        long slowest = 0;
        int cut = 0;
        try {
            byte[] head = head("/api/v1/session", "Content-Length: 40");
            for (int i = 0; i < senders; i++) {
                Socket socket = open();
                boolean body = i % 2 == 0;
                (body ? bodies : heads).add(socket);
                write(socket, body ? head : Arrays.copyOf(head, head.length - 4));
            }
            for (int second = 0; second < 30 && cut < bodies.size(); second++) {
                long before = System.nanoTime();
                int status = get("/api/v1/session").statusCode();
                slowest = Math.max(slowest, (System.nanoTime() - before) / 1_000_000);
                if (status != 200) {
                    return new Outcome(false, "readers got " + status);
                }
                heads.forEach(HostileClient::trickle);
                cut = (int) bodies.stream().filter(b -> !trickle(b)).count();
                Thread.sleep(1_000);
            }
        } finally {
            close(bodies);
            close(heads);
        }
        return new Outcome(
                slowest < SLOWEST_ANSWER_MILLIS && cut == bodies.size(),
                "readers waited " + slowest + " ms at most; " + cut + " of " + bodies.size()
                        + " slow bodies cut off within 30 s, beside " + heads.size() + " slow heads");
    }

    /** Whether one more byte could be sent: the first after a connection was closed still can. */
    private static boolean trickle(Socket socket) {
        try {
            if (socket.isClosed()) {
                return false;
            }
            socket.setSoTimeout(1);
            try {
                int read = socket.getInputStream().read();
                if (read < 0) {
                    socket.close();
                    return false;
                }
                // An answer to a request that never ended is a refusal.
                socket.close();
                return false;
            } catch (java.net.SocketTimeoutException nothingYet) {
                socket.getOutputStream().write('x');
                return true;
            }
        } catch (IOException cutOff) {
            return false;
        }
    }

    private Outcome guesses() throws IOException, InterruptedException {
        int looked = 0;
        int slowed = 0;
        for (int i = 0; i < GUESSES; i++) {
            int status = post("/api/v1/session", "{\"name\":\"probe.nobody\",\"password\":\"guess " + i + "\"}")
                    .statusCode();
            looked += status == 400 ? 1 : 0;
            slowed += status == TOO_MANY_REQUESTS ? 1 : 0;
        }
        return new Outcome(
                slowed > GUESSES / 2 && looked + slowed == GUESSES,
                looked + " were looked at, " + slowed + " told to wait");
    }

    private Outcome answersStill(boolean withstood, String seen) throws IOException, InterruptedException {
        long before = System.nanoTime();
        int status = get("/api/v1/session").statusCode();
        long millis = (System.nanoTime() - before) / 1_000_000;
        return new Outcome(
                withstood && status == 200 && millis < SLOWEST_ANSWER_MILLIS,
                seen + "; then a reader was answered " + status + " in " + millis + " ms");
    }

    private byte[] head(String path, String length) {
        return ("POST " + path + " HTTP/1.1\r\nHost: " + address.getAuthority()
                        + "\r\nContent-Type: application/json\r\nX-XSRF-TOKEN: " + csrf + "\r\nCookie: XSRF-TOKEN="
                        + csrf
                        + "\r\n" + length + "\r\n\r\n")
                .getBytes(StandardCharsets.US_ASCII);
    }

    private Socket open() throws IOException {
        boolean secure = "https".equals(address.getScheme());
        int port = address.getPort() > 0 ? address.getPort() : secure ? 443 : 80;
        Socket socket = secure ? SSLSocketFactory.getDefault().createSocket() : new Socket();
        socket.connect(new InetSocketAddress(address.getHost(), port), (int) PATIENCE.toMillis());
        socket.setSoTimeout((int) PATIENCE.toMillis());
        return socket;
    }

    private static void write(Socket socket, byte[] bytes) throws IOException {
        socket.getOutputStream().write(bytes);
        socket.getOutputStream().flush();
    }

    private static Optional<Integer> status(Socket socket) {
        try {
            byte[] line = socket.getInputStream().readNBytes("HTTP/1.1 200".length());
            String text = new String(line, StandardCharsets.US_ASCII);
            return text.matches("HTTP/1\\.1 \\d{3}")
                    ? Optional.of(Integer.parseInt(text.substring(9)))
                    : Optional.empty();
        } catch (IOException broken) {
            return Optional.empty();
        }
    }

    private static void close(List<Socket> sockets) {
        for (Socket socket : sockets) {
            try {
                socket.close();
            } catch (IOException already) {
                // It is closed either way.
            }
        }
    }
}
