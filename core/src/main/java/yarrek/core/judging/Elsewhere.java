package yarrek.core.judging;

import java.util.Optional;

/**
 * What other planned jobs say of this one's place and hours: the name of such a job, or empty when there is none.
 *
 * @param emergency one that declares an emergency response at the place
 * @param ofPilot one of the same pilot in these hours
 * @param ofCraft one of the same aircraft in these hours
 * @param ofCrew one of somebody else of the crew in these hours
 * @param late one on the same day from or to which there is too little time
 */
public record Elsewhere(
        Optional<String> emergency,
        Optional<String> ofPilot,
        Optional<String> ofCraft,
        Optional<String> ofCrew,
        Optional<Late> late) {
    public static final Elsewhere NOTHING =
            new Elsewhere(Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty());

    /**
     * Too little time between two jobs.
     *
     * @param gapMin minutes between them
     * @param needsMin minutes that the way takes
     */
    public record Late(String job, double gapMin, double needsMin) {
        public double shortMin() {
            return needsMin - gapMin;
        }
    }
}
