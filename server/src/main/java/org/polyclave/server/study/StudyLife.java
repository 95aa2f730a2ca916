package org.polyclave.server.study;

import java.util.List;
import java.util.Map;
import org.polyclave.demo.DemoStudies;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.account.Account;
import org.polyclave.server.job.Retention;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.store.StudyStore;
import org.polyclave.server.study.persistence.StudyListMapper;
import org.polyclave.study.model.Slug;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyScope;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** How studies begin, and how they end: put away, or deleted with a month in which they can be had back. */
@Service
public class StudyLife implements Retention {
    private static final int DAYS_OF_GRACE = 30;

    private final StudyListMapper studies;
    private final StudyStore store;

    StudyLife(StudyListMapper studies, StudyStore store) {
        this.studies = studies;
        this.store = store;
    }

    /** A new study of the account's own, with nothing in it yet. */
    public String begin(String title, Account who) {
        Study empty =
                new Study(slug(title), title.strip(), StudyScope.EMPTY, List.of(), List.of(), List.of(), List.of());
        return store.create(empty, who.id());
    }

    /** A study to try things with: made up, and the account's own. */
    public String sample(Account who) {
        Study made = DemoStudies.tussocks();
        return store.create(named(made, "Sample: " + made.title()), who.id());
    }

    /** The same study once more, of the account's own: without its history, its comments, and opinions that nobody accepted. */
    public String copy(OpenStudy open, String title, Account who) {
        Study study = store.load(open.id()).study().withOpinions(List.of());
        return store.copy(named(study, title.strip()), open.id(), who.id());
    }

    private static Study named(Study study, String title) {
        return study.named(slug(title), title);
    }

    private static String slug(String title) {
        return Slug.of(title).isEmpty() ? "study" : Slug.of(title);
    }

    /** Gives a study another address; what stands in links and lists of references stays once an edition is published. */
    @Transactional
    public String move(OpenStudy open, String address) {
        String slug = Slug.of(address);
        if (slug.isEmpty()) {
            throw Problems.unprocessable(
                    ProblemCode.ADDRESS, "An address is made of letters and digits. Write some.", Map.of());
        }
        if (studies.isTaken(slug, open.id())) {
            throw Problems.unprocessable(
                    ProblemCode.ADDRESS, "Another study has the address '" + slug + "'. Choose another one.", Map.of());
        }
        if (studies.move(open.id(), slug) == 0) {
            throw Problems.conflict(
                    ProblemCode.PUBLISHED, "Its editions are found by its address, so it stays as it is.", Map.of());
        }
        return slug;
    }

    /** Puts a study away, or takes it out again; it can be opened all the same. */
    public void archive(OpenStudy open, boolean archived) {
        studies.archive(open.id(), archived);
    }

    /** Nobody opens it any more; its owners can have it back for a month. */
    @Transactional
    public void delete(OpenStudy open, String title) {
        if (!title.strip().equals(open.title().strip())) {
            throw Problems.unprocessable(
                    ProblemCode.TITLE, "Type the title of the study as it stands: " + open.title() + ".", Map.of());
        }
        if (studies.delete(open.id()) == 0) {
            throw Problems.conflict(
                    ProblemCode.PUBLISHED,
                    "Readers rely on its editions, so this study cannot be deleted. Archive it instead; editions that"
                            + " must not be used any more can be withdrawn.",
                    Map.of());
        }
    }

    /** Has a deleted study back. */
    public void restore(String slug, Account who) {
        studies.restore(studies.deleted(slug, who.id()).orElseThrow(Problems::notFound));
    }

    @Override
    public void forget() {
        studies.purge(DAYS_OF_GRACE);
    }
}
