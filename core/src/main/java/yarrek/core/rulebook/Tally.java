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
        GO("go", "Go, as far as was checked"),
        /** Nothing forbids it, but something can only be said on the day. */
        ON_THE_DAY("go, day to confirm", "Go, if the day confirms what can only be said then"),
        NO_GO("no-go", "No-go as planned");

        private final String words;
        private final String says;

        Go(String words, String says) {
            this.words = words;
            this.says = says;
        }

        /** For a list. */
        public String words() {
            return words;
        }

        /** The line on top of a job. */
        public String says() {
            return says;
        }

        /** For a list, with what is departed from: a go never hides it. */
        public String words(int departures) {
            return words + departed(departures);
        }

        /** The line on top of a job, with what is departed from. */
        public String says(int departures) {
            return says + departed(departures);
        }

        private String departed(int n) {
            return this == NO_GO || n == 0
                    ? ""
                    : ", " + n + (n == 1 ? " departure" : " departures") + " from house rules";
        }
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

    /** Name of the status shape: by the worst of what stands open. */
    public String shape() {
        return shape(breached(), notKnown, close);
    }

    /** The same for counts that are kept without their findings. */
    public static String shape(int breached, int notKnown, int close) {
        return breached > 0 ? "notch" : notKnown > 0 ? "dots" : close > 0 ? "cut" : "full";
    }

    public boolean isNoGo() {
        return go == Go.NO_GO;
    }

    public int breached() {
        return law + departures;
    }
}
