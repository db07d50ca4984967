package yarrek.core.judging;

import java.util.Optional;

/**
 * What other planned jobs say of this one's place and hours: the name of such a job, or empty when there is none.
 *
 * @param emergency one that declares an emergency response at the place
 * @param ofPilot one of the same pilot in these hours
 * @param ofCraft one of the same aircraft in these hours
 */
public record Elsewhere(Optional<String> emergency, Optional<String> ofPilot, Optional<String> ofCraft) {
    public static final Elsewhere NOTHING = new Elsewhere(Optional.empty(), Optional.empty(), Optional.empty());
}
