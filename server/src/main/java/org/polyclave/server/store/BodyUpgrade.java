package org.polyclave.server.store;

import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import org.polyclave.files.study.StudyUpgrades;
import org.polyclave.files.study.StudyUpgrades.Part;
import org.polyclave.server.store.persistence.BodyMapper;
import org.polyclave.server.store.persistence.BodyMapper.Body;
import org.polyclave.server.store.persistence.BodyMapper.ChangedBody;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.SmartInitializingSingleton;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Brings the objects of older versions up to date before the server answers: study by study, each whole or not at all, with
 * what its changes say was before and after, so that they can still be undone.
 */
@Component
public class BodyUpgrade implements SmartInitializingSingleton {
    private static final Logger LOG = LoggerFactory.getLogger(BodyUpgrade.class);

    private final BodyMapper bodies;
    private final JsonMapper json;
    private final TransactionTemplate transactions;
    private final StudyUpgrades upgrades;

    @Autowired
    BodyUpgrade(BodyMapper bodies, JsonMapper json, PlatformTransactionManager transactions) {
        this(bodies, json, transactions, StudyUpgrades.ALL);
    }

    public BodyUpgrade(
            BodyMapper bodies, JsonMapper json, PlatformTransactionManager transactions, StudyUpgrades upgrades) {
        this.bodies = bodies;
        this.json = json;
        this.transactions = new TransactionTemplate(transactions);
        this.upgrades = upgrades;
    }

    @Override
    public void afterSingletonsInstantiated() {
        List<Long> outdated = bodies.outdated(upgrades.current());
        for (long study : outdated) {
            transactions.executeWithoutResult(t -> upgrade(study));
        }
        if (!outdated.isEmpty()) {
            LOG.info("Brought {} studies up to version {} of the format", outdated.size(), upgrades.current());
        }
    }

    private void upgrade(long study) {
        int version = bodies.lock(study);
        // Another server may have been here first.
        for (Part part : version < upgrades.current() ? Part.values() : new Part[0]) {
            if (upgrades.isChanged(part, version)) {
                upgradeNow(study, part, version);
                upgradeChanges(study, part, version);
            }
        }
        bodies.setVersion(study, upgrades.current());
    }

    private static String kind(Part part) {
        return part.name().toLowerCase(Locale.ROOT);
    }

    private void upgradeNow(long study, Part part, int version) {
        ArrayNode now = json.createArrayNode();
        for (Body body : bodies.bodies(study, kind(part))) {
            StudyObject object = StudyObject.of(body.object());
            now.addObject()
                    .put("id", object.id())
                    .put("character", object.character())
                    .set("body", upgrades.upgraded(part, version, json.readTree(body.body())));
        }
        if (now.isEmpty()) {
            return;
        }
        String all = now.toString();
        switch (part) {
            case ROW -> bodies.putRows(study, all);
            case CHARACTER -> bodies.putCharacters(study, all);
            case CELL -> bodies.putCells(study, all);
            case SCOPE -> bodies.putScope(study, all);
            case OUTSIDE -> bodies.putOutside(study, all);
            case TERM, REFERENCE, CLAIM, PICTURE, OPINION, SPECIMEN, READING ->
                bodies.putEntries(study, kind(part), all);
        }
    }

    private void upgradeChanges(long study, Part part, int version) {
        ArrayNode now = json.createArrayNode();
        for (ChangedBody change : bodies.changes(study, kind(part))) {
            now.addObject()
                    .put("set", change.set())
                    .put("object", change.object())
                    .set("before", content(part, version, change.before()))
                    .set("after", content(part, version, change.after()));
        }
        if (!now.isEmpty()) {
            bodies.putChanges(study, now.toString());
        }
    }

    /** Rows, characters and small objects are kept with their position, the scope with the title. */
    private JsonNode content(Part part, int version, @Nullable String content) {
        if (content == null) {
            return json.getNodeFactory().nullNode();
        }
        JsonNode now = json.readTree(content);
        String inside = part == Part.SCOPE ? "scope" : "body";
        if (now instanceof ObjectNode whole && part != Part.CELL && part != Part.OUTSIDE) {
            return whole.set(inside, upgrades.upgraded(part, version, whole.path(inside)));
        }
        return upgrades.upgraded(part, version, now);
    }
}
