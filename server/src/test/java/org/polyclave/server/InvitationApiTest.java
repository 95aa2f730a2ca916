package org.polyclave.server;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import tools.jackson.databind.JsonNode;

/** Accounts from invitation to their end: nobody ever knows a password that somebody else chose. */
@ExtendWith(RunningApplication.class)
class InvitationApiTest {
    private static final String PASSWORD = "a walk by the weir";
    private final Visitor warden = Visitor.signedIn("warden", "meadow-warden");

    private String invited(String name) {
        Visitor.Answer link = warden.post(
                "/api/v1/accounts/invitations",
                "{\"name\":\"%s\",\"displayName\":\"Somebody\",\"administrator\":false}".formatted(name));
        assertThat(link.status()).isEqualTo(200);
        return link.json().path("secret").asString();
    }

    private static Visitor.Answer use(String secret, String password) {
        return Visitor.anonymous()
                .post(
                        "/api/v1/account-links/use",
                        "{\"secret\":\"%s\",\"password\":\"%s\"}".formatted(secret, password));
    }

    private static int signIn(String name, String password) {
        return Visitor.anonymous()
                .post("/api/v1/session", "{\"name\":\"%s\",\"password\":\"%s\"}".formatted(name, password))
                .status();
    }

    private static boolean isSignedIn(Visitor visitor) {
        return visitor.get("/api/v1/session").json().path("account").isObject();
    }

    private Visitor member(String name) {
        use(invited(name), PASSWORD);
        return Visitor.signedIn(name, PASSWORD);
    }

    @Test
    void whoIsInvitedChoosesThePasswordOnce() {
        String secret = invited("acc.fern");
        assertThat(signIn("acc.fern", "anything at all")).isEqualTo(400);
        assertThat(Visitor.anonymous()
                        .post("/api/v1/account-links/look", "{\"secret\":\"%s\"}".formatted(secret))
                        .json()
                        .path("name")
                        .asString())
                .isEqualTo("acc.fern");
        assertThat(use(secret, "short").json().path("code").asString()).isEqualTo("password");
        assertThat(use(secret, "é".repeat(37)).json().path("code").asString())
                .as("what the encoder would cut off")
                .isEqualTo("password");
        assertThat(use(secret, PASSWORD).status()).isEqualTo(200);
        assertThat(signIn("acc.fern", PASSWORD)).isEqualTo(200);
        assertThat(use(secret, "another password").status()).as("once").isEqualTo(404);
        assertThat(use("x", PASSWORD).status()).isEqualTo(404);
    }

    @Test
    void aResetLinkReplacesTheOneBeforeAndEndsSessions() {
        Visitor member = member("acc.reed");
        String first = warden.post("/api/v1/accounts/acc.reed/reset", "{}")
                .json()
                .path("secret")
                .asString();
        String second = warden.post("/api/v1/accounts/acc.reed/reset", "{}")
                .json()
                .path("secret")
                .asString();
        assertThat(signIn("acc.reed", PASSWORD)).as("until it is used").isEqualTo(200);
        assertThat(use(first, "a new password").status()).isEqualTo(404);
        assertThat(use(second, "a new password").status()).isEqualTo(200);
        assertThat(isSignedIn(member)).isFalse();
        assertThat(signIn("acc.reed", PASSWORD)).isEqualTo(400);
        assertThat(signIn("acc.reed", "a new password")).isEqualTo(200);
        assertThat(warden.post("/api/v1/accounts/nobody/reset", "{}").status()).isEqualTo(404);
    }

    @Test
    void onesOwnPasswordChangesWithTheOldOneAndSignsOutElsewhere() {
        Visitor here = member("acc.sedge");
        Visitor elsewhere = Visitor.signedIn("acc.sedge", PASSWORD);
        String change = "{\"current\":\"%s\",\"password\":\"%s\"}";
        assertThat(here.put("/api/v1/account/password", change.formatted("wrong", "the mill at dusk"))
                        .status())
                .isEqualTo(400);
        assertThat(isSignedIn(elsewhere)).isTrue();
        JsonNode sessions = here.get("/api/v1/account/sessions").json();
        assertThat(sessions).hasSize(2);
        assertThat(sessions.findValuesAsString("here")).containsExactlyInAnyOrder("true", "false");
        assertThat(here.put("/api/v1/account/password", change.formatted(PASSWORD, "the mill at dusk"))
                        .status())
                .isEqualTo(200);
        assertThat(isSignedIn(elsewhere)).isFalse();
        assertThat(isSignedIn(here)).isTrue();
        assertThat(signIn("acc.sedge", PASSWORD)).isEqualTo(400);

        Visitor again = Visitor.signedIn("acc.sedge", "the mill at dusk");
        here.delete("/api/v1/account/sessions");
        assertThat(isSignedIn(again)).isFalse();
    }

    @Test
    void theNameThatOthersSeeIsOnesOwn() {
        Visitor member = member("acc.vole");
        assertThat(member.put("/api/v1/account/name", "{\"displayName\":\"Vole of the Bank\"}")
                        .status())
                .isEqualTo(200);
        assertThat(member.get("/api/v1/session")
                        .json()
                        .path("account")
                        .path("displayName")
                        .asString())
                .isEqualTo("Vole of the Bank");
        assertThat(member.put("/api/v1/account/name", "{\"displayName\":\"%s\"}".formatted("x".repeat(81)))
                        .status())
                .isEqualTo(400);
    }

    @Test
    void whoIsSwitchedOffIsOutAtOnceAndWhatTheyDidStays() {
        Visitor member = member("acc.otter");
        String token = member.post("/api/v1/tokens", "{\"name\":\"script\",\"scope\":\"READ\"}")
                .json()
                .path("secret")
                .asString();
        Visitor script = Visitor.withToken(token);
        assertThat(script.get("/api/v1/studies").status()).isEqualTo(200);
        assertThat(warden.put("/api/v1/accounts/acc.otter/active", "{\"active\":false}")
                        .status())
                .isEqualTo(200);
        assertThat(isSignedIn(member)).isFalse();
        assertThat(script.get("/api/v1/studies").status()).isEqualTo(401);
        assertThat(signIn("acc.otter", PASSWORD)).isEqualTo(400);
        warden.put("/api/v1/accounts/acc.otter/active", "{\"active\":true}");
        assertThat(signIn("acc.otter", PASSWORD)).isEqualTo(200);
        assertThat(warden.put("/api/v1/accounts/warden/active", "{\"active\":false}")
                        .json()
                        .path("code")
                        .asString())
                .as("somebody must administer")
                .isEqualTo("account-own");
    }

    @Test
    void aNameThatNothingCanHoldIsRefusedInWords() {
        Visitor.Answer refused =
                Visitor.anonymous().post("/api/v1/session", "{\"name\":\"\\u0000\",\"password\":\"x\"}");
        assertThat(refused.status()).isEqualTo(400);
        assertThat(refused.json().path("detail").asString()).contains("cannot be stored");
    }
}
