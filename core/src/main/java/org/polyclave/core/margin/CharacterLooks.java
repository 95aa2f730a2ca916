package org.polyclave.core.margin;

import java.util.List;
import org.polyclave.core.evidence.Look;

/**
 * What somebody saw in one character: one or more independent looks at one individual, by another part of it or by another
 * person.
 *
 * @param looks in their order; those beyond {@link #MOST} do not count
 * @param rough told by a rule of thumb: it may speak for a danger, never against it
 */
public record CharacterLooks(int character, List<Look> looks, boolean rough) {
    /** As many looks at one character count. */
    public static final int MOST = 4;

    public CharacterLooks {
        looks = List.copyOf(looks);
    }
}
