package org.polyclave.server.study;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.stream.Stream;
import org.polyclave.print.label.Label;
import org.polyclave.print.label.LabelSheet;
import org.polyclave.server.picture.PictureStore;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.study.StudyObject.Kind;
import org.polyclave.server.study.persistence.ChangeMapper;
import org.polyclave.study.measuring.MarkedReading;
import org.polyclave.study.model.Claim;
import org.polyclave.study.model.GlossaryTerm;
import org.polyclave.study.model.Picture;
import org.polyclave.study.model.Reading;
import org.polyclave.study.model.Reference;
import org.polyclave.study.model.Slug;
import org.polyclave.study.model.Specimen;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.notation.Coordinates;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Changes of the glossary, the references, the claims, the pictures and the specimens of a study, one object at a time. */
@Service
public class ApparatusService {
    private static final int LONGEST_ID = 40;

    private final StudyStore store;
    private final StudyWriter writer;
    private final ChangeMapper changes;
    private final PictureStore pictures;

    ApparatusService(StudyStore store, StudyWriter writer, ChangeMapper changes, PictureStore pictures) {
        this.store = store;
        this.writer = writer;
        this.changes = changes;
        this.pictures = pictures;
    }

    /** Writes a term; one without an identifier is new. */
    @Transactional
    public StudyWriter.Written putTerm(StudyAccess.Open open, GlossaryTerm draft, long seen) {
        StudyWriter.Locked locked = writer.lock(open);
        GlossaryTerm term = draft.withId(idOf(open, "term/", draft.id(), draft.term()));
        Study study = locked.study();
        List<GlossaryTerm> all = replaced(study.glossary(), term, GlossaryTerm::id, draft.id());
        StudyWriter.refuseBroken(study, study.withGlossary(all));
        return put(open, Kind.TERM, term.id(), term, seen);
    }

    /** Writes a reference; one without an identifier is new. */
    @Transactional
    public StudyWriter.Written putReference(StudyAccess.Open open, Reference draft, long seen) {
        StudyWriter.Locked locked = writer.lock(open);
        Reference reference = draft.withId(idOf(open, "reference/", draft.id(), draft.citation()));
        Study study = locked.study();
        List<Reference> all = replaced(study.references(), reference, Reference::id, draft.id());
        StudyWriter.refuseBroken(study, study.withReferences(all));
        return put(open, Kind.REFERENCE, reference.id(), reference, seen);
    }

    /** Writes a claim; one without an identifier is new. */
    @Transactional
    public StudyWriter.Written putClaim(StudyAccess.Open open, Claim draft, long seen) {
        StudyWriter.Locked locked = writer.lock(open);
        String name = draft.row() + " " + draft.kind() + " " + draft.character();
        Claim claim = draft.withId(idOf(open, "claim/", draft.id(), name));
        Study study = locked.study();
        List<Claim> all = replaced(study.claims(), claim, Claim::id, draft.id());
        StudyWriter.refuseBroken(study, study.withClaims(all));
        return put(open, Kind.CLAIM, claim.id(), claim, seen);
    }

    /** Writes a specimen; one without an identifier is new. */
    @Transactional
    public StudyWriter.Written putSpecimen(StudyAccess.Open open, Specimen draft, long seen) {
        Study study = writer.lock(open).study();
        Specimen specimen = draft.withId(idOf(open, "specimen/", draft.id(), draft.code()));
        List<Specimen> all = replaced(study.specimens(), specimen, Specimen::id, draft.id());
        StudyWriter.refuseBroken(study, study.withSpecimens(all));
        writer.refuseFuture(study, study.withSpecimens(all));
        return put(open, Kind.SPECIMEN, specimen.id(), specimen, seen);
    }

    /** Where a specimen was found, in degrees; south and west are below 0. */
    public record Place(String specimen, double latitude, double longitude) {}

    /** Places of the specimens whose labels tell coordinates; for members of the study only. */
    public List<Place> places(StudyAccess.Open open) {
        return store.load(open.id()).study().specimens().stream()
                .flatMap(s -> Coordinates.parse(s.event().coordinates()) instanceof Coordinates.Place at
                        ? Stream.of(new Place(s.id(), at.latitude(), at.longitude()))
                        : Stream.empty())
                .toList();
    }

    /** A specimen as it may leave the installation, with what its labels say. */
    public record Labelled(Specimen specimen, Label collecting, Label determination) {}

    /** Labels of all specimens: those of sensitive taxa do not tell their place. */
    public List<Labelled> labels(StudyAccess.Open open) {
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
    public byte[] labelSheet(StudyAccess.Open open, List<String> specimens, boolean collecting, LabelSheet.Size size) {
        Map<String, Label> labels = new HashMap<>();
        labels(open).forEach(l -> labels.put(l.specimen().id(), collecting ? l.collecting() : l.determination()));
        return LabelSheet.pdf(
                specimens.stream().map(labels::get).filter(Objects::nonNull).toList(), size);
    }

    /** Adds a picture; its file was cleaned. */
    @Transactional
    public StudyWriter.Written addPicture(StudyAccess.Open open, PictureStore.Cleaned cleaned, Picture draft) {
        StudyWriter.Locked locked = writer.lock(open);
        Study study = locked.study();
        Picture picture = draft.withId(idOf(open, "picture/", "", draft.shows()));
        List<Picture> all = replaced(study.pictures(), picture, Picture::id, "");
        StudyWriter.refuseBroken(study, study.withPictures(all));
        pictures.keep(open.id(), cleaned);
        return put(open, Kind.PICTURE, picture.id(), picture, 0);
    }

    /** Writes what is said about a picture; what is in it stays. With its scale, what was read by it is read anew. */
    @Transactional
    public StudyWriter.Written putPicture(StudyAccess.Open open, Picture draft, long seen) {
        StudyWriter.Locked locked = writer.lock(open);
        Study study = locked.study();
        Picture known = study.pictures().stream()
                .filter(p -> p.id().equals(draft.id()))
                .findFirst()
                .orElseThrow(Problems::notFound);
        Picture picture = known.told(draft);
        List<Picture> all = replaced(study.pictures(), picture, Picture::id, draft.id());
        Study after = study.withPictures(all);
        if (!Objects.equals(picture.scale(), known.scale())) {
            after = MarkedReading.reread(after, picture.id());
            refuseScale(after, picture);
        }
        StudyWriter.refuseBroken(study, after);
        List<ChangeMapper.Placed> places = changes.entryPlaces(open.id());
        List<ChangeLog.Edit> edits = new ArrayList<>();
        edits.add(edit(places, StudyObject.entry(Kind.PICTURE, picture.id()), picture, seen));
        for (int i = 0; i < after.readings().size(); i++) {
            Reading reading = after.readings().get(i);
            if (!reading.equals(study.readings().get(i))) {
                StudyObject object = StudyObject.entry(Kind.READING, reading.id());
                edits.add(edit(places, object, reading, locked.snapshot().revision(object)));
            }
        }
        return writer.write(open, picture.id(), edits);
    }

    private static void refuseScale(Study study, Picture picture) {
        MarkedReading.ScaleOf scale = MarkedReading.scaleOf(study, picture);
        if (picture.scale() != null && scale.scale() == null) {
            throw Problems.unprocessable("scale", scale.missing(), Map.of());
        }
    }

    /** @param kind term, reference, claim, picture or specimen */
    @Transactional
    public StudyWriter.Written remove(StudyAccess.Open open, String kind, String id, long seen) {
        StudyWriter.Locked locked = writer.lock(open);
        Study study = locked.study();
        boolean known = switch (kind) {
            case "term" -> study.glossary().stream().anyMatch(t -> t.id().equals(id));
            case "reference" -> study.references().stream().anyMatch(r -> r.id().equals(id));
            case "claim" -> study.claims().stream().anyMatch(c -> c.id().equals(id));
            case "picture" -> study.pictures().stream().anyMatch(p -> p.id().equals(id));
            case "specimen" -> study.specimens().stream().anyMatch(s -> s.id().equals(id));
            default -> false;
        };
        if (!known) {
            throw Problems.notFound();
        }
        StudyWriter.refuseBroken(
                study,
                study.withPictures(left(study.pictures(), p -> kind.equals("picture") && p.id().equals(id)))
                        .withSpecimens(left(study.specimens(), s -> kind.equals("specimen") && s.id().equals(id))));
        return writer.write(open, id, List.of(new ChangeLog.Edit(StudyObject.of(kind + "/" + id), null, seen)));
    }

    private static <T> List<T> left(List<T> all, Predicate<T> gone) {
        return all.stream().filter(gone.negate()).toList();
    }

    private String idOf(StudyAccess.Open open, String kind, String id, String name) {
        String slug = Slug.of(name);
        return id.isEmpty()
                ? writer.mint(
                        open,
                        kind,
                        slug.length() > LONGEST_ID
                                ? slug.substring(0, LONGEST_ID).replaceAll("-+$", "")
                                : slug,
                        kind.replace("/", ""))
                : id;
    }

    private static <T> List<T> replaced(List<T> all, T one, Function<T, String> id, String known) {
        if (known.isEmpty()) {
            List<T> more = new ArrayList<>(all);
            more.add(one);
            return more;
        }
        if (all.stream().noneMatch(t -> id.apply(t).equals(known))) {
            throw Problems.notFound();
        }
        return all.stream().map(t -> id.apply(t).equals(known) ? one : t).toList();
    }

    private StudyWriter.Written put(StudyAccess.Open open, Kind kind, String id, Object body, long seen) {
        StudyObject object = StudyObject.entry(kind, id);
        return writer.write(open, id, List.of(edit(changes.entryPlaces(open.id()), object, body, seen)));
    }

    private ChangeLog.Edit edit(List<ChangeMapper.Placed> places, StudyObject object, Object body, long seen) {
        boolean known = places.stream().anyMatch(p -> p.id().equals(object.key()));
        double position =
                known ? StudyWriter.position(places, object.key()) : StudyWriter.between(places, null, object.key());
        return writer.edit(object, body, position, known ? seen : 0);
    }
}
