package yarrek.app.rulebook;

import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import yarrek.core.rulebook.Tally;
import yarrek.core.rulebook.Verdict;

/**
 * An assessment as stored: findings, the facts they rest on with their sources, and the pack versions. A year later it
 * shows what was known then.
 *
 * @param judgedAt when it was judged last; null while it is not stored
 */
public record AssessmentRow(
        List<FindingRow> findings, List<FactRow> facts, List<String> packs, String heads, Instant judgedAt) {
    /** One that is not stored yet. */
    public AssessmentRow(List<FindingRow> findings, List<FactRow> facts, List<String> packs, String heads) {
        this(findings, facts, packs, heads, null);
    }

    /** A fact as it was: its label, value as shown, and where it came from. */
    public record FactRow(String name, String label, String value, String source) {}

    public List<FindingRow> with(String verdict) {
        return findings.stream().filter(f -> f.verdict().name().equals(verdict)).toList();
    }

    /** Met and binding; those a stricter rule beats are folded below it. */
    public List<FindingRow> metAndBinding() {
        return findings.stream()
                .filter(f -> f.verdict() == Verdict.MET && f.beatenBy() == null)
                .toList();
    }

    public List<FindingRow> beaten() {
        return findings.stream()
                .filter(f -> f.verdict() != Verdict.NOT_APPLICABLE
                        && f.verdict() != Verdict.DUTY
                        && f.beatenBy() != null
                        && f.verdict() != Verdict.BREACHED)
                .toList();
    }

    /** Breaches of law, or else departures from house, maker and guidance that nobody has recorded. */
    public List<FindingRow> breaches(boolean law) {
        return findings.stream()
                .filter(f -> f.verdict() == Verdict.BREACHED && f.law() == law && f.waiver() == null)
                .toList();
    }

    public List<FindingRow> waived() {
        return findings.stream().filter(f -> f.waiver() != null).toList();
    }

    public List<FindingRow> duties() {
        return findings.stream().filter(f -> f.verdict() == Verdict.DUTY).toList();
    }

    /** Not known and close, and binding. */
    public List<FindingRow> doubtful() {
        return open().stream().filter(f -> f.verdict() != Verdict.BREACHED).toList();
    }

    /** Names of the facts that would settle what is not known, each once, in the order of the findings. */
    public List<String> missingFacts() {
        return findings.stream()
                .filter(f -> f.verdict() == Verdict.NOT_KNOWN)
                .flatMap(f -> f.missingFacts().stream())
                .distinct()
                .toList();
    }

    /** What needs a hand, the most pressing first: breached, then not known, then close. */
    public List<FindingRow> open() {
        return findings.stream().filter(FindingRow::isOpen).toList();
    }

    public Tally tally() {
        return Tally.of(findings);
    }

    /** Findings by verdict, in words for lists; those departed from or beaten by a stricter rule are not counted. */
    public Map<String, Integer> counts() {
        Map<String, Integer> counts = new LinkedHashMap<>();
        for (Verdict v : Verdict.values()) {
            counts.put(v.name().toLowerCase(Locale.ROOT), (int) findings.stream()
                    .filter(f -> f.verdict() == v && !f.departed() && (!f.beaten() || v == Verdict.BREACHED))
                    .count());
        }
        return counts;
    }

    /** The first reason not to go, or null. */
    public FindingRow noGo() {
        return findings.stream().filter(FindingRow::blocks).findFirst().orElse(null);
    }

    /** Whether every breach that stands in the way could be cured by another day or hour. */
    public boolean anotherDayMayCure() {
        List<FindingRow> breaches = findings.stream()
                .filter(f -> f.verdict() == Verdict.BREACHED && f.blocks())
                .toList();
        return !breaches.isEmpty() && breaches.stream().allMatch(FindingRow::curedByAnotherDay);
    }

    /** One line for lists: the first reason not to go, else the first open finding. */
    public String reason() {
        FindingRow first = noGo() != null ? noGo() : open().isEmpty() ? null : open().get(0);
        if (first == null) {
            return "nothing found against it among the rules on file";
        }
        // "Pilot fit to fly: not known: pilot fit to fly" says it once
        String says = first.says().equalsIgnoreCase("not known: " + first.title()) ? "not known" : first.says();
        String s = first.title() + ": " + says + (first.curedByAnotherDay() ? "; another day or hour may cure it" : "");
        return s.length() > 590 ? s.substring(0, 590) + "…" : s;
    }
}
