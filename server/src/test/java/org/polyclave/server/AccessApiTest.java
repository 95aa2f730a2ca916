package org.polyclave.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Every operation × everybody. The table below is the law, written by hand: an operation that is not in it fails the test, and
 * so does one that lets in who should stay out or shuts out who may come in.
 */
@ExtendWith(RunningApplication.class)
class AccessApiTest {
    private static final Map<String, Set<String>> LEAST = Map.of(
            "VIEWER",
                    Set.of(
                            "studyView",
                            "studyChanges",
                            "studyColumns",
                            "studyNextStep",
                            "studyCopy",
                            "members",
                            "export",
                            "exportLosses",
                            "scoreHistory",
                            "characterClause",
                            "comments",
                            "checkFindings",
                            "dangers",
                            "dangerKit",
                            "editionGate",
                            "editionCover",
                            "editionChanges",
                            "identifyStudy",
                            "keyBegin",
                            "keyLook",
                            "keyStop",
                            "keyFile",
                            "namedKeyAll",
                            "namedKeyFind",
                            "namedKeyFile",
                            "comparisonCalendar",
                            "comparisonCard",
                            "comparisonPrint",
                            "comparisonMap",
                            "comparisonNext",
                            "comparisonPairs",
                            "comparisonRecognise",
                            "pictureContent",
                            "specimenLabels",
                            "specimenLabelSheet",
                            "specimenPlaces",
                            "snapshots",
                            "snapshotDifference",
                            "readingCells",
                            "readingOfCharacter",
                            "readingBeside",
                            "readingThreshold",
                            "readingOfSpecimen"),
            "SCORER",
                    Set.of(
                            "scoreEdit",
                            "secondOpinionAgreement",
                            "secondOpinionDispute",
                            "undo",
                            "undoRedo",
                            "undoList",
                            "commentWrite",
                            "commentSettle",
                            "secondOpinionList",
                            "secondOpinionSheet",
                            "secondOpinionFinish",
                            "secondOpinionScore",
                            "operationPreview",
                            "operationRun",
                            "readingRead",
                            "readingAdd",
                            "readingAddTable",
                            "readingPreviewTable",
                            "readingPut",
                            "readingRemove",
                            "readingAccept"),
            "EDITOR",
                    Set.of(
                            "taxonAddRow",
                            "taxonPutRow",
                            "taxonMoveRow",
                            "taxonRemoveRow",
                            "taxonConfirmHazard",
                            "addCharacter",
                            "putCharacter",
                            "moveCharacter",
                            "removeCharacter",
                            "putScope",
                            "scopePutOutside",
                            "referencePutTerm",
                            "referenceRemoveTerm",
                            "putReference",
                            "removeReference",
                            "referencePutClaim",
                            "referenceRemoveClaim",
                            "putSpecimen",
                            "removeSpecimen",
                            "pictureAdd",
                            "picturePut",
                            "pictureRemove",
                            "libraryCopy",
                            "importBeginInto",
                            "importLookInto",
                            "importStopInto",
                            "dangerConfirm",
                            "secondOpinionGive",
                            "secondOpinionSettle",
                            "editionPublish",
                            "namedKeyKeep",
                            "namedKeyReplace",
                            "namedKeyUpdate",
                            "namedKeyRemove",
                            "checkAccept",
                            "checkReopen",
                            "checkCorrect",
                            "snapshotTake",
                            "snapshotRestore"),
            "OWNER",
                    Set.of(
                            "memberShare",
                            "memberUnshare",
                            "editionWithdraw",
                            "snapshotRemove",
                            "studyArchive",
                            "studyMove",
                            "studyDelete"));

    /** What shows nothing of others' scores, so that those who score blind may. */
    private static final Set<String> EVEN_BLIND = Set.of(
            "studyView",
            "studyChanges",
            "studyColumns",
            "undo",
            "undoRedo",
            "undoList",
            "pictureContent",
            "secondOpinionList",
            "secondOpinionSheet",
            "secondOpinionFinish",
            "secondOpinionScore");

    /** Operations outside a study. */
    private static final Map<String, Set<String>> OUTSIDE = Map.of(
            "EVERYBODY",
                    Set.of(
                            "session",
                            "sessionSignIn",
                            "sessionSignOut",
                            "accountLinkLook",
                            "accountLinkUse",
                            "editionNewest",
                            "editionDocument",
                            "editionDescription",
                            "editionPicture",
                            "identifyEdition",
                            "identifyHandful",
                            "identifyReadTyped",
                            "instrumentAttached",
                            "ruleOfThumbAll",
                            "ruleOfThumbMeasure",
                            "library"),
            "SIGNED IN",
                    Set.of(
                            "studyList",
                            "tokens",
                            "createToken",
                            "revokeToken",
                            "studyBegin",
                            "studySample",
                            "deletedStudyRestore",
                            "importUpload",
                            "importBegin",
                            "importLook",
                            "importStop",
                            "instrumentCaliper",
                            "instrumentCamera",
                            "ownAccountSessions",
                            "ownAccountSignOutElsewhere",
                            "ownAccountRename",
                            "ownAccountChangePassword"),
            "ADMINISTRATOR", Set.of("accounts", "accountCreate", "accountInvite", "accountReset", "accountActivate"));

    private static final List<String> ROLES = List.of("VIEWER", "SCORER", "EDITOR", "OWNER");

    /** @param form whether it takes a form */
    private record Operation(String id, String method, String path, boolean form) {}

    private static final List<Operation> OPERATIONS = new ArrayList<>();
    private static final Map<String, Visitor> MEMBERS = new TreeMap<>();
    private static String slug = "";

    @BeforeAll
    static void furnish() throws IOException {
        JsonNode api = JsonMapper.builder().build().readTree(Files.readString(Path.of("../openapi.json")));
        api.path("paths")
                .forEachEntry((path, item) -> item.forEachEntry((method, operation) -> OPERATIONS.add(new Operation(
                        operation.path("operationId").asString(),
                        method.toUpperCase(Locale.ROOT),
                        path,
                        operation.path("requestBody").path("content").has("multipart/form-data")))));
        Visitor warden = Visitor.signedIn("warden", "meadow-warden");
        for (String role : List.of("viewer", "scorer", "editor", "owner", "blind", "stranger")) {
            warden.post(
                    "/api/v1/accounts",
                    "{\"name\":\"acc-%s\",\"displayName\":\"%s\",\"password\":\"a-long-password\",\"administrator\":false}"
                            .formatted(role, role));
            MEMBERS.put(role.toUpperCase(Locale.ROOT), Visitor.signedIn("acc-" + role, "a-long-password"));
        }
        Visitor owner = of(MEMBERS, "OWNER");
        slug = owner.importTable("access", "taxon,#hazard,a,b\nAa,none known,x,x\nBb,none known,y,y\n");
        for (String role : List.of("viewer", "scorer", "editor")) {
            owner.put(
                    members(),
                    "{\"account\":\"acc-%s\",\"role\":\"%s\"}".formatted(role, role.toUpperCase(Locale.ROOT)));
        }
        owner.put(members(), "{\"account\":\"acc-blind\",\"role\":\"SCORER\"}");
        owner.post(
                "/api/v1/studies/" + slug + "/assignments",
                "{\"scorer\":\"acc-blind\",\"rows\":[],\"characters\":[\"a\"],\"note\":\"\"}");
    }

    private static <T> T of(Map<String, T> all, String name) {
        return Objects.requireNonNull(all.get(name));
    }

    private static String members() {
        return "/api/v1/studies/" + slug + "/members";
    }

    private static boolean isOfAStudy(Operation operation) {
        return operation.path().startsWith("/api/v1/studies/{slug}");
    }

    /** Sent with nothing in it, to what does not exist: who may is refused for that, or gets an answer; nothing is changed. */
    private static Visitor.Outcome touch(Visitor visitor, Operation operation) {
        String path = operation
                .path()
                .replace("{slug}", slug)
                .replace("{number}", "999999")
                .replace("{rule}", "FINGER_WIDTH")
                .replaceAll("\\{(id|account|content|other|row)}", "999999");
        return visitor.touch(operation.method(), path, "{}", operation.form());
    }

    @Test
    void everyOperationIsInTheTable() {
        Set<String> told = new TreeSet<>();
        LEAST.values().forEach(told::addAll);
        OUTSIDE.values().forEach(told::addAll);
        assertThat(OPERATIONS.stream().map(Operation::id)).containsExactlyInAnyOrderElementsOf(told);
    }

    @Test
    void membersMayWhatTheirRoleMayAndNoMore() {
        for (Operation operation : OPERATIONS) {
            if (!isOfAStudy(operation)) {
                continue;
            }
            int least = ROLES.indexOf(ROLES.stream()
                    .filter(r -> of(LEAST, r).contains(operation.id()))
                    .findFirst()
                    .orElseThrow());
            for (int role = 0; role < ROLES.size(); role++) {
                Visitor.Outcome outcome = touch(of(MEMBERS, ROLES.get(role)), operation);
                boolean refused = outcome.status() == 403 && outcome.code().equals("forbidden");
                assertThat(refused)
                        .as("%s of %s refused: %s", operation.id(), ROLES.get(role), outcome)
                        .isEqualTo(role < least);
                assertThat(outcome.status())
                        .as("%s of %s", operation.id(), ROLES.get(role))
                        .isLessThan(500);
            }
            boolean mayBlind = least <= ROLES.indexOf("SCORER") && EVEN_BLIND.contains(operation.id());
            assertThat(touch(of(MEMBERS, "BLIND"), operation).status() == 403)
                    .as("%s of a blind scorer refused", operation.id())
                    .isEqualTo(!mayBlind);
        }
    }

    @Test
    void toEverybodyElseTheStudyDoesNotExist() {
        List<Visitor> others =
                List.of(Visitor.anonymous(), of(MEMBERS, "STRANGER"), Visitor.signedIn("warden", "meadow-warden"));
        for (Operation operation : OPERATIONS) {
            if (isOfAStudy(operation)) {
                for (Visitor other : others) {
                    assertThat(touch(other, operation))
                            .as(operation.id())
                            .isEqualTo(new Visitor.Outcome(404, "not-found", ""));
                }
            }
        }
    }

    @Test
    void outsideStudiesToo() {
        for (Operation operation : OPERATIONS) {
            if (isOfAStudy(operation) || operation.id().equals("sessionSignOut")) {
                continue;
            }
            boolean open = of(OUTSIDE, "EVERYBODY").contains(operation.id());
            boolean administrative = of(OUTSIDE, "ADMINISTRATOR").contains(operation.id());
            Visitor.Outcome refused = new Visitor.Outcome(404, "not-found", "");
            if (!open) {
                assertThat(touch(Visitor.anonymous(), operation))
                        .as("%s of nobody", operation.id())
                        .isEqualTo(refused);
            }
            // What is not there is not there for anybody.
            boolean ofSomething = operation.path().contains("{id}")
                    || operation.path().startsWith("/api/v1/editions/")
                    || operation.path().startsWith("/api/v1/deleted-studies/");
            if (!ofSomething) {
                assertThat(touch(of(MEMBERS, "STRANGER"), operation).equals(refused))
                        .as("%s of somebody refused", operation.id())
                        .isEqualTo(administrative);
            }
        }
    }
}
