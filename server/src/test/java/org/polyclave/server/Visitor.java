package org.polyclave.server;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.net.CookieManager;
import java.net.HttpCookie;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** Somebody with a browser's cookies who talks to the running application. */
public final class Visitor {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private String base = RunningApplication.base();
    private final CookieManager cookies = new CookieManager();
    private String token = "";
    private final HttpClient http =
            HttpClient.newBuilder().cookieHandler(cookies).build();

    /** An answer of the server. */
    public record Answer(int status, String body, HttpResponse<String> response) {
        public JsonNode json() {
            return JSON.readTree(body);
        }
    }

    public static Visitor anonymous() {
        Visitor visitor = new Visitor();
        visitor.get("/api/v1/session");
        return visitor;
    }

    public static Visitor signedIn(String name, String password) {
        Visitor visitor = anonymous();
        Answer answer =
                visitor.post("/api/v1/session", "{\"name\":\"" + name + "\",\"password\":\"" + password + "\"}");
        if (answer.status() != 200) {
            throw new IllegalStateException("Signing in failed: " + answer.body());
        }
        return visitor;
    }

    /** Somebody who signs in at another application. */
    static Visitor signedInAt(String base, String name, String password) {
        Visitor visitor = new Visitor();
        visitor.base = base;
        visitor.get("/api/v1/session");
        visitor.post("/api/v1/session", "{\"name\":\"" + name + "\",\"password\":\"" + password + "\"}");
        return visitor;
    }

    /** A script that brings a token and no cookie. */
    public static Visitor withToken(String secret) {
        return new Visitor().bearing(secret);
    }

    /** The same visitor, bringing a token as well. */
    public Visitor bearing(String secret) {
        Visitor bearer = new Visitor();
        cookies.getCookieStore()
                .getCookies()
                .forEach(c -> bearer.cookies.getCookieStore().add(URI.create(RunningApplication.base()), c));
        bearer.token = secret;
        return bearer;
    }

    public static Visitor author() {
        return signedIn("isolde", "meadow-author");
    }

    public static Visitor scorer() {
        return signedIn("oswin", "meadow-scorer");
    }

    public static Visitor reader() {
        return signedIn("petra", "meadow-reader");
    }

    public Answer get(String path) {
        return send(request(path).GET());
    }

    public Answer get(String path, String header, String value) {
        return send(request(path).header(header, value).GET());
    }

    /** Data of the first event that a stream sends; the stream is closed then. */
    public String firstEvent(String path) {
        try {
            HttpResponse<Stream<String>> response =
                    http.send(request(path).GET().build(), BodyHandlers.ofLines());
            try (Stream<String> lines = response.body()) {
                return lines.filter(l -> l.startsWith("data:"))
                        .findFirst()
                        .orElseThrow()
                        .substring(5);
            }
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        } catch (InterruptedException interrupted) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(interrupted);
        }
    }

    /** What went wrong with a request, or that nothing did; reads no stream to its end. */
    public record Outcome(int status, String code, String field) {}

    /** @param form whether the operation takes a form; it is sent without any field */
    public Outcome touch(String method, String path, String json, boolean form) {
        String boundary = "------------------------polyclave";
        HttpRequest.Builder builder = request(path)
                .header("Content-Type", form ? "multipart/form-data; boundary=" + boundary : "application/json")
                .method(
                        method,
                        method.equals("GET")
                                ? BodyPublishers.noBody()
                                : BodyPublishers.ofString(form ? "--" + boundary + "--\r\n" : json));
        try {
            HttpResponse<InputStream> response = http.send(builder.build(), BodyHandlers.ofInputStream());
            try (InputStream answer = response.body()) {
                if (response.statusCode() < 400) {
                    return new Outcome(response.statusCode(), "", "");
                }
                JsonNode problem = JSON.readTree(answer.readAllBytes());
                return new Outcome(
                        response.statusCode(),
                        problem.path("code").asString(""),
                        problem.path("field").asString(""));
            }
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        } catch (InterruptedException interrupted) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(interrupted);
        }
    }

    public Answer post(String path, String json) {
        return send(request(path).header("Content-Type", "application/json").POST(BodyPublishers.ofString(json)));
    }

    public Answer put(String path, String json) {
        return send(request(path).header("Content-Type", "application/json").PUT(BodyPublishers.ofString(json)));
    }

    public Answer delete(String path) {
        return send(request(path).DELETE());
    }

    /** Uploads a file as a form does. */
    public Answer upload(String path, String fileName, String content) {
        return upload(path, fileName, content.getBytes(StandardCharsets.UTF_8), Map.of());
    }

    public Answer upload(String path, String fileName, byte[] content, Map<String, String> fields) {
        String boundary = "------------------------polyclave";
        StringBuilder form = new StringBuilder();
        fields.forEach((name, value) -> form.append("--" + boundary + "\r\nContent-Disposition: form-data; name=\""
                + name + "\"\r\n\r\n" + value + "\r\n"));
        form.append("--" + boundary + "\r\nContent-Disposition: form-data; name=\"file\"; filename=\"" + fileName
                + "\"\r\nContent-Type: application/octet-stream\r\n\r\n");
        byte[] end = ("\r\n--" + boundary + "--\r\n").getBytes(StandardCharsets.UTF_8);
        return send(request(path)
                .header("Content-Type", "multipart/form-data; boundary=" + boundary)
                .POST(BodyPublishers.ofByteArrays(
                        List.of(form.toString().getBytes(StandardCharsets.UTF_8), content, end))));
    }

    /** What a cell of a study shows, with {@code from}: the id of the row it is inherited from, or null. */
    public ObjectNode cell(String study, String row, String character) {
        JsonNode column = get(study + "/columns?character=" + character).json().path(0);
        List<String> rows = new ArrayList<>();
        get(study).json().path("rows").forEach(r -> rows.add(r.path("id").asString()));
        int at = rows.indexOf(row);
        int face = column.path("face").path(at).asInt(-1);
        ObjectNode cell = face < 0
                ? JSON.createObjectNode().put("text", "")
                : (ObjectNode) column.path("faces").path(face).deepCopy();
        int from = column.path("from").path(at).asInt(-1);
        return cell.put("from", from < 0 ? null : rows.get(from))
                .put("revision", column.path("revision").path(at).asLong());
    }

    /** Imports a table as a new study and returns its slug. */
    public String importTable(String title, String table) {
        return Importing.of(this, title + ".csv", table).titled(title).create();
    }

    private HttpRequest.Builder request(String path) {
        HttpRequest.Builder builder = HttpRequest.newBuilder(URI.create(base + path));
        if (!token.isEmpty()) {
            builder.header("Authorization", "Bearer " + token);
        }
        for (HttpCookie cookie : cookies.getCookieStore().getCookies()) {
            if (cookie.getName().equals("XSRF-TOKEN")) {
                builder.header("X-XSRF-TOKEN", cookie.getValue());
            }
        }
        return builder;
    }

    private Answer send(HttpRequest.Builder builder) {
        try {
            HttpResponse<String> response = http.send(builder.build(), BodyHandlers.ofString());
            return new Answer(response.statusCode(), response.body(), response);
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        } catch (InterruptedException interrupted) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(interrupted);
        }
    }
}
