package org.polyclave.server.picture;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.history.ChangeLog;
import org.polyclave.server.history.EntryWriter;
import org.polyclave.server.history.Positions;
import org.polyclave.server.history.StudyWriter;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.store.PictureStore;
import org.polyclave.server.store.StudyObject;
import org.polyclave.server.store.StudyObject.Kind;
import org.polyclave.study.measuring.MarkedReading;
import org.polyclave.study.model.Picture;
import org.polyclave.study.model.Reading;
import org.polyclave.study.model.Study;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Pictures of a study and what is said about them. */
@Service
public class PictureService {
    private final StudyWriter writer;
    private final EntryWriter entries;
    private final PictureStore pictures;

    PictureService(StudyWriter writer, EntryWriter entries, PictureStore pictures) {
        this.writer = writer;
        this.entries = entries;
        this.pictures = pictures;
    }

    /** Adds a picture; its file was cleaned. */
    @Transactional
    public StudyWriter.Written addPicture(OpenStudy open, PictureStore.Cleaned cleaned, Picture draft) {
        StudyWriter.Locked locked = writer.lock(open);
        Study study = locked.study();
        Picture picture = draft.withId(entries.idOf(open, "picture/", "", draft.shows()));
        List<Picture> all = EntryWriter.replaced(study.pictures(), picture, Picture::id, "");
        StudyWriter.refuseBroken(study, study.withPictures(all));
        pictures.keep(open.id(), cleaned);
        return entries.put(open, Kind.PICTURE, picture.id(), picture, 0);
    }

    /** Writes what is said about a picture; what is in it stays. When its scale changes, what was measured with it is computed again. */
    @Transactional
    public StudyWriter.Written putPicture(OpenStudy open, Picture draft, long baseRevision) {
        StudyWriter.Locked locked = writer.lock(open);
        Study study = locked.study();
        Picture known = study.pictures().stream()
                .filter(p -> p.id().equals(draft.id()))
                .findFirst()
                .orElseThrow(Problems::notFound);
        Picture picture = known.withCaptionOf(draft);
        List<Picture> all = EntryWriter.replaced(study.pictures(), picture, Picture::id, draft.id());
        Study after = study.withPictures(all);
        if (!Objects.equals(picture.scale(), known.scale())) {
            after = MarkedReading.reread(after, picture.id());
            refuseScale(after, picture);
        }
        StudyWriter.refuseBroken(study, after);
        Positions places = writer.entries(open);
        List<ChangeLog.Edit> edits = new ArrayList<>();
        edits.add(entries.edit(places, StudyObject.entry(Kind.PICTURE, picture.id()), picture, baseRevision));
        for (int i = 0; i < after.readings().size(); i++) {
            Reading reading = after.readings().get(i);
            if (!reading.equals(study.readings().get(i))) {
                StudyObject object = StudyObject.entry(Kind.READING, reading.id());
                edits.add(
                        entries.edit(places, object, reading, locked.snapshot().revision(object)));
            }
        }
        return writer.write(open, picture.id(), edits);
    }

    private static void refuseScale(Study study, Picture picture) {
        MarkedReading.ScaleOf scale = MarkedReading.scaleOf(study, picture);
        if (picture.scale() != null && scale.scale() == null) {
            throw Problems.unprocessable(ProblemCode.SCALE, scale.missing(), Map.of());
        }
    }

    @Transactional
    public StudyWriter.Written remove(OpenStudy open, String id, long baseRevision) {
        Study study = writer.lock(open).study();
        List<Picture> left =
                study.pictures().stream().filter(p -> !p.id().equals(id)).toList();
        return entries.remove(
                open,
                Kind.PICTURE,
                id,
                baseRevision,
                left.size() < study.pictures().size(),
                study,
                study.withPictures(left));
    }
}
