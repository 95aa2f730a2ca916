package org.polyclave.server.references;

import java.util.List;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.history.EntryWriter;
import org.polyclave.server.history.StudyWriter;
import org.polyclave.server.store.StudyObject.Kind;
import org.polyclave.study.model.Claim;
import org.polyclave.study.model.GlossaryTerm;
import org.polyclave.study.model.Reference;
import org.polyclave.study.model.Study;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Changes of the glossary, the references and the claims of a study, one object at a time. */
@Service
public class ReferenceService {
    private final StudyWriter writer;
    private final EntryWriter entries;

    ReferenceService(StudyWriter writer, EntryWriter entries) {
        this.writer = writer;
        this.entries = entries;
    }

    /** Writes a term; one without an identifier is new. */
    @Transactional
    public StudyWriter.Written putTerm(OpenStudy open, GlossaryTerm draft, long baseRevision) {
        StudyWriter.Locked locked = writer.lock(open);
        GlossaryTerm term = draft.withId(entries.idOf(open, "term/", draft.id(), draft.term()));
        Study study = locked.study();
        List<GlossaryTerm> all = EntryWriter.replaced(study.glossary(), term, GlossaryTerm::id, draft.id());
        StudyWriter.refuseBroken(study, study.withGlossary(all));
        return entries.put(open, Kind.TERM, term.id(), term, baseRevision);
    }

    /** Writes a reference; one without an identifier is new. */
    @Transactional
    public StudyWriter.Written putReference(OpenStudy open, Reference draft, long baseRevision) {
        StudyWriter.Locked locked = writer.lock(open);
        Reference reference = draft.withId(entries.idOf(open, "reference/", draft.id(), draft.citation()));
        Study study = locked.study();
        List<Reference> all = EntryWriter.replaced(study.references(), reference, Reference::id, draft.id());
        StudyWriter.refuseBroken(study, study.withReferences(all));
        return entries.put(open, Kind.REFERENCE, reference.id(), reference, baseRevision);
    }

    /** Writes a claim; one without an identifier is new. */
    @Transactional
    public StudyWriter.Written putClaim(OpenStudy open, Claim draft, long baseRevision) {
        StudyWriter.Locked locked = writer.lock(open);
        String name = draft.row() + " " + draft.kind() + " " + draft.character();
        Claim claim = draft.withId(entries.idOf(open, "claim/", draft.id(), name));
        Study study = locked.study();
        List<Claim> all = EntryWriter.replaced(study.claims(), claim, Claim::id, draft.id());
        StudyWriter.refuseBroken(study, study.withClaims(all));
        return entries.put(open, Kind.CLAIM, claim.id(), claim, baseRevision);
    }

    /** @param kind of the object: a term, a reference or a claim */
    @Transactional
    public StudyWriter.Written remove(OpenStudy open, Kind kind, String id, long baseRevision) {
        Study study = writer.lock(open).study();
        boolean known = switch (kind) {
            case TERM -> study.glossary().stream().anyMatch(t -> t.id().equals(id));
            case REFERENCE -> study.references().stream().anyMatch(r -> r.id().equals(id));
            case CLAIM -> study.claims().stream().anyMatch(c -> c.id().equals(id));
            default -> false;
        };
        return entries.remove(open, kind, id, baseRevision, known, study, study);
    }
}
