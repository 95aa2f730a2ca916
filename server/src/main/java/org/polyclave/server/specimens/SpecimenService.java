package org.polyclave.server.specimens;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Stream;
import org.polyclave.print.label.Label;
import org.polyclave.print.label.LabelSheet;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.history.EntryWriter;
import org.polyclave.server.history.StudyWriter;
import org.polyclave.server.store.StudyObject.Kind;
import org.polyclave.server.store.StudyStore;
import org.polyclave.study.model.Specimen;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.notation.Coordinates;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Specimens of a study, their places and their labels. */
@Service
public class SpecimenService {
    private final StudyStore store;
    private final StudyWriter writer;
    private final EntryWriter entries;

    SpecimenService(StudyStore store, StudyWriter writer, EntryWriter entries) {
        this.store = store;
        this.writer = writer;
        this.entries = entries;
    }

    /** Writes a specimen; one without an identifier is new. */
    @Transactional
    public StudyWriter.Written putSpecimen(OpenStudy open, Specimen draft, long baseRevision) {
        Study study = writer.lock(open).study();
        Specimen specimen = draft.withId(entries.idOf(open, "specimen/", draft.id(), draft.code()));
        List<Specimen> all = EntryWriter.replaced(study.specimens(), specimen, Specimen::id, draft.id());
        StudyWriter.refuseBroken(study, study.withSpecimens(all));
        writer.refuseFuture(study, study.withSpecimens(all));
        return entries.put(open, Kind.SPECIMEN, specimen.id(), specimen, baseRevision);
    }

    /** Where a specimen was found, in degrees; south and west are below 0. */
    public record Place(String specimen, double latitude, double longitude) {}

    /** Places of the specimens whose labels tell coordinates; for members of the study only. */
    public List<Place> places(OpenStudy open) {
        return store.load(open.id()).study().specimens().stream()
                .flatMap(s -> Coordinates.parse(s.event().coordinates()) instanceof Coordinates.Place at
                        ? Stream.of(new Place(s.id(), at.latitude(), at.longitude()))
                        : Stream.empty())
                .toList();
    }

    /** A specimen as it may leave the installation, with what its labels say. */
    public record Labelled(Specimen specimen, Label collecting, Label determination) {}

    /** Labels of all specimens: those of sensitive taxa do not tell their place. */
    public List<Labelled> labels(OpenStudy open) {
        Study study = store.load(open.id()).study();
        return study.withoutSensitivePlaces().specimens().stream()
                .map(s -> new Labelled(
                        s,
                        Label.collecting(s),
                        Label.determination(
                                s, id -> study.row(id).map(StudyRow::name).orElse(id))))
                .toList();
    }

    /** Labels of some specimens on sheets, in the order wanted. */
    public byte[] labelSheet(OpenStudy open, List<String> specimens, boolean collecting, LabelSheet.Size size) {
        Map<String, Label> labels = new HashMap<>();
        labels(open).forEach(l -> labels.put(l.specimen().id(), collecting ? l.collecting() : l.determination()));
        return LabelSheet.pdf(
                specimens.stream().map(labels::get).filter(Objects::nonNull).toList(), size);
    }

    @Transactional
    public StudyWriter.Written remove(OpenStudy open, String id, long baseRevision) {
        Study study = writer.lock(open).study();
        List<Specimen> left =
                study.specimens().stream().filter(s -> !s.id().equals(id)).toList();
        return entries.remove(
                open,
                Kind.SPECIMEN,
                id,
                baseRevision,
                left.size() < study.specimens().size(),
                study,
                study.withSpecimens(left));
    }
}
