package org.polyclave.server.history;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.store.StudyObject;
import org.polyclave.server.store.StudyObject.Kind;
import org.polyclave.study.model.Slug;
import org.polyclave.study.model.Study;
import org.springframework.stereotype.Component;

/** Writes the small objects of a study one at a time: terms, references, claims, pictures, specimens. */
@Component
public class EntryWriter {
    private static final int LONGEST_ID = 40;

    private final StudyWriter writer;

    EntryWriter(StudyWriter writer) {
        this.writer = writer;
    }

    /** The identifier of an object, or a new one made of a name. */
    public String idOf(OpenStudy open, String kind, String id, String name) {
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

    /** A list with one object in place of the known one, or behind the others if none is known. */
    public static <T> List<T> replaced(List<T> all, T one, Function<T, String> id, String known) {
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

    /** Writes an object where it stands, or behind the others. */
    public StudyWriter.Written put(OpenStudy open, Kind kind, String id, Object body, long baseRevision) {
        StudyObject object = StudyObject.entry(kind, id);
        return writer.write(open, id, List.of(edit(writer.entries(open), object, body, baseRevision)));
    }

    /** The edit that does so. */
    public ChangeLog.Edit edit(Positions places, StudyObject object, Object body, long baseRevision) {
        boolean known = places.has(object.key());
        double position = known ? places.of(object.key()) : places.last(object.key());
        return writer.edit(object, body, position, known ? baseRevision : 0);
    }

    /** Removes an object, after asking the rules what the study would be without it. */
    public StudyWriter.Written remove(
            OpenStudy open, Kind kind, String id, long baseRevision, boolean known, Study before, Study after) {
        if (!known) {
            throw Problems.notFound();
        }
        StudyWriter.refuseBroken(before, after);
        return writer.write(open, id, List.of(new ChangeLog.Edit(StudyObject.entry(kind, id), null, baseRevision)));
    }
}
