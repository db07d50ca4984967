package yarrek.core.paper;

import java.time.Instant;
import java.time.LocalDate;
import java.time.Period;
import java.util.List;
import java.util.Optional;
import yarrek.core.time.TimeWindow;
import yarrek.core.time.Validity;

/**
 * Anything with a validity: registration, certificate, insurance, approval, declaration, permission.
 *
 * @param id stable identity
 * @param kind word of the vocabulary, such as "operatorRegistration" or "pilotCertificate"
 * @param level such as "A2"; empty when the kind has none
 * @param number as printed
 * @param holderKind operator, pilot, aircraft, pack or job
 * @param holderId identity of the holder
 * @param validity from when to when; an end left empty is shown as open and still chased when {@code endKnown} is false
 * @param endKnown false when nobody has said whether or when it ends
 * @param leadDays usual days from asking for a renewal to holding it
 */
public record Paper(
        String id,
        String kind,
        Optional<String> level,
        String number,
        String holderKind,
        String holderId,
        Validity validity,
        boolean endKnown,
        int leadDays) {

    /** Days of safety margin before the lead time (house default). */
    public static final int SAFETY_MARGIN_DAYS = 14;

    /** A paper that ends within this many days is due even when its renewal is quick (house default). */
    public static final int SOON_DAYS = 30;

    /** @throws IllegalArgumentException if the lead time is negative */
    public Paper {
        if (leadDays < 0) {
            throw new IllegalArgumentException("lead time must be 0 days or more, got " + leadDays);
        }
    }

    /** Valid to, less lead time, less safety margin: the last day on which asking is still in time. */
    public Optional<LocalDate> actBy() {
        return validity.validThrough().map(d -> d.minusDays(leadDays).minusDays(SAFETY_MARGIN_DAYS));
    }

    /**
     * The state at an instant, with the jobs that need this paper: in force, act soon (act-by passed or the end within 30
     * days), gap (a needed window is not covered), run out, not yet valid, not known.
     */
    public PaperState state(Instant now, List<TimeWindow> neededFor) {
        if (!endKnown && validity.validThrough().isEmpty()) {
            return PaperState.UNKNOWN;
        }
        if (validity.endExclusive().map(e -> !now.isBefore(e)).orElse(false)) {
            return PaperState.RUN_OUT;
        }
        if (neededFor.stream().anyMatch(w -> !w.end().isBefore(now) && !validity.covers(w))) {
            return PaperState.GAP;
        }
        if (validity.start().map(now::isBefore).orElse(false)) {
            return PaperState.NOT_YET_VALID;
        }
        LocalDate today = now.atZone(validity.zone()).toLocalDate();
        boolean due = actBy().map(d -> !today.isBefore(d)).orElse(false)
                || validity.validThrough()
                        .map(d -> !today.plus(Period.ofDays(SOON_DAYS)).isBefore(d))
                        .orElse(false);
        return due ? PaperState.ACT_SOON : PaperState.IN_FORCE;
    }

    /** How the act-by date came about, for "why?". */
    public String actByWhy() {
        return validity.validThrough()
                .map(d -> "valid to " + d + " − " + leadDays + " days lead time − " + SAFETY_MARGIN_DAYS
                        + " days safety margin = act by " + actBy().orElseThrow())
                .orElse(endKnown ? "no end date: nothing to act on" : "end date not known: find it out");
    }
}
