package org.polyclave.server.account;

import java.util.List;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/** The invented people of the demo; offered for signing in by one click in demo mode only. */
@Component
public class DemoAccounts {
    /** @param role what the person does in the demo study */
    public record DemoAccount(String name, String displayName, String password, String role) {}

    private static final List<DemoAccount> PEOPLE = List.of(
            new DemoAccount("isolde", "Isolde Quillane", "meadow-author", "author"),
            new DemoAccount("oswin", "Oswin Brandreth", "meadow-scorer", "second scorer"),
            new DemoAccount("petra", "Petra Fenwright", "meadow-reader", "reader"),
            new DemoAccount("lark", "Lark Harrow", "meadow-learner", "learner"),
            new DemoAccount("warden", "Warden of Marrowmere", "meadow-warden", "administrator"));

    private final boolean demo;

    DemoAccounts(@Value("${polyclave.demo}") boolean demo) {
        this.demo = demo;
    }

    /** Empty unless the installation is a demo. */
    public List<DemoAccount> offered() {
        return demo ? PEOPLE : List.of();
    }
}
