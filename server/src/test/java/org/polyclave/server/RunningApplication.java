package org.polyclave.server;

import java.sql.Connection;
import java.sql.DriverManager;
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
        databaseUrl = emptyDatabase("polyclave_test_" + ProcessHandle.current().pid());
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

    /** An empty database in the cluster of the tests; returns its address. */
    static String emptyDatabase(String name) throws SQLException {
        String cluster = environment("POLYCLAVE_TEST_DB_URL");
        try (Connection admin = DriverManager.getConnection(
                        cluster + "postgres", environment("POLYCLAVE_DB_USER"), environment("POLYCLAVE_DB_PASSWORD"));
                Statement statement = admin.createStatement()) {
            statement.execute("drop database if exists " + name + " with (force)");
            statement.execute("create database " + name);
        }
        return cluster + name;
    }

    static String environment(String name) {
        String value = System.getenv(name);
        if (value == null || value.isEmpty()) {
            throw new IllegalStateException(name + " is not set. Run the tests with ./polyclave test.");
        }
        return value;
    }
}
