package org.polyclave.server;

import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;

/** The web application. */
@SpringBootApplication
public class PolyclaveServer {
    public static void main(String[] args) {
        SpringApplication.run(PolyclaveServer.class, args);
    }
}
