package yarrek.core.judging;

/**
 * Something to be filmed or photographed on a job. A null is not said.
 *
 * @param heightM above ground, metres
 * @param distanceM from the pilot, metres
 * @param minutes in the air for it
 * @param resolution as the camera names it, such as "3840 × 2160"; empty when not said
 * @param framesPerS 0 for a still
 */
public record Shot(
        Kind kind,
        String what,
        Double heightM,
        Double distanceM,
        Double minutes,
        String resolution,
        Double framesPerS,
        String filter,
        String notes) {
    /** How it is seen. */
    public enum Kind {
        WIDE("wide"),
        LOW("low"),
        REVEAL("reveal"),
        DETAIL("detail"),
        ORBIT("orbit"),
        FOLLOW("follow"),
        DOWN("straight down");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    public Shot {
        what = what == null ? "" : what.strip();
        resolution = resolution == null ? "" : resolution.strip();
        filter = filter == null ? "" : filter.strip();
        notes = notes == null ? "" : notes.strip();
    }

    /** What it is called where only one word is wanted. */
    public String name() {
        return what.isEmpty() ? kind == null ? "no name" : kind.words() : what;
    }
}
