package yarrek.core.judging;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.UUID;
import yarrek.core.approval.Cover;
import yarrek.core.approval.Terms;
import yarrek.core.rulebook.Bound;
import yarrek.core.rulebook.Condition;
import yarrek.core.rulebook.Duty;
import yarrek.core.rulebook.Layer;
import yarrek.core.rulebook.Limit;
import yarrek.core.rulebook.QuantityWithin;
import yarrek.core.rulebook.Requirement;
import yarrek.core.rulebook.Rule;
import yarrek.core.rulebook.Severity;
import yarrek.core.rulebook.Source;
import yarrek.core.rulebook.YesNoIs;

/**
 * The rules that what is granted for a job makes: each approval's own ceiling and conditions on the days it is for, and area,
 * hours, aircraft and pilot of all of them together.
 */
final class TermRules {
    private static final int LONGEST_TITLE = 160;
    private static final int LONGEST_CITATION = 200;

    /** A sliver of rounding along a shared edge is no departure, neither in metres nor in minutes. */
    private static final double SLIVER = 0.5;

    private TermRules() {}

    static List<Rule> of(List<ApprovalOnFile> requests) {
        List<Rule> rules = new ArrayList<>();
        List<ApprovalOnFile> held =
                requests.stream().filter(ApprovalOnFile::held).toList();
        held.forEach(a -> own(a, rules));
        List<ApprovalOnFile> limiting =
                held.stream().filter(a -> !a.terms().equals(Terms.NONE)).toList();
        if (limiting.isEmpty()) {
            return rules;
        }
        LocalDate read = limiting.stream()
                .map(TermRules::read)
                .max(Comparator.naturalOrder())
                .orElseThrow();
        String cite = "approvals " + cut(ApprovalOnFile.numbers(limiting), LONGEST_CITATION);
        if (limits(limiting, Cover.Dimension.AREA)) {
            rules.add(rule(
                    "APPROVED-AREA",
                    "Inside the area approved",
                    "place",
                    atMost("approval.outsideM", SLIVER),
                    cite,
                    read,
                    "Fly inside it, or have the approval amended."));
        }
        if (limits(limiting, Cover.Dimension.TIME)) {
            rules.add(rule(
                    "APPROVED-HOURS",
                    "Within the hours approved",
                    "time",
                    atMost("approval.outsideMinutes", SLIVER),
                    cite,
                    read,
                    "Fly within them, or have the approval amended."));
        }
        if (limits(limiting, Cover.Dimension.AIRCRAFT)) {
            rules.add(rule(
                    "APPROVED-AIRCRAFT",
                    "Aircraft named on the approvals",
                    "aircraft",
                    new YesNoIs("approval.aircraftNamed", true),
                    cite,
                    read,
                    "Fly one that is named, or have this one added."));
        }
        if (limits(limiting, Cover.Dimension.PILOTS)) {
            rules.add(rule(
                    "APPROVED-PILOT",
                    "Pilot named on the approvals",
                    "people",
                    new YesNoIs("approval.pilotNamed", true),
                    cite,
                    read,
                    "Have one fly who is named, or have this one added."));
        }
        return rules;
    }

    private static void own(ApprovalOnFile a, List<Rule> rules) {
        String cite = "approval " + a.reference() + " of " + a.granter();
        Optional<LocalDate> last = Optional.of(a.lastDay());
        if (a.terms().ceilingM() != null) {
            rules.add(rule(
                    stem(a.id()) + "CEILING",
                    "Ceiling of " + a.reference(),
                    "height",
                    a.firstDay(),
                    last,
                    atMost("heightAboveGroundM", a.terms().ceilingM()),
                    cite,
                    read(a),
                    "Stay at or below it, or have the approval amended."));
        }
        int n = 0;
        for (String line : a.conditions().split("\\R")) {
            if (!line.isBlank()) {
                n++;
                rules.add(rule(
                        stem(a.id()) + "C" + n,
                        "Condition " + n + " of " + a.reference(),
                        "conduct",
                        a.firstDay(),
                        last,
                        new Duty(line.strip(), 0, ChronoUnit.DAYS, "occurrence.awareAt"),
                        cite,
                        read(a),
                        "Keep it; it is part of what was granted."));
            }
        }
    }

    /** The day from which its terms are as they stand: that of the grant, or where it was not kept, its first day. */
    private static LocalDate read(ApprovalOnFile a) {
        return a.grantedOn() == null ? a.firstDay() : a.grantedOn();
    }

    private static String stem(UUID id) {
        return "APP-" + id.toString().substring(0, 8).toUpperCase(Locale.ROOT) + "-";
    }

    /** Whether at least one approval does not leave the dimension open. */
    private static boolean limits(List<ApprovalOnFile> held, Cover.Dimension dimension) {
        return held.stream().anyMatch(a -> !a.terms().leavesOpen(dimension));
    }

    private static Requirement atMost(String fact, double limit) {
        return new QuantityWithin(fact, Bound.AT_MOST, new Limit.Constant(limit));
    }

    private static Rule rule(
            String id, String title, String phase, Requirement requires, String cite, LocalDate read, String remedy) {
        return rule(id, title, phase, LocalDate.EPOCH, Optional.empty(), requires, cite, read, remedy);
    }

    private static Rule rule(
            String id,
            String title,
            String phase,
            LocalDate from,
            Optional<LocalDate> through,
            Requirement requires,
            String cite,
            LocalDate read,
            String remedy) {
        return new Rule(
                id,
                cut(title, LONGEST_TITLE),
                Layer.APPROVAL,
                Optional.empty(),
                from,
                through,
                Condition.always(),
                Condition.never(),
                requires,
                Severity.STOP,
                remedy,
                new Source(cite, read, "high", "", ""),
                Rule.Scope.BOTH,
                false,
                phase,
                "",
                "");
    }

    private static String cut(String s, int most) {
        return s.length() > most ? s.substring(0, most - 1) + "…" : s;
    }
}
