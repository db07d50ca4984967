package yarrek.formats.csv;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;

/**
 * How a kind of log is read, saved once and recognised by its header.
 *
 * @param columns one for each column, in the order of the file
 * @param zone for times that carry none
 * @param dateOrder for dates such as 03/04/2026
 * @param start the moment of second zero when times count from the start and the file does not say; asked for each file
 */
public record ReadingPlan(
        List<ColumnPlan> columns,
        boolean decimalComma,
        Optional<ZoneId> zone,
        DateOrder dateOrder,
        Optional<Instant> start) {
    public ReadingPlan {
        columns = List.copyOf(columns);
    }

    /** In which order a date gives its parts. */
    public enum DateOrder {
        DAY_MONTH_YEAR,
        MONTH_DAY_YEAR,
        YEAR_MONTH_DAY,
        /** Every date can be read both ways. */
        NOT_SAID
    }

    /** What still has to be said before the file can be read; empty when nothing. */
    public List<String> gaps() {
        List<String> gaps = new ArrayList<>();
        boolean time = has(ColumnRole.TIME);
        boolean timeOfDay = has(ColumnRole.TIME_OF_DAY);
        if (!time && !timeOfDay) {
            gaps.add("no column is matched to the time");
        }
        if (!time && timeOfDay && !has(ColumnRole.DATE) && start.isEmpty()) {
            gaps.add("there is a time of day but no date: say on which day it was flown");
        }
        boolean elapsed = columns.stream()
                .anyMatch(c -> c.role() == ColumnRole.TIME && c.unit().isElapsed());
        if (elapsed && start.isEmpty()) {
            gaps.add("times count from the start of the log: say when it started (UTC)");
        }
        boolean local =
                timeOfDay || columns.stream().anyMatch(c -> c.role() == ColumnRole.TIME && c.unit() == Unit.DATE_TIME);
        if (local && !has(ColumnRole.UTC_OFFSET) && zone.isEmpty()) {
            gaps.add("times carry no zone: say in which time zone they are");
        }
        if (dateOrder == DateOrder.NOT_SAID) {
            gaps.add("dates such as 03/04/2026 can be read both ways: say whether the day or the month stands first");
        }
        if (!has(ColumnRole.LATITUDE) || !has(ColumnRole.LONGITUDE)) {
            gaps.add("no columns are matched to latitude and longitude");
        }
        for (ColumnRole role : ColumnRole.values()) {
            long n = columns.stream().filter(c -> c.role() == role).count();
            if (role.isSingle() && n > 1) {
                gaps.add(n + " columns are matched to " + role.label() + "; keep one");
            }
        }
        return gaps;
    }

    boolean has(ColumnRole role) {
        return columns.stream().anyMatch(c -> c.role() == role);
    }

    /** Hash of the headers, by which a saved plan is found again. */
    public static String signature(List<String> headers) {
        try {
            MessageDigest sha = MessageDigest.getInstance("SHA-256");
            for (String h : headers) {
                sha.update(h.strip().getBytes(StandardCharsets.UTF_8));
                sha.update((byte) '\n');
            }
            return HexFormat.of().formatHex(sha.digest());
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }
}
