package yarrek.core.approval;

import java.time.Instant;
import java.time.LocalDate;
import java.util.Collection;
import java.util.EnumSet;
import java.util.Optional;
import java.util.Set;
import yarrek.core.time.TimeWindow;

/**
 * How far a maker's unlock has come on one aircraft. Motors turn only after the last stage; each stage is somebody's word at
 * a time, and none follows from another.
 *
 * @param done stages said to be done
 * @param perPowerOn whether it must be confirmed again at every power-on
 */
public record UnlockLife(Set<Stage> done, boolean perPowerOn) {
    /** In the order in which they are gone through. */
    public enum Stage {
        GRANTED("granted", true),
        LOADED("loaded on the aircraft", true),
        SWITCHED_ON("switched on", false),
        CONDITIONS_ACCEPTED("conditions accepted", false),
        CONFIRMED("confirmed at power-on", false);

        private final String words;
        private final boolean signal;

        Stage(String words, boolean signal) {
            this.words = words;
            this.signal = signal;
        }

        public String words() {
            return words;
        }

        /** Whether it needs a telephone or a connection. */
        public boolean needsSignal() {
            return signal;
        }
    }

    /** Whether the hour of a power-on lies in the window granted. */
    public enum Hour {
        NOT_YET("not yet within its hours"),
        VALID("within its hours"),
        OVER("its hours are over");

        private final String words;

        Hour(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    public UnlockLife {
        done = done.isEmpty() ? Set.of() : Set.copyOf(done);
    }

    public static UnlockLife of(Collection<Stage> done, boolean perPowerOn) {
        return new UnlockLife(done.isEmpty() ? EnumSet.noneOf(Stage.class) : EnumSet.copyOf(done), perPowerOn);
    }

    /** The first stage that nobody has said is done; empty when all are. A later one does not stand for an earlier. */
    public Optional<Stage> next() {
        for (Stage s : Stage.values()) {
            if (!done.contains(s)) {
                return Optional.of(s);
            }
        }
        return Optional.empty();
    }

    public boolean isReady() {
        return next().isEmpty();
    }

    /** Both ends of the window count as valid. */
    public static Hour at(TimeWindow granted, Instant powerOn) {
        return powerOn.isBefore(granted.start())
                ? Hour.NOT_YET
                : powerOn.isAfter(granted.end()) ? Hour.OVER : Hour.VALID;
    }

    /**
     * Minutes that confirming adds to a job: once a day, or at every power-on, which each change of pack is.
     *
     * @param minutes for one confirmation, zero or more
     * @param packs flown a day, one or more
     */
    public double minutesADay(double minutes, int packs) {
        if (!(minutes >= 0 && minutes <= 1_000) || packs < 1) {
            throw new IllegalArgumentException(
                    "minutes must be 0 to 1,000 and packs 1 or more, got " + minutes + ", " + packs);
        }
        return perPowerOn ? minutes * packs : minutes;
    }

    /** The working day on or before which every stage is to be tried at base. */
    public static LocalDate rehearseBy(LocalDate firstDay, int daysBefore, WorkDays calendar) {
        return calendar.onOrBefore(firstDay.minusDays(daysBefore));
    }
}
