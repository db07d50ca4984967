package yarrek.core.rulebook;

import java.util.Map;
import java.util.Optional;

/**
 * A zone that the planned area meets in space, height and time.
 *
 * @param id the zone's identity, which an approval may name
 * @param restriction what the zone asks
 * @param onlyEdge the area only touches the zone's edge or its lower limit
 * @param liftedBy reference of the approval that covers it for the whole job
 * @param doubt what is not known and decides whether it is met at all; empty when it is met
 * @param ends whether it does not hold at all times, so that another day or hour may be free of it
 */
public record ZoneMet(
        String id,
        String name,
        Restriction restriction,
        boolean onlyEdge,
        String says,
        Optional<String> liftedBy,
        Optional<String> doubt,
        boolean ends) {
    public ZoneMet(
            String id, String name, Restriction restriction, boolean onlyEdge, String says, Optional<String> liftedBy) {
        this(id, name, restriction, onlyEdge, says, liftedBy, Optional.empty(), false);
    }

    /** What a zone asks, after (EU) 2019/947 Art 15. */
    public enum Restriction {
        PROHIBITED,
        NEEDS_AUTHORISATION,
        CONDITIONAL,
        NO_RESTRICTION
    }

    /** Those that a rule may speak of, as packs write them. */
    static final Map<String, Restriction> RESTRICTIONS = Map.of(
            "prohibited", Restriction.PROHIBITED,
            "needsAuthorisation", Restriction.NEEDS_AUTHORISATION,
            "conditional", Restriction.CONDITIONAL);
}
