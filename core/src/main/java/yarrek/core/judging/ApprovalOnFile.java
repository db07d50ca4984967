package yarrek.core.judging;

import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import yarrek.core.approval.ApprovalKind;
import yarrek.core.approval.Terms;
import yarrek.core.approval.UnlockLife;
import yarrek.core.time.TimeWindow;

/**
 * An approval asked for or held for a job.
 *
 * @param kindCode also when the kind is no longer on file, and {@code kind} is empty
 * @param zoneId the zone that it is for; null for none
 * @param craftId the aircraft that it is for; null for all of the job's
 * @param held whether it is granted
 * @param grantedOn null before it is, and where that was not kept
 * @param terms as granted
 * @param conditions in the granter's words, one a line; empty for none
 * @param paperId the paper it is on; null before it is granted
 * @param unlocked stages of a maker's unlock that are said to be done
 */
public record ApprovalOnFile(
        UUID id,
        String kindCode,
        Optional<ApprovalKind> kind,
        String zoneId,
        UUID craftId,
        LocalDate firstDay,
        LocalDate lastDay,
        boolean held,
        LocalDate grantedOn,
        String reference,
        String granter,
        Terms terms,
        String conditions,
        UUID paperId,
        Set<UnlockLife.Stage> unlocked) {
    /** Whether it is for the day on which these hours begin. */
    public boolean isFor(TimeWindow w, ZoneId zone) {
        LocalDate day = w.start().atZone(zone).toLocalDate();
        return !day.isBefore(firstDay) && !day.isAfter(lastDay);
    }

    boolean isForAny(List<TimeWindow> windows, ZoneId zone) {
        return windows.stream().anyMatch(w -> isFor(w, zone));
    }

    /** Whether it is for an aircraft, or for all of them. */
    public boolean isFor(Optional<UUID> aircraft) {
        return craftId == null || aircraft.isEmpty() || craftId.equals(aircraft.get());
    }

    boolean isUnlock() {
        return kind.map(ApprovalKind::unlock).orElse(false);
    }

    /** Numbers of others held for the same days that this one has to quote. */
    public Set<String> toQuote(List<ApprovalOnFile> all) {
        Set<String> quoted = kind.map(ApprovalKind::quotes).orElse(Set.of());
        return all.stream()
                .filter(o -> o.held && quoted.contains(o.kindCode))
                .filter(o -> !o.firstDay.isAfter(lastDay) && !firstDay.isAfter(o.lastDay))
                .map(ApprovalOnFile::reference)
                .collect(Collectors.toSet());
    }

    /** Numbers, each once. */
    static String numbers(List<ApprovalOnFile> held) {
        return held.stream().map(ApprovalOnFile::reference).distinct().collect(Collectors.joining(", "));
    }
}
