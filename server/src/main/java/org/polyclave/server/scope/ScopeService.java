package org.polyclave.server.scope;

import java.util.List;
import java.util.Map;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.history.ChangeLog;
import org.polyclave.server.history.StudyWriter;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.store.StudyObject;
import org.polyclave.study.model.OutsideTaxon;
import org.polyclave.study.model.StudyScope;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** What a study is about, and which taxa near it are left out. */
@Service
public class ScopeService {
    private final StudyWriter writer;
    private final JsonMapper json;

    ScopeService(StudyWriter writer, JsonMapper json) {
        this.writer = writer;
        this.json = json;
    }

    @Transactional
    public StudyWriter.Written putScope(OpenStudy open, String title, StudyScope scope, long baseRevision) {
        if (title.isBlank()) {
            throw Problems.badRequest(ProblemCode.TITLE, "A study needs a title.");
        }
        String content = json.writeValueAsString(new StudyWriter.Scope(title.strip(), scope));
        return writer.write(open, "", List.of(new ChangeLog.Edit(StudyObject.SCOPE, content, baseRevision)));
    }

    @Transactional
    public StudyWriter.Written putOutside(OpenStudy open, List<OutsideTaxon> taxa, long baseRevision) {
        if (taxa.stream().anyMatch(t -> t.name().isBlank())) {
            throw Problems.unprocessable(ProblemCode.RULES, "A taxon near but outside needs a name.", Map.of());
        }
        return writer.write(
                open,
                "",
                List.of(new ChangeLog.Edit(StudyObject.OUTSIDE, json.writeValueAsString(taxa), baseRevision)));
    }
}
