package yarrek.core.board;

import java.time.LocalDate;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeSet;
import java.util.UUID;
import yarrek.core.time.TimeWindow;

/**
 * Some weeks of jobs: a strand for each person, aircraft or place, a stitch where a job has it, a clash where two jobs have it
 * in the same hours.
 *
 * @param from first day, {@code through} included
 * @param jobs those with a day on the board, by their first hour
 */
public record Board(LocalDate from, LocalDate through, List<Strand> strands, List<Job> jobs) {
    /** More clashes than these of one strand are not told one by one. */
    public static final int MOST_CLASHES = 100;

    /** What a strand is of. */
    public enum Kind {
        CREW("Crew"),
        AIRCRAFT("Aircraft"),
        SITE("Sites");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** Somebody or something that jobs have. */
    public record Row(UUID id, Kind kind, String name) {}

    /**
     * A job as it stands.
     *
     * @param shape of its standing, and {@code words}
     * @param clear whether it may go ahead as planned
     * @param uses hours in which it has whom and what
     */
    public record Job(
            UUID id, String name, String shape, String words, boolean clear, Map<UUID, List<TimeWindow>> uses) {}

    /** Days on end on which a job has a strand. */
    public record Stitch(Job job, LocalDate first, LocalDate last) {}

    /** Two jobs that have a strand in the same hours, on the first such day. */
    public record Clash(LocalDate day, Job one, Job other) {}

    /** Days on which somebody or something is not to be had, {@code last} included. */
    public record Away(UUID row, LocalDate first, LocalDate last, String words) {}

    /**
     * @param away as far as it lies on the board
     * @param idle days of the board on which no job has it and it is not away
     */
    public record Strand(Row row, List<Stitch> stitches, List<Clash> clashes, List<Away> away, int idle) {
        /** More stitches than these are not told apart by eye. */
        public static final int MOST_STITCHES = 80;

        public boolean isCrowded() {
            return stitches.size() > MOST_STITCHES;
        }

        /** Its stitches drawn together: days on end on which some job has it. */
        public List<Crowd> crowds() {
            List<Crowd> crowds = new ArrayList<>();
            for (Stitch s : stitches) {
                Crowd last = crowds.isEmpty() ? null : crowds.get(crowds.size() - 1);
                if (last == null || s.first().isAfter(last.last().plusDays(1))) {
                    crowds.add(new Crowd(s.first(), s.last(), 1, s.job().clear() ? 0 : 1));
                } else {
                    crowds.set(
                            crowds.size() - 1,
                            new Crowd(
                                    last.first(),
                                    s.last().isAfter(last.last()) ? s.last() : last.last(),
                                    last.stitches() + 1,
                                    last.stopped() + (s.job().clear() ? 0 : 1)));
                }
            }
            return crowds;
        }
    }

    /**
     * Days on end on which jobs have a strand.
     *
     * @param stopped how many of the stitches are of jobs that may not go ahead
     */
    public record Crowd(LocalDate first, LocalDate last, int stitches, int stopped) {}

    /** A job with a day on the board and the strands that it uses, from the first day on which it has any. */
    public record JobThread(Job job, LocalDate first, LocalDate last, int topRow, int lastRow) {}

    public Board {
        strands = List.copyOf(strands);
        jobs = List.copyOf(jobs);
    }

    /** @param zone in which a day is a day */
    public static Board of(
            LocalDate from, LocalDate through, ZoneId zone, List<Row> rows, List<Job> jobs, List<Away> away) {
        Map<UUID, List<Use>> uses = new HashMap<>();
        List<Job> seen = jobs.stream()
                .filter(j ->
                        j.uses().values().stream().flatMap(List::stream).anyMatch(w -> isOn(w, from, through, zone)))
                .sorted(Comparator.comparing((Job j) -> j.uses().values().stream()
                                .flatMap(List::stream)
                                .map(TimeWindow::start)
                                .min(Comparator.naturalOrder())
                                .orElseThrow())
                        .thenComparing(Job::name))
                .toList();
        seen.forEach(j -> j.uses()
                .forEach((who, windows) -> windows.stream()
                        .filter(w -> isOn(w, from, through, zone))
                        .forEach(w -> uses.computeIfAbsent(who, k -> new ArrayList<>())
                                .add(new Use(j, w)))));
        List<Strand> strands = rows.stream()
                .map(r -> strand(
                        r,
                        uses.getOrDefault(r.id(), List.of()),
                        away.stream()
                                .filter(a -> a.row().equals(r.id())
                                        && !a.first().isAfter(through)
                                        && !a.last().isBefore(from))
                                .map(a -> new Away(
                                        a.row(),
                                        a.first().isBefore(from) ? from : a.first(),
                                        a.last().isAfter(through) ? through : a.last(),
                                        a.words()))
                                .toList(),
                        from,
                        through,
                        zone))
                .toList();
        return new Board(from, through, strands, seen);
    }

    private record Use(Job job, TimeWindow window) {}

    private static LocalDate day(TimeWindow w, ZoneId zone) {
        return w.start().atZone(zone).toLocalDate();
    }

    private static boolean isOn(TimeWindow w, LocalDate from, LocalDate through, ZoneId zone) {
        LocalDate day = day(w, zone);
        return !day.isBefore(from) && !day.isAfter(through);
    }

    private static Strand strand(
            Row row, List<Use> uses, List<Away> away, LocalDate from, LocalDate through, ZoneId zone) {
        Map<UUID, Job> byId = new HashMap<>();
        Map<UUID, TreeSet<LocalDate>> days = new LinkedHashMap<>();
        TreeSet<LocalDate> busy = new TreeSet<>();
        uses.stream().sorted(Comparator.comparing(u -> u.window().start())).forEach(u -> {
            LocalDate day = day(u.window(), zone);
            byId.put(u.job().id(), u.job());
            days.computeIfAbsent(u.job().id(), k -> new TreeSet<>()).add(day);
            busy.add(day);
        });
        List<Stitch> stitches = new ArrayList<>();
        days.forEach((id, its) -> {
            Job job = byId.get(id);
            LocalDate first = null;
            LocalDate last = null;
            for (LocalDate d : its) {
                if (first != null && d.isAfter(last.plusDays(1))) {
                    stitches.add(new Stitch(job, first, last));
                    first = null;
                }
                first = first == null ? d : first;
                last = d;
            }
            stitches.add(new Stitch(job, first, last));
        });
        stitches.sort(Comparator.comparing(Stitch::first));
        away.forEach(a -> busy.addAll(a.first().datesUntil(a.last().plusDays(1)).toList()));
        int all = (int) ChronoUnit.DAYS.between(from, through) + 1;
        // a place holds more than one job; whoever flies or is flown does not
        List<Clash> clashes = row.kind() == Kind.SITE ? List.of() : clashes(uses, zone);
        return new Strand(row, stitches, clashes, away, all - busy.size());
    }

    /** Each pair of jobs once, on the first day on which they meet. */
    private static List<Clash> clashes(List<Use> uses, ZoneId zone) {
        List<Use> sorted = uses.stream()
                .sorted(Comparator.comparing(u -> u.window().start()))
                .toList();
        Map<List<UUID>, Clash> met = new LinkedHashMap<>();
        List<Use> running = new ArrayList<>();
        for (Use u : sorted) {
            running.removeIf(o -> !o.window().end().isAfter(u.window().start()));
            for (Use o : running) {
                if (met.size() >= MOST_CLASHES) {
                    return List.copyOf(met.values());
                }
                if (!o.job().id().equals(u.job().id())) {
                    met.putIfAbsent(
                            List.of(o.job().id(), u.job().id()), new Clash(day(u.window(), zone), o.job(), u.job()));
                }
            }
            running.add(u);
        }
        return List.copyOf(met.values());
    }

    /** How many jobs pull on strands that another has in the same hours. */
    public int clashes() {
        return strands.stream().mapToInt(s -> s.clashes().size()).sum();
    }

    /** Jobs as threads through the strands that they use here; one that uses none of them is left out. */
    public List<JobThread> threads() {
        Map<UUID, JobThread> byId = new HashMap<>();
        for (int i = 0; i < strands.size(); i++) {
            for (Stitch s : strands.get(i).stitches()) {
                int row = i;
                byId.merge(
                        s.job().id(),
                        new JobThread(s.job(), s.first(), s.last(), row, row),
                        (a, b) -> new JobThread(
                                a.job(),
                                b.first().isBefore(a.first()) ? b.first() : a.first(),
                                b.last().isAfter(a.last()) ? b.last() : a.last(),
                                a.topRow(),
                                row));
            }
        }
        List<JobThread> threads = jobs.stream()
                .map(j -> byId.get(j.id()))
                .filter(Objects::nonNull)
                .toList();
        return threads;
    }
}
