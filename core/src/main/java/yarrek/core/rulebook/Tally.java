package yarrek.core.rulebook;

import java.util.Collection;

/**
 * Findings counted, law apart from the rest; those departed from, or not breached while a stricter rule binds, are not.
 *
 * @param departures breaches of house, maker and guidance
 */
public record Tally(int law, int departures, int notKnown, int close, Go go) {
    /** Whether anything stands in the way. */
    public enum Go {
        GO,
        /** Nothing forbids it, but something can only be said on the day. */
        ON_THE_DAY,
        NO_GO
    }

    public static Tally of(Collection<? extends Standing> findings) {
        int law = 0;
        int departures = 0;
        int notKnown = 0;
        int close = 0;
        Go go = Go.GO;
        for (Standing f : findings) {
            if (f.blocks()) {
                go = Go.NO_GO;
            } else if (f.waitsForTheDay() && go == Go.GO) {
                go = Go.ON_THE_DAY;
            }
            if (f.isOpen()) {
                switch (f.verdict()) {
                    case BREACHED -> {
                        law += f.law() ? 1 : 0;
                        departures += f.law() ? 0 : 1;
                    }
                    case NOT_KNOWN -> notKnown++;
                    default -> close++;
                }
            }
        }
        return new Tally(law, departures, notKnown, close, go);
    }

    public int breached() {
        return law + departures;
    }
}
