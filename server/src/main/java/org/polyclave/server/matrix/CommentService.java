package org.polyclave.server.matrix;

import java.util.List;
import org.polyclave.server.access.OpenStudy;
import org.polyclave.server.matrix.persistence.CommentMapper;
import org.polyclave.server.platform.ProblemCode;
import org.polyclave.server.platform.Problems;
import org.polyclave.server.store.StudyStore;
import org.polyclave.study.model.Study;
import org.springframework.stereotype.Service;

/** Comments on cells: written by whoever scores, read by all members, settled and opened again. */
@Service
public class CommentService {
    private final CommentMapper comments;
    private final StudyStore store;

    CommentService(CommentMapper comments, StudyStore store) {
        this.comments = comments;
        this.store = store;
    }

    public List<CommentMapper.CommentLine> all(OpenStudy open) {
        return comments.all(open.id());
    }

    public List<CommentMapper.CommentLine> write(OpenStudy open, String row, String character, String text) {
        if (text.isBlank()) {
            throw Problems.badRequest(ProblemCode.TEXT, "Write the comment first.");
        }
        Study study = store.load(open.id()).study();
        if (study.row(row).isEmpty() || study.character(character).isEmpty()) {
            throw Problems.badRequest(
                    ProblemCode.NO_SUCH_CELL,
                    "The study has no cell '" + row + "' × '" + character + "'. Load it again.");
        }
        comments.insert(open.id(), row, character, open.account(), text.strip());
        return all(open);
    }

    public List<CommentMapper.CommentLine> settle(OpenStudy open, long id, boolean settled) {
        if (comments.settle(open.id(), id, settled ? open.account() : null) == 0) {
            throw Problems.notFound();
        }
        return all(open);
    }
}
