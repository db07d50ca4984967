package yarrek.core.rulebook;

import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import yarrek.core.time.TimeWindow;

/**
 * What is known of a job or a flight, each value with its source. Absent means not known. Lists that may be unknown as a
 * whole (papers, zones) are empty {@code Optional}s until somebody has looked. Immutable.
 */
public class Facts {
    /** Begins the source of what a flight takes over from its plan. */
    static final String AS_PLANNED = "as planned: ";

    /** A value and where it came from. */
    public record Known(FactValue value, String source) {}

    private static final String TAKEOFF_MASS = "takeoffMassG";
    private static final String DECLARED_MASS = "maxTakeoffMassG";
    private static final String CLASS_MASS = "classMassG";
    private static final String GREATER_MASS = "greaterMassG";

    private final Map<String, Known> values;
    private final List<TimeWindow> windows;
    private final List<LocalDate> days;
    private final ZoneId zone;
    private final Optional<List<PaperHeld>> papers;
    private final Optional<List<ZoneMet>> zones;
    private final List<ApprovalHeld> approvals;
    private final List<WaiverHeld> waivers;
    private final List<Rule> granted;
    private final java.util.Set<String> unnamed;

    private Facts(Builder b) {
        this.unnamed = java.util.Set.copyOf(b.unnamed);
        Map<String, Known> all = new LinkedHashMap<>(b.values);
        classMass(all);
        this.values = Collections.unmodifiableMap(all);
        this.waivers = List.copyOf(b.waivers);
        this.granted = List.copyOf(b.granted);
        this.windows = List.copyOf(b.windows);
        this.zone = b.zone;
        this.days = days(windows, zone);
        this.papers = Optional.ofNullable(b.papers).map(List::copyOf);
        this.zones = Optional.ofNullable(b.zones).map(List::copyOf);
        this.approvals = List.copyOf(b.approvals);
    }

    /** For a view of another set of facts. */
    Facts(Facts other) {
        this.values = other.values;
        this.windows = other.windows;
        this.days = other.days;
        this.zone = other.zone;
        this.papers = other.papers;
        this.zones = other.zones;
        this.approvals = other.approvals;
        this.waivers = other.waivers;
        this.granted = other.granted;
        this.unnamed = other.unnamed;
    }

    /**
     * Classes go by the declared take-off mass, which the real one must not exceed: the greater of the two decides, each
     * with its uncertainty. In Europe and Britain what is not declared is not known, so the real mass is only the least that
     * it can be ((EU) 2019/947 Art 2(22), UAS.OPEN.060(1)(e)); elsewhere the real mass stands for it, and the declared one
     * is asked for beside it (CAR 900.01 "maximum take-off weight").
     */
    private static void classMass(Map<String, Known> all) {
        Known real = all.get(TAKEOFF_MASS);
        Known declared = all.get(DECLARED_MASS);
        if (real == null && declared == null) {
            all.remove(CLASS_MASS);
            all.remove(GREATER_MASS);
            return;
        }
        FactValue.Quantity r = real == null ? null : (FactValue.Quantity) real.value();
        FactValue.Quantity d = declared == null ? null : (FactValue.Quantity) declared.value();
        FactValue.Quantity mass;
        String source;
        if (d == null) {
            mass = FactValue.Quantity.atLeast(r.value(), r.below());
            source = "real take-off mass, while no greatest one is declared: " + real.source();
        } else if (r == null) {
            mass = FactValue.Quantity.atLeast(d.value(), d.below());
            source = "declared, while the build has not been chosen: " + declared.source();
        } else {
            double value = Math.max(r.value(), d.value());
            mass = new FactValue.Quantity(
                    value, value - Math.max(r.low(), d.low()), Math.max(r.high(), d.high()) - value);
            source = d.value() > r.value()
                    ? "declared, more than it weighs: " + declared.source()
                    : "real mass, not less than is declared: " + real.source();
        }
        all.put(CLASS_MASS, new Known(mass, source));
        all.put(GREATER_MASS, d == null || r == null ? d == null ? real : declared : new Known(mass, source));
    }

    /** The fact that would settle a quantity of which only the least is known. */
    static String settles(String fact) {
        return fact.equals(CLASS_MASS) ? DECLARED_MASS : fact;
    }

    public static Builder builder(ZoneId zone) {
        return new Builder(zone);
    }

    /**
     * For a flown flight, while what its plan says comes in: of that it takes what holds of plan and flight alike, what no
     * log records as planned, and nothing of which a flight has its own figure; see {@link FactDefinition.SaidOf}.
     */
    public static Builder ofFlight(ZoneId zone) {
        Builder b = new Builder(zone);
        b.ofPlanOfFlight = true;
        return b;
    }

    public Builder toBuilder() {
        Builder b = new Builder(zone);
        b.values.putAll(values);
        b.windows.addAll(windows);
        b.papers = papers.<List<PaperHeld>>map(ArrayList::new).orElse(null);
        b.zones = zones.<List<ZoneMet>>map(ArrayList::new).orElse(null);
        b.approvals.addAll(approvals);
        b.waivers.addAll(waivers);
        b.granted.addAll(granted);
        b.unnamed.addAll(unnamed);
        return b;
    }

    /** Rules that the terms of what is granted make. */
    public List<Rule> granted() {
        return granted;
    }

    public Optional<Known> get(String name) {
        return Optional.ofNullable(values.get(name));
    }

    /** The quantity, or null when it is not known. */
    FactValue.Quantity quantity(String name) {
        Known k = values.get(name);
        return k == null ? null : (FactValue.Quantity) k.value();
    }

    public Map<String, Known> values() {
        return values;
    }

    /** The stretches in which it is flown: one for each day of a job, or the flight itself. */
    public List<TimeWindow> windows() {
        return windows;
    }

    public ZoneId zone() {
        return zone;
    }

    public Optional<List<PaperHeld>> papers() {
        return papers;
    }

    public Optional<List<ZoneMet>> zones() {
        return zones;
    }

    /** Whether nobody has said yet who or what stands in a role, such as the pilot or the aircraft: its papers are not known. */
    boolean isUnnamed(String role) {
        return unnamed.contains(role);
    }

    public List<ApprovalHeld> approvals() {
        return approvals;
    }

    public List<WaiverHeld> waivers() {
        return waivers;
    }

    /** The law of the place, such as "EU-DE"; empty when nobody has said. */
    public Optional<String> place() {
        return get("jurisdiction").map(k -> ((FactValue.Word) k.value()).value());
    }

    /** References of the approvals that lift something, by the id of what they lift. */
    public Map<String, String> lifted() {
        Map<String, String> byId = new java.util.HashMap<>();
        approvals.forEach(a -> a.lifts().forEach(z -> byId.put(z, a.reference())));
        return byId;
    }

    /** Local dates on which it is flown. */
    public List<LocalDate> days() {
        return days;
    }

    private static List<LocalDate> days(List<TimeWindow> windows, ZoneId zone) {
        return windows.stream()
                .flatMap(w -> w.start()
                        .atZone(zone)
                        .toLocalDate()
                        .datesUntil(w.end().atZone(zone).toLocalDate().plusDays(1)))
                .distinct()
                .toList();
    }

    /** Gathers facts; a value of the wrong type for its name is refused. */
    public static final class Builder {
        private final Map<String, Known> values = new LinkedHashMap<>();
        private final List<TimeWindow> windows = new ArrayList<>();
        private final ZoneId zone;
        private List<PaperHeld> papers;
        private List<ZoneMet> zones;
        private final List<ApprovalHeld> approvals = new ArrayList<>();
        private final List<WaiverHeld> waivers = new ArrayList<>();
        private final List<Rule> granted = new ArrayList<>();
        private final java.util.Set<String> unnamed = new java.util.HashSet<>();

        private boolean ofPlanOfFlight;

        private Builder(ZoneId zone) {
            this.zone = zone;
        }

        /** Rules that the terms of what is granted make, in place of those put before. */
        public Builder granted(List<Rule> rules) {
            granted.clear();
            granted.addAll(rules);
            return this;
        }

        /** @throws IllegalArgumentException if the name is not in the vocabulary or the value has another type */
        public Builder with(String name, FactValue value, String source) {
            FactDefinition definition = Vocabulary.define(name);
            if (definition.type() != value.type()) {
                throw new IllegalArgumentException(name + " takes a " + definition.type() + ", got a " + value.type());
            }
            if (value instanceof FactValue.Words all
                    && !definition.words().isEmpty()
                    && !definition.words().containsAll(all.values())) {
                throw new IllegalArgumentException(name + " takes " + definition.words() + ", got " + all.values());
            }
            if (value instanceof FactValue.Word w
                    && !definition.words().isEmpty()
                    && !definition.words().contains(w.value())) {
                throw new IllegalArgumentException(
                        name + " must be one of " + definition.words() + ", got '" + w.value() + "'");
            }
            if (ofPlanOfFlight && definition.saidOf() != FactDefinition.SaidOf.BOTH) {
                if (definition.saidOf() != FactDefinition.SaidOf.PLAN) {
                    return this;
                }
                values.put(name, new Known(value, AS_PLANNED + source));
                return this;
            }
            values.put(name, new Known(value, source));
            return this;
        }

        public Builder quantity(String name, double value, double uncertainty, String source) {
            return with(name, new FactValue.Quantity(value, uncertainty), source);
        }

        /** A quantity of which only the least it can be is known. */
        public Builder atLeast(String name, double value, String source) {
            return with(name, FactValue.Quantity.atLeast(value, 0), source);
        }

        public Builder yesNo(String name, boolean value, String source) {
            return with(name, new FactValue.YesNo(value), source);
        }

        public Builder word(String name, String value, String source) {
            return with(name, new FactValue.Word(value), source);
        }

        /** From here on it is what was measured in flight or is on file of it, and comes in as it is. */
        public Builder measured() {
            ofPlanOfFlight = false;
            return this;
        }

        public Builder without(String name) {
            values.remove(name);
            return this;
        }

        /** Puts these stretches in place of those there were. */
        public Builder windows(List<TimeWindow> all) {
            windows.clear();
            windows.addAll(all);
            return this;
        }

        public Builder window(TimeWindow window) {
            windows.add(window);
            return this;
        }

        public Builder papers(List<PaperHeld> held) {
            papers = new ArrayList<>(held);
            return this;
        }

        public Builder zones(List<ZoneMet> met) {
            zones = new ArrayList<>(met);
            return this;
        }

        public Builder approval(ApprovalHeld approval) {
            approvals.add(approval);
            return this;
        }

        /** Nobody is named for a role yet. */
        public Builder unnamed(String role) {
            unnamed.add(role);
            return this;
        }

        public Builder waiver(WaiverHeld waiver) {
            waivers.add(waiver);
            return this;
        }

        public Builder date(String name, LocalDate value, String source) {
            return with(name, new FactValue.Date(value), source);
        }

        public Facts build() {
            return new Facts(this);
        }
    }
}
