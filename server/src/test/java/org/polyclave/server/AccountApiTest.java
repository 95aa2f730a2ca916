package org.polyclave.server;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;

/** Accounts: made by administrators, used by their owners, told nothing that is not theirs. */
@ExtendWith(RunningApplication.class)
class AccountApiTest {
    private static final String NEW =
            "{\"name\":\"%s\",\"displayName\":\"%s\",\"password\":\"%s\",\"administrator\":false}";

    private static Visitor warden() {
        return Visitor.signedIn("warden", "meadow-warden");
    }

    @Test
    void anAdministratorMakesAnAccountThatSignsInAndSeesNothingYet() {
        Visitor.Answer made =
                warden().post("/api/v1/accounts", NEW.formatted("bryn.hale", "Bryn Hale", "a-long-password"));
        assertThat(made.status()).isEqualTo(201);
        assertThat(made.body()).doesNotContain("password").doesNotContain("hash");
        Visitor bryn = Visitor.signedIn("bryn.hale", "a-long-password");
        assertThat(bryn.get("/api/v1/session")
                        .json()
                        .path("account")
                        .path("displayName")
                        .asString())
                .isEqualTo("Bryn Hale");
        assertThat(bryn.get("/api/v1/studies").json().size()).isZero();
        assertThat(bryn.get("/api/v1/studies/marrowmere-tussocks").status()).isEqualTo(404);

        Visitor author = Visitor.author();
        author.put("/api/v1/studies/marrowmere-tussocks/members", "{\"account\":\"bryn.hale\",\"role\":\"VIEWER\"}");
        assertThat(bryn.get("/api/v1/studies/marrowmere-tussocks")
                        .json()
                        .path("role")
                        .asString())
                .isEqualTo("VIEWER");
        assertThat(bryn.put("/api/v1/studies/marrowmere-tussocks/members", "{\"account\":\"lark\",\"role\":\"OWNER\"}")
                        .status())
                .as("only owners share")
                .isEqualTo(403);
    }

    @Test
    void badAccountsAreRefusedWithTheReason() {
        Visitor warden = warden();
        assertThat(warden.post("/api/v1/accounts", NEW.formatted("No Spaces", "", "a-long-password"))
                        .body())
                .contains("2 to 40 of");
        assertThat(warden.post("/api/v1/accounts", NEW.formatted("shorty", "", "short"))
                        .body())
                .contains("at least 10 characters");
        assertThat(warden.post("/api/v1/accounts", NEW.formatted("isolde", "", "a-long-password"))
                        .body())
                .contains("already");
        assertThat(Visitor.author()
                        .post("/api/v1/accounts", NEW.formatted("sneaky", "", "a-long-password"))
                        .status())
                .isEqualTo(404);
        assertThat(Visitor.author()
                        .put(
                                "/api/v1/studies/marrowmere-tussocks/members",
                                "{\"account\":\"nobody\",\"role\":\"VIEWER\"}")
                        .body())
                .contains("account 'nobody' does not exist");
    }

    @Test
    void aWrongPasswordSaysNoMoreThanAnUnknownName() {
        Visitor visitor = Visitor.anonymous();
        Visitor.Answer wrong = visitor.post("/api/v1/session", "{\"name\":\"isolde\",\"password\":\"guess\"}");
        Visitor.Answer unknown = visitor.post("/api/v1/session", "{\"name\":\"nobody\",\"password\":\"guess\"}");
        assertThat(wrong.status()).isEqualTo(400);
        assertThat(wrong.body()).isEqualTo(unknown.body());
    }

    @Test
    void signingOutEndsTheSession() {
        Visitor author = Visitor.author();
        assertThat(author.get("/api/v1/studies").status()).isEqualTo(200);
        author.delete("/api/v1/session");
        assertThat(author.get("/api/v1/studies").status()).isEqualTo(404);
    }

    private static Visitor.Answer measure(Visitor who, String measured) {
        return who.put("/api/v1/rules-of-thumb/FINGER_WIDTH", "{\"measured\":[" + measured + "]}");
    }

    private static double finger(Visitor who) {
        return who.get("/api/v1/rules-of-thumb")
                .json()
                .valueStream()
                .filter(r -> r.path("rule").asString().equals("FINGER_WIDTH"))
                .findFirst()
                .orElseThrow()
                .path("mean")
                .asDouble();
    }

    @Test
    void everybodysFingersAreTheirOwn() {
        Visitor isolde = Visitor.author();
        assertThat(finger(isolde)).isEqualTo(17);
        assertThat(measure(isolde, "\"15\",\"1.5 cm\",\"15.0 mm\"")
                        .json()
                        .path("mean")
                        .asDouble())
                .isEqualTo(15);
        assertThat(finger(isolde)).isEqualTo(15);
        assertThat(finger(Visitor.reader())).isEqualTo(17);
        Visitor nobody = Visitor.anonymous();
        assertThat(measure(nobody, "\"19\",\"19\",\"19\"").json().path("mean").asDouble())
                .isEqualTo(19);
        assertThat(finger(nobody))
                .as("nothing is kept of those who are not signed in")
                .isEqualTo(17);

        assertThat(measure(isolde, "\"15\",\"15\"").body()).contains("3 to 50 times");
        assertThat(measure(isolde, "\"15\",\"15\",\"wide\"").body()).contains("'wide' is not a length");
        assertThat(measure(isolde, "\"15\",\"15\",\"15 cm\"").body()).contains("check the unit");
        assertThat(finger(isolde)).as("what was refused changes nothing").isEqualTo(15);

        assertThat(measure(isolde, "").status()).isEqualTo(200);
        assertThat(finger(isolde)).isEqualTo(17);
    }
}
