package org.polyclave.study.checks;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.polyclave.core.matrix.Cell;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.model.Claim;
import org.polyclave.study.model.RowTree;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;

/** Tests the claims about one character against the matrix. */
final class ClaimCheck {
    private final CompiledStudy compiled;
    private final Study study;
    private final RowTree tree;
    private final int c;
    private final List<StudyFinding> found;

    private ClaimCheck(CompiledStudy compiled, int c, List<StudyFinding> found) {
        this.compiled = compiled;
        study = compiled.study();
        tree = new RowTree(study.rows());
        this.c = c;
        this.found = found;
    }

    static void of(CompiledStudy compiled, int c, List<StudyFinding> found) {
        String character = compiled.characters().get(c).id();
        List<Claim> claims = compiled.study().claims().stream()
                .filter(claim -> claim.character().equals(character))
                .toList();
        if (!claims.isEmpty()) {
            ClaimCheck check = new ClaimCheck(compiled, c, found);
            claims.forEach(check::claim);
        }
    }

    private void claim(Claim claim) {
        StudyCharacter character = compiled.characters().get(c);
        int states = 0;
        for (String state : claim.states()) {
            states |= 1 << character.indexOf(state);
        }
        Set<String> against = new LinkedHashSet<>();
        Set<String> unknown = new LinkedHashSet<>();
        for (int i = 0; i < compiled.rows().size(); i++) {
            boolean own = tree.belongs(compiled.rows().get(i).id(), claim.row());
            if (own || claim.kind() == Claim.Kind.ONLY) {
                Cell cell = compiled.matrix().cell(i, c);
                String name = compiled.rows().get(i).name();
                if (cell instanceof Cell.Unknown) {
                    unknown.add(name);
                } else if (!(own ? ownHolds(cell, states, claim.kind()) : !shows(cell, states))) {
                    against.add(name);
                }
            }
        }
        if (!against.isEmpty()) {
            tell(FindingKind.CLAIM_FAILS, claim, against);
        } else if (!unknown.isEmpty()) {
            tell(FindingKind.CLAIM_UNTESTABLE, claim, unknown);
        }
    }

    private static boolean shows(Cell cell, int states) {
        return cell instanceof Cell.Categorical shown && (shown.support() & states) != 0;
    }

    private static boolean ownHolds(Cell cell, int states, Claim.Kind kind) {
        return switch (kind) {
            case ONLY -> shows(cell, states);
            case ALWAYS -> cell instanceof Cell.Categorical shown && (shown.support() & ~states) == 0;
            case NEVER -> !shows(cell, states);
        };
    }

    private void tell(FindingKind kind, Claim claim, Set<String> rows) {
        found.add(StudyFinding.of(kind, claim.row(), claim.character(), claim.id())
                .with("claim", claim.text())
                .with("means", claim.kind().name())
                .with("row", study.row(claim.row()).map(StudyRow::name).orElse(claim.row()))
                .with("character", compiled.characters().get(c).label())
                .with("rows", List.copyOf(rows)));
    }
}
