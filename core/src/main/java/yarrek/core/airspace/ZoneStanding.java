package yarrek.core.airspace;

import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import yarrek.core.rulebook.Assessment;
import yarrek.core.rulebook.Finding;
import yarrek.core.rulebook.Rule;
import yarrek.core.rulebook.Verdict;
import yarrek.core.units.Finite;

/**
 * What a zone that is met means for a plan.
 *
 * @param why in words, with the rule where there is one
 */
public record ZoneStanding(Stands stands, String why) {
    /** How it stands to the plan. */
    public enum Stands {
        BINDS("binds"),
        CAUTION("caution"),
        MAKERS_MAP("maker's map"),
        MAKERS_MAP_CLEAR("maker's map"),
        NOT_KNOWN("not known"),
        NO_CONCERN("does not concern it");

        private final String words;

        Stands(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        /** Whether the plan has to reckon with it as law. */
        public boolean isPressing() {
            return this == BINDS || this == NOT_KNOWN;
        }
    }

    /**
     * @param massG take-off mass in grams, the most it can be; empty when not known
     * @param judged what the rules say of the plan
     */
    public static ZoneStanding of(SiteLook.Met m, OptionalDouble massG, Assessment judged) {
        Zone z = m.zone();
        if (!z.kind().isLaw()) {
            return new ZoneStanding(
                    m.meeting() == Zone.Meeting.CLEAR ? Stands.MAKERS_MAP_CLEAR : Stands.MAKERS_MAP,
                    "Not law. The motors may refuse without an unlock.");
        }
        if (m.inForce().isEmpty()) {
            return none("Not in force in these hours: " + z.times().words() + ".");
        }
        if (m.height() == Zone.Meeting.CLEAR) {
            return none(sentence(m.whyHeight()));
        }
        if (!AirspaceFacts.asks(z) && !z.isControlled()) {
            return none("It asks nothing of unmanned aircraft, as published.");
        }
        if (!z.bindsAt(massG)) {
            return none("Binds from " + Finite.format(z.bindsFromG().getAsDouble()) + " g; this build weighs "
                    + Finite.format(massG.getAsDouble()) + " g.");
        }
        if (m.meeting() == Zone.Meeting.NOT_KNOWN) {
            return new ZoneStanding(Stands.NOT_KNOWN, sentence(m.whyHeight()));
        }
        return byRule(z, judged);
    }

    private static ZoneStanding none(String why) {
        return new ZoneStanding(Stands.NO_CONCERN, why);
    }

    private static String sentence(String s) {
        return Character.toUpperCase(s.charAt(0)) + s.substring(1) + ".";
    }

    /** The rules that speak of such a zone: binding when one of them applies to this plan. */
    private static ZoneStanding byRule(Zone z, Assessment judged) {
        Set<String> facts = AirspaceFacts.namesOf(z);
        List<Finding> speaking = judged.findings().stream()
                .filter(f -> speaksOf(f.rule(), z, facts))
                .toList();
        if (speaking.isEmpty()) {
            return new ZoneStanding(
                    Stands.BINDS, "No rule of the packs speaks of it by kind; the zone itself binds as published.");
        }
        return speaking.stream()
                .filter(f -> f.verdict() != Verdict.NOT_APPLICABLE)
                .findFirst()
                .map(f -> new ZoneStanding(
                        Stands.BINDS,
                        f.rule().title() + " (" + f.rule().source().citation() + ")."))
                .orElseGet(() -> doesNotApply(speaking.get(0).rule()));
    }

    private static ZoneStanding doesNotApply(Rule r) {
        return new ZoneStanding(
                Stands.CAUTION,
                "For this build " + r.id() + " does not apply: it applies when "
                        + r.appliesWhen().when()
                        + ". Crewed aircraft may still be there; keep low and ready to land.");
    }

    private static boolean speaksOf(Rule r, Zone z, Set<String> facts) {
        return r.requires().zones().equals(Optional.of(z.restriction()))
                || r.appliesWhen().factNames().stream().anyMatch(facts::contains)
                || r.requires().factNames().stream().anyMatch(facts::contains);
    }
}
