package org.polyclave.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import tools.jackson.databind.JsonNode;

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
        assertThat(bryn.get("/api/v1/studies").json().path("total").asInt()).isZero();
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
                .contains("10 to 72 characters");
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

    private static String token(Visitor visitor, String name, String scope) {
        Visitor.Answer made = visitor.post("/api/v1/tokens", "{\"name\":\"" + name + "\",\"scope\":\"" + scope + "\"}");
        assertThat(made.status()).as(made.body()).isEqualTo(201);
        return made.json().path("secret").asString();
    }

    @Test
    void aTokenSpeaksForItsAccountAsFarAsItsScopeUntilItIsRevoked() throws SQLException {
        Visitor author = Visitor.author();
        String slug = author.importTable("tokens", "taxon,#hazard,a\nAa,none known,x\nBb,none known,y\n");
        String study = "/api/v1/studies/" + slug;
        String edit = "{\"edits\":[{\"row\":\"aa\",\"character\":\"a\",\"text\":\"y\",\"baseRevision\":0}]}";
        Visitor reads = Visitor.withToken(token(author, "nightly", "READ"));
        Visitor writes = Visitor.withToken(token(author, "robot", "WRITE"));
        assertThat(reads.get(study).json().path("role").asString()).isEqualTo("OWNER");
        assertThat(reads.post(study + "/scores", edit).status()).isEqualTo(403);
        assertThat(writes.post(study + "/scores", edit).status()).isEqualTo(200);
        assertThat(writes.get("/api/v1/tokens").status())
                .as("a token manages no tokens")
                .isEqualTo(403);
        assertThat(writes.post("/api/v1/tokens", "{\"name\":\"more\",\"scope\":\"WRITE\"}")
                        .status())
                .isEqualTo(403);
        assertThat(Visitor.reader().get(study).status()).isEqualTo(404);

        JsonNode known = author.get("/api/v1/tokens").json();
        assertThat(known.toString()).doesNotContain("polyclave_").doesNotContain("hash");
        assertThat(known.path(0).path("lastUsedAt").asString()).isNotEmpty();
        try (Connection database = RunningApplication.database();
                ResultSet kept = database.createStatement()
                        .executeQuery("select count(*) from access_token where length(hash) = 32")) {
            assertThat(kept.next()).isTrue();
            assertThat(kept.getInt(1)).isEqualTo(2);
        }
        author.delete("/api/v1/tokens/" + known.path(0).path("id").asLong());
        Visitor.Answer refused = reads.get(study);
        assertThat(refused.status()).isEqualTo(401);
        assertThat(refused.json().path("code").asString()).isEqualTo("unauthorized");
        assertThat(author.post("/api/v1/tokens", "{\"name\":\"robot\",\"scope\":\"READ\"}")
                        .status())
                .as("a name that is taken")
                .isEqualTo(400);
    }

    /** A wrong token is refused even where the cookie alone would do: a script must notice. */
    @Test
    void aWrongTokenNeverFallsBackToTheSession() {
        Visitor author = Visitor.author();
        assertThat(author.bearing("polyclave_guess").get("/api/v1/studies").status())
                .isEqualTo(401);
        assertThat(author.get("/api/v1/studies").status()).isEqualTo(200);
    }

    @Test
    void theListOfStudiesComesInPages() {
        Visitor warden = warden();
        warden.post("/api/v1/accounts", NEW.formatted("pager", "Pager", "a-long-password"));
        Visitor pager = Visitor.signedIn("pager", "a-long-password");
        for (String title : List.of("Cc", "Aa", "Bb")) {
            pager.post("/api/v1/studies", "{\"title\":\"" + title + "\"}");
        }
        JsonNode page = pager.get("/api/v1/studies?from=1&count=1").json();
        assertThat(page.path("total").asInt()).isEqualTo(3);
        assertThat(page.path("studies").size()).isEqualTo(1);
        assertThat(page.path("studies").path(0).path("title").asString()).isEqualTo("Bb");
        assertThat(pager.get("/api/v1/studies?count=1000").status()).isEqualTo(400);
    }
}
