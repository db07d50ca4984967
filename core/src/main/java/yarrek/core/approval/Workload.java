package yarrek.core.approval;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * Paper work of several applications in the same hours of the day: what is due first is done first, which makes the greatest
 * lateness as small as any order can (J. R. Jackson's rule of earliest due dates). Today's hours are not counted.
 */
public final class Workload {
    /**
     * @param hours still to be worked, zero or more
     * @param due the day on which it is to be ready, before its hours begin
     */
    public record Task(String id, double hours, LocalDate due) {
        public Task {
            if (!(hours >= 0 && hours <= 100_000)) {
                throw new IllegalArgumentException("hours of work must be 0 to 100,000, got " + hours);
            }
        }
    }

    /**
     * @param begins the day on which its turn comes
     * @param ready the day by which it is ready
     * @param beginBy the last day on which work on it, and on all that is due before it, may begin
     */
    public record Slot(LocalDate begins, LocalDate ready, LocalDate beginBy) {}

    private Workload() {}

    /**
     * @param hoursADay above 0
     * @return a slot for each task by its identity
     */
    public static Map<String, Slot> share(Collection<Task> tasks, LocalDate today, WorkDays days, double hoursADay) {
        List<Task> order = tasks.stream()
                .sorted(Comparator.comparing(Task::due).thenComparing(Task::id))
                .toList();
        Counted counted = new Counted(today, days);
        double[] startBy = new double[order.size()];
        double end = Double.MAX_VALUE;
        for (int i = order.size() - 1; i >= 0; i--) {
            end = Math.min(end, counted.until(order.get(i).due()) * hoursADay)
                    - order.get(i).hours();
            startBy[i] = end;
        }
        Map<String, Slot> slots = new HashMap<>();
        double done = 0;
        for (int i = 0; i < order.size(); i++) {
            Task t = order.get(i);
            double from = done;
            done += t.hours();
            boolean none = t.hours() == 0;
            slots.put(
                    t.id(),
                    new Slot(
                            none ? today : counted.after((int) Math.floor(from / hoursADay) + 1),
                            none ? today : counted.after((int) Math.ceil(done / hoursADay)),
                            none ? t.due() : counted.begun((int) Math.floor(startBy[i] / hoursADay))));
        }
        return slots;
    }

    /** Working days from a day on, walked once. */
    private static final class Counted {
        private final LocalDate today;
        private final WorkDays days;
        private final List<LocalDate> after = new ArrayList<>();

        Counted(LocalDate today, WorkDays days) {
            this.today = today;
            this.days = days;
            after.add(today);
        }

        LocalDate after(int n) {
            while (after.size() <= n) {
                after.add(days.after(after.get(after.size() - 1), 1));
            }
            return after.get(n);
        }

        /** Working days from today to a day, that day not counted; below zero for one gone by. */
        int until(LocalDate day) {
            int n = 0;
            for (LocalDate d = today; d.isBefore(day); d = d.plusDays(1)) {
                n += days.isWorkDay(d) ? 1 : 0;
            }
            for (LocalDate d = day; d.isBefore(today); d = d.plusDays(1)) {
                n -= days.isWorkDay(d) ? 1 : 0;
            }
            return n;
        }

        /** The working day before which so many have passed since today. */
        LocalDate begun(int n) {
            return n < 0 ? days.before(today, -n) : days.isWorkDay(today) ? after(n) : after(n + 1);
        }
    }
}
