package org.polyclave.server;

import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Objects;
import org.junit.jupiter.api.extension.BeforeAllCallback;
import org.junit.jupiter.api.extension.ExtensionContext;
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

    private static String start() throws SQLException {
        String cluster = environment("POLYCLAVE_TEST_DB_URL");
        String user = environment("POLYCLAVE_DB_USER");
        String password = environment("POLYCLAVE_DB_PASSWORD");
        String database = "polyclave_test_" + ProcessHandle.current().pid();
        try (Connection admin = DriverManager.getConnection(cluster + "postgres", user, password);
                Statement statement = admin.createStatement()) {
            statement.execute("drop database if exists " + database + " with (force)");
            statement.execute("create database " + database);
        }
        databaseUrl = cluster + database;
        ConfigurableApplicationContext application = SpringApplication.run(
                PolyclaveServer.class,
                "--server.port=0",
                "--polyclave.demo=true",
                "--spring.datasource.url=" + databaseUrl,
                "--spring.datasource.username=" + user,
                "--spring.datasource.password=" + password);
        Runtime.getRuntime().addShutdownHook(new Thread(application::close));
        int port = Objects.requireNonNull(((WebServerApplicationContext) application).getWebServer())
                .getPort();
        return "http://127.0.0.1:" + port;
    }

    private static String environment(String name) {
        String value = System.getenv(name);
        if (value == null || value.isEmpty()) {
            throw new IllegalStateException(name + " is not set. Run the tests with ./polyclave test.");
        }
        return value;
    }
}
