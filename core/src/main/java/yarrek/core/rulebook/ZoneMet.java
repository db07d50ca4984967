package yarrek.core.rulebook;

import java.util.Optional;

/**
 * A zone that the planned area meets in space, height and time.
 *
 * @param id the zone's identity, which an approval may name
 * @param restriction what the zone asks
 * @param onlyEdge the area only touches the zone's edge or its lower limit
 * @param liftedBy reference of the approval that covers it for the whole job
 * @param doubt what is not known and decides whether it is met at all; empty when it is met
 */
public record ZoneMet(
        String id,
        String name,
        Restriction restriction,
        boolean onlyEdge,
        String says,
        Optional<String> liftedBy,
        Optional<String> doubt) {
    public ZoneMet(
            String id, String name, Restriction restriction, boolean onlyEdge, String says, Optional<String> liftedBy) {
        this(id, name, restriction, onlyEdge, says, liftedBy, Optional.empty());
    }

    /** What a zone asks, after (EU) 2019/947 Art 15. */
    public enum Restriction {
        PROHIBITED,
        NEEDS_AUTHORISATION,
        CONDITIONAL,
        NO_RESTRICTION
    }
}
