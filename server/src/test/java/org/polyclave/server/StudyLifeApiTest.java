package org.polyclave.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import tools.jackson.databind.JsonNode;

/** Studies that begin, are found, copied, put away, deleted and had back. */
@ExtendWith(RunningApplication.class)
class StudyLifeApiTest {
    private static final String STUDIES = "/api/v1/studies";

    private static List<String> titles(Visitor who, String query) {
        List<String> titles = new ArrayList<>();
        JsonNode page = who.get(STUDIES + query).json();
        page.path("studies").forEach(s -> titles.add(s.path("title").asString()));
        assertThat(page.path("total").asInt()).as(query).isEqualTo(titles.size());
        return titles;
    }

    /** Somebody who has no study yet. */
    private static Visitor newcomer(String name) {
        Visitor.signedIn("warden", "meadow-warden")
                .post(
                        "/api/v1/accounts",
                        "{\"name\":\"%s\",\"displayName\":\"%s\",\"password\":\"a-long-password\",\"administrator\":false}"
                                .formatted(name, name));
        return Visitor.signedIn(name, "a-long-password");
    }

    private static String begin(Visitor who, String title) {
        return who.post(STUDIES, "{\"title\":\"" + title + "\"}")
                .json()
                .path("slug")
                .asString();
    }

    @Test
    void studiesAreFoundByTheirTitlesAndTheOneThatChangedLastComesFirst() {
        Visitor author = newcomer("finder");
        begin(author, "100 % sedges_of the weir");
        String moths = begin(author, "Moths");
        begin(author, "Aquatic moths");
        author.put(STUDIES + "/" + moths + "/scope", """
                {"title":"Moths","baseRevision":1,"scope":{"group":"","covers":"All","leavesOut":"","region":"","stages":"",
                "audience":"","equipment":"","months":[],"gatheredForFood":false,"cautions":[]}}
                """);
        assertThat(titles(author, "")).containsExactly("100 % sedges_of the weir", "Aquatic moths", "Moths");
        assertThat(titles(author, "?find=MOTH&order=CHANGED")).containsExactly("Moths", "Aquatic moths");
        assertThat(titles(author, "?find=%25%20sedges_")).as("no pattern").hasSize(1);
        assertThat(titles(author, "?find=zz")).isEmpty();
        assertThat(author.get(STUDIES + "?find=Moths&order=CHANGED").body())
                .as("nobody asked for it since it changed")
                .doesNotContain("\"next\"");
        author.get(STUDIES + "/" + moths + "/next-step");
        JsonNode line = author.get(STUDIES + "?find=Moths&order=CHANGED")
                .json()
                .path("studies")
                .get(0);
        assertThat(line.path("who").asString()).isEqualTo("finder");
        assertThat(line.path("changed").asString()).matches("\\d{4}-\\d\\d-\\d\\d");
        assertThat(line.path("next").path("kind").asString()).isEqualTo("IMPORT");
    }

    @Test
    void aCopyHoldsTheSameAndBelongsToWhoeverMadeIt() {
        Visitor author = newcomer("copied");
        String sample =
                author.post(STUDIES + "/sample", "{}").json().path("slug").asString();
        Visitor reader = newcomer("copier");
        author.put(STUDIES + "/" + sample + "/members", "{\"account\":\"copier\",\"role\":\"VIEWER\"}");
        String copy = reader.post(STUDIES + "/" + sample + "/copy", "{\"title\":\"Mine\"}")
                .json()
                .path("slug")
                .asString();
        assertThat(copy).isEqualTo("mine");
        JsonNode theirs = author.get(STUDIES + "/" + sample).json();
        JsonNode mine = reader.get(STUDIES + "/" + copy).json();
        for (String part : List.of("rows", "characters", "specimens", "references", "glossary", "pictures", "scope")) {
            assertThat(mine.path(part)).as(part).isEqualTo(theirs.path(part));
        }
        assertThat(mine.path("progress").path("scored"))
                .isEqualTo(theirs.path("progress").path("scored"));
        assertThat(mine.path("role").asString()).isEqualTo("OWNER");
        String picture = mine.path("pictures").get(0).path("content").asString();
        assertThat(reader.get(STUDIES + "/" + copy + "/pictures/" + picture).status())
                .isEqualTo(200);
        assertThat(author.get(STUDIES + "/" + copy).status()).isEqualTo(404);
    }

    @Test
    void whatIsPutAwayCanBeOpenedAndWhatIsDeletedCanNotUntilItIsHadBack() throws SQLException {
        Visitor owner = newcomer("keeper");
        Visitor editor = newcomer("helper");
        String slug = begin(owner, "Old mosses");
        String study = STUDIES + "/" + slug;
        owner.put(study + "/members", "{\"account\":\"helper\",\"role\":\"EDITOR\"}");

        owner.put(study + "/archived", "{\"archived\":true}");
        assertThat(titles(owner, "")).isEmpty();
        assertThat(titles(editor, "?which=ARCHIVED")).containsExactly("Old mosses");
        assertThat(owner.get(study).status()).isEqualTo(200);
        owner.put(study + "/archived", "{\"archived\":false}");
        assertThat(titles(owner, "")).containsExactly("Old mosses");

        assertThat(owner.delete(study + "?title=Other").status()).isEqualTo(422);
        assertThat(owner.delete(study + "?title=Old%20mosses").status()).isEqualTo(204);
        for (Visitor who : List.of(owner, editor)) {
            assertThat(who.get(study).status()).isEqualTo(404);
            assertThat(titles(who, "")).isEmpty();
        }
        assertThat(titles(editor, "?which=DELETED")).isEmpty();
        assertThat(editor.delete("/api/v1/deleted-studies/" + slug).status()).isEqualTo(404);
        assertThat(titles(owner, "?which=DELETED")).containsExactly("Old mosses");
        assertThat(owner.delete("/api/v1/deleted-studies/" + slug).status()).isEqualTo(204);
        assertThat(editor.get(study).status()).isEqualTo(200);

        owner.delete(study + "?title=Old%20mosses");
        RunningApplication.forget();
        assertThat(titles(owner, "?which=DELETED")).as("a month of grace").hasSize(1);
        try (Connection database = RunningApplication.database();
                Statement statement = database.createStatement()) {
            statement.execute("update study set deleted_at = now() - interval '31 days' where slug = '" + slug + "'");
        }
        RunningApplication.forget();
        assertThat(titles(owner, "?which=DELETED")).isEmpty();
    }

    @Test
    void anAddressChangesUntilTheFirstEdition() {
        Visitor owner = newcomer("mover");
        String slug = begin(owner, "Sheet 1 final");
        owner.get(STUDIES + "/" + slug);
        begin(owner, "Mosses");
        for (String wrong : List.of("…", "Mosses")) {
            assertThat(owner.put(STUDIES + "/" + slug + "/address", "{\"address\":\"" + wrong + "\"}")
                            .json()
                            .path("code")
                            .asString())
                    .as(wrong)
                    .isEqualTo("address");
        }
        Visitor.Answer moved = owner.put(STUDIES + "/" + slug + "/address", "{\"address\":\" Ferns of the Weir \"}");
        assertThat(moved.json().path("slug").asString()).isEqualTo("ferns-of-the-weir");
        assertThat(owner.get(STUDIES + "/" + slug).status()).isEqualTo(404);
        assertThat(owner.get(STUDIES + "/ferns-of-the-weir").json().path("slug").asString())
                .as("what was kept of it in memory knows it, too")
                .isEqualTo("ferns-of-the-weir");
        assertThat(Visitor.author()
                        .put(STUDIES + "/marrowmere-tussocks/address", "{\"address\":\"elsewhere\"}")
                        .status())
                .isEqualTo(409);
    }

    @Test
    void aStudyThatReadersRelyOnIsNotDeleted() {
        Visitor author = Visitor.author();
        Visitor.Answer refused =
                author.delete(STUDIES + "/marrowmere-tussocks?title=Tussock%20plants%20of%20Marrowmere");
        assertThat(refused.status()).isEqualTo(409);
        assertThat(refused.json().path("code").asString()).isEqualTo("published");
        assertThat(author.get(STUDIES + "/marrowmere-tussocks").status()).isEqualTo(200);
    }
}
