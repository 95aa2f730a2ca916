package org.polyclave.server;

import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.extension.BeforeAllCallback;
import org.junit.jupiter.api.extension.ExtensionContext;
import org.polyclave.server.job.Retention;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.web.server.context.WebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;

/**
 * The real application, started once for all tests of a run on a database of its own; tests talk HTTP to it. It is the
 * demo installation, so that its people can sign in.
 */
public final class RunningApplication implements BeforeAllCallback {
    private static String base = "";
    private static String databaseUrl = "";

    @Nullable
    private static ConfigurableApplicationContext running;

    @Override
    public void beforeAll(ExtensionContext context) throws SQLException {
        synchronized (RunningApplication.class) {
            if (base.isEmpty()) {
                base = start();
            }
        }
    }

    /** Address of the application, without a slash at the end. */
    public static String base() {
        return base;
    }

    /** A connection to the application's database, beside the application. */
    public static Connection database() throws SQLException {
        return DriverManager.getConnection(
                databaseUrl, environment("POLYCLAVE_DB_USER"), environment("POLYCLAVE_DB_PASSWORD"));
    }

    /** What the application does every few hours. */
    static void forget() {
        Objects.requireNonNull(running).getBeansOfType(Retention.class).values().forEach(Retention::forget);
    }

    private static String start() throws SQLException {
        databaseUrl = demoDatabase("polyclave_test_" + ProcessHandle.current().pid());
        ConfigurableApplicationContext application = start(databaseUrl, true);
        running = application;
        Runtime.getRuntime().addShutdownHook(new Thread(application::close));
        return address(application);
    }

    /** Another application, on a database of its own; whoever starts it closes it. */
    static ConfigurableApplicationContext start(String url, boolean demo) {
        return SpringApplication.run(
                PolyclaveServer.class,
                "--server.port=0",
                "--polyclave.demo=" + demo,
                "--spring.datasource.url=" + url,
                "--spring.datasource.username=" + environment("POLYCLAVE_DB_USER"),
                "--spring.datasource.password=" + environment("POLYCLAVE_DB_PASSWORD"));
    }

    static String address(ConfigurableApplicationContext application) {
        int port = Objects.requireNonNull(((WebServerApplicationContext) application).getWebServer())
                .getPort();
        return "http://127.0.0.1:" + port;
    }

    /**
     * A database for the demo installation. The processes of one run of all tests fill it once, and copy it: to make the keys of the demo
     * takes longer than to start.
     */
    private static String demoDatabase(String name) throws SQLException {
        String run = System.getenv("POLYCLAVE_TEST_RUN");
        if (run == null || run.isEmpty()) {
            return emptyDatabase(name);
        }
        String filled = "polyclave_demo_" + run;
        try (Connection admin = administrator();
                Statement statement = admin.createStatement()) {
            // Held until this connection ends: the others wait for what the first one makes.
            statement.execute("select pg_advisory_lock("
                    + RunningApplication.class.getName().hashCode() + ")");
            if (!exists(statement, filled)) {
                start(emptyDatabase(filled), true).close();
            }
            return databaseLike(name, filled);
        }
    }

    private static boolean exists(Statement statement, String database) throws SQLException {
        try (ResultSet found = statement.executeQuery("select 1 from pg_database where datname = '" + database + "'")) {
            return found.next();
        }
    }

    /** An empty database in the cluster of the tests; returns its address. */
    static String emptyDatabase(String name) throws SQLException {
        return databaseLike(name, "template1");
    }

    private static String databaseLike(String name, String template) throws SQLException {
        try (Connection admin = administrator();
                Statement statement = admin.createStatement()) {
            statement.execute("drop database if exists " + name + " with (force)");
            statement.execute("create database " + name + " template " + template);
        }
        return environment("POLYCLAVE_TEST_DB_URL") + name;
    }

    private static Connection administrator() throws SQLException {
        return DriverManager.getConnection(
                environment("POLYCLAVE_TEST_DB_URL") + "postgres",
                environment("POLYCLAVE_DB_USER"),
                environment("POLYCLAVE_DB_PASSWORD"));
    }

    static String environment(String name) {
        String value = System.getenv(name);
        if (value == null || value.isEmpty()) {
            throw new IllegalStateException(name + " is not set. Run the tests with ./polyclave test.");
        }
        return value;
    }
}
