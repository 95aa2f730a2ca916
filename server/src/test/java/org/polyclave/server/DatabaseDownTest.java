package org.polyclave.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.sql.SQLException;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import org.junit.jupiter.api.Test;
import org.springframework.context.ConfigurableApplicationContext;

/** An installation that loses its database says so, to people and to whoever watches over it, and comes back by itself. */
final class DatabaseDownTest {
    /** Stands between the application and its database, and can be cut. */
    private static final class Cable implements AutoCloseable {
        private final URI database;
        private final int port;
        private final List<Socket> ends = new CopyOnWriteArrayList<>();
        private ServerSocket plug;

        Cable(URI database) throws IOException {
            this.database = database;
            plug = new ServerSocket(0, 50, InetAddress.getLoopbackAddress());
            port = plug.getLocalPort();
            accept(plug);
        }

        private void accept(ServerSocket at) {
            daemon(() -> {
                while (true) {
                    Socket near = at.accept();
                    Socket far = new Socket(database.getHost(), database.getPort());
                    ends.add(near);
                    ends.add(far);
                    daemon(() -> near.getInputStream().transferTo(far.getOutputStream()));
                    daemon(() -> far.getInputStream().transferTo(near.getOutputStream()));
                }
            });
        }

        private interface Work {
            void run() throws IOException;
        }

        private static void daemon(Work work) {
            Thread thread = new Thread(() -> {
                try {
                    work.run();
                } catch (IOException cut) {
                    // That is what a cable is for here.
                }
            });
            thread.setDaemon(true);
            thread.start();
        }

        void cut() throws IOException {
            plug.close();
            for (Socket end : ends) {
                end.close();
            }
            ends.clear();
        }

        void mend() throws IOException {
            plug = new ServerSocket(port, 50, InetAddress.getLoopbackAddress());
            accept(plug);
        }

        @Override
        public void close() throws IOException {
            cut();
        }
    }

    @Test
    void itSaysSoAndComesBack() throws SQLException, IOException, InterruptedException {
        String url = RunningApplication.emptyDatabase(
                "polyclave_down_" + ProcessHandle.current().pid());
        URI database = URI.create(url.substring("jdbc:".length()));
        try (Cable cable = new Cable(database);
                ConfigurableApplicationContext application = RunningApplication.start(
                        "jdbc:postgresql://127.0.0.1:" + cable.port + database.getPath(), false)) {
            String base = RunningApplication.address(application);
            Visitor visitor = Visitor.signedInAt(base, "nobody", "a wrong password");
            assertThat(ready(base)).isEqualTo(200);

            cable.cut();
            Visitor.Answer refused =
                    visitor.post("/api/v1/session", "{\"name\":\"nobody\",\"password\":\"a wrong password\"}");
            assertThat(refused.status()).isEqualTo(503);
            assertThat(refused.json().path("code").asString()).isEqualTo("database");
            assertThat(refused.json().path("detail").asString()).contains("cannot reach its database");
            assertThat(ready(base)).isEqualTo(503);
            // By now there is no connection left to break.
            assertThat(visitor.post("/api/v1/session", "{\"name\":\"nobody\",\"password\":\"a wrong password\"}")
                            .status())
                    .isEqualTo(503);

            cable.mend();
            for (int looks = 0; looks < 30 && ready(base) != 200; looks++) {
                Thread.sleep(1_000);
            }
            Visitor.Answer again =
                    visitor.post("/api/v1/session", "{\"name\":\"nobody\",\"password\":\"a wrong password\"}");
            assertThat(again.json().path("code").asString())
                    .as("looked at again: no account is called so")
                    .isEqualTo("sign-in");
            assertThat(ready(base)).isEqualTo(200);
        }
    }

    private static int ready(String base) throws IOException, InterruptedException {
        return HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create(base + "/actuator/health/readiness"))
                                .build(),
                        HttpResponse.BodyHandlers.ofString())
                .statusCode();
    }
}
