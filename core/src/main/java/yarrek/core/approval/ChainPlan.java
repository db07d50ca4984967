package yarrek.core.approval;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Deque;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import yarrek.core.time.Patience;

/**
 * The chain of approvals of a job against time: forward from today with the usual and the worst lead times, backward from
 * the days on which each must be held.
 *
 * @param steps in an order in which each comes after what it needs
 * @param earliestJobDay the first day on which everything would be held at worst, the margin kept
 * @param critical ids of the steps on the longest way to the last grant, first to last
 */
public record ChainPlan(List<Planned> steps, LocalDate earliestJobDay, List<String> critical) {
    /**
     * Settings of the operator.
     *
     * @param calendar days on which the granters of the place work
     * @param house days on which the operator's own people do
     * @param beside work on applications of other jobs, done in the same hours of the day
     */
    public record Settings(
            LocalDate today,
            WorkDays calendar,
            WorkDays house,
            double hoursADay,
            int marginDays,
            List<Workload.Task> beside) {
        public Settings {
            beside = List.copyOf(beside);
            if (!(hoursADay > 0 && hoursADay <= 24) || marginDays < 0) {
                throw new IllegalArgumentException(
                        "hours a day must be above 0 to 24 and the margin 0 days or more, got " + hoursADay + ", "
                                + marginDays);
            }
        }

        /** Everybody works on the same days, and on nothing else. */
        public Settings(LocalDate today, WorkDays calendar, double hoursADay, int marginDays) {
            this(today, calendar, calendar, hoursADay, marginDays, List.of());
        }
    }

    /**
     * A step with its dates.
     *
     * @param earliestStart the day on which its turn comes among all the paper work
     * @param earliestSend first day on which it can be sent
     * @param earliestGrant day on which it is granted when sent then, at worst
     * @param usualGrant the same with the usual lead times all along
     * @param latestGrant last day on which it may be granted
     * @param latestSend last day on which it may be sent, "send by": one on which both the operator and the granter work
     * @param movedFrom the last day by the lead time alone, where nobody sends or takes it on that one; empty when not moved
     * @param latestStart last day on which work on it, and on all that is due before it, may begin
     * @param slackDays days between the earliest and the latest grant; below zero it comes too late at worst
     */
    public record Planned(
            Step step,
            LocalDate earliestStart,
            LocalDate earliestSend,
            LocalDate earliestGrant,
            LocalDate usualGrant,
            LocalDate latestGrant,
            LocalDate latestSend,
            Optional<LocalDate> movedFrom,
            LocalDate latestStart,
            long slackDays) {
        public boolean isDone() {
            return step.grantedOn().isPresent();
        }

        /** What it means, in a word: granted, in time, tight when nothing is left, too late. */
        public String standing() {
            return isDone() ? "granted" : slackDays < 0 ? "too late" : slackDays == 0 ? "tight" : "in time";
        }

        /** Not sent, and the last day for it is over. */
        public boolean isLateOn(LocalDate day) {
            return !isDone() && step.sentOn().isEmpty() && latestSend.isBefore(day);
        }

        /** Neither sent nor granted. */
        public boolean toBegin() {
            return !isDone() && step.sentOn().isEmpty();
        }

        /** Its turn among all the paper work comes too late for the day by which it must be sent. */
        public boolean beginsLate() {
            return toBegin() && step.prepareHours() > 0 && earliestStart.isAfter(latestStart);
        }

        /** Granted after it is needed, at worst. */
        public boolean comesTooLate() {
            return !isDone() && slackDays < 0;
        }
    }

    /** A chain that bites its own tail. */
    public static final class CircleException extends IllegalArgumentException {
        private final transient List<String> circle;

        CircleException(List<String> names) {
            super("these approvals wait for each other: " + String.join(" → ", names));
            this.circle = List.copyOf(names);
        }

        /** Names around the circle, the first repeated at the end. */
        public List<String> circle() {
            return circle;
        }
    }

    /**
     * @throws CircleException naming the circle
     * @throws IllegalArgumentException when a step needs one that is not there, or two have the same id
     */
    public static ChainPlan of(List<Step> steps, Settings s) {
        Patience.ask();
        Map<String, Step> byId = new LinkedHashMap<>();
        for (Step x : steps) {
            if (byId.put(x.id(), x) != null) {
                throw new IllegalArgumentException("two steps are called '" + x.id() + "'");
            }
        }
        List<Step> order = ordered(byId);
        Map<String, LocalDate> latest = new HashMap<>();
        Map<String, LocalDate> unmoved = new HashMap<>();
        Map<String, LocalDate> sendBy = new HashMap<>();
        backward(order, s, latest, unmoved, sendBy);
        Map<String, Workload.Slot> slots = shared(order, s, sendBy);
        Map<String, LocalDate> start = new HashMap<>();
        Map<String, LocalDate> send = new HashMap<>();
        Map<String, LocalDate> grant = new HashMap<>();
        Map<String, LocalDate> usual = new HashMap<>();
        Map<String, String> before = new HashMap<>();
        for (Step x : order) {
            forward(x, s, slots.get(x.id()), start, send, grant, usual, before);
        }
        List<Planned> planned = new ArrayList<>();
        long late = Long.MIN_VALUE;
        Step last = null;
        for (Step x : order) {
            LocalDate g = latest.get(x.id());
            Workload.Slot slot = slots.get(x.id());
            planned.add(new Planned(
                    x,
                    start.get(x.id()),
                    send.get(x.id()),
                    grant.get(x.id()),
                    usual.get(x.id()),
                    g,
                    sendBy.get(x.id()),
                    Optional.of(unmoved.get(x.id())).filter(d -> !d.equals(sendBy.get(x.id()))),
                    slot.beginBy(),
                    ChronoUnit.DAYS.between(grant.get(x.id()), g)));
            long over = ChronoUnit.DAYS.between(x.neededOn().minusDays(s.marginDays()), grant.get(x.id()));
            if (x.grantedOn().isEmpty() && over > late) {
                late = over;
                last = x;
            }
        }
        LocalDate first = steps.stream()
                .map(Step::neededOn)
                .min(Comparator.naturalOrder())
                .orElse(s.today());
        LocalDate soonest = s.today().isAfter(first) ? s.today() : first;
        LocalDate earliest = last == null ? soonest : first.plusDays(late);
        return new ChainPlan(
                List.copyOf(planned),
                earliest.isBefore(s.today()) ? s.today() : earliest,
                last == null ? List.of() : path(last.id(), before));
    }

    private static WorkDays granter(Step x, Settings s) {
        return x.granter().orElse(s.calendar());
    }

    /** From the days on which each must be held back to the days by which each must be sent. */
    private static void backward(
            List<Step> order,
            Settings s,
            Map<String, LocalDate> latest,
            Map<String, LocalDate> unmoved,
            Map<String, LocalDate> sendBy) {
        order.forEach(x -> latest.put(x.id(), x.neededOn().minusDays(s.marginDays())));
        for (int i = order.size() - 1; i >= 0; i--) {
            Step x = order.get(i);
            LocalDate by = x.lead().sentToBeGranted(latest.get(x.id()), granter(x, s));
            LocalDate open = s.house().onOrBefore(by, granter(x, s)).orElse(by);
            unmoved.put(x.id(), by);
            sendBy.put(x.id(), open);
            // a grant that comes on the closed day itself still meets the lead time when it is passed on that day
            x.needs().forEach(n -> latest.merge(n, by, (a, b) -> a.isBefore(b) ? a : b));
        }
    }

    /** Whose turn it is when, among these steps and all other paper work. */
    private static Map<String, Workload.Slot> shared(List<Step> order, Settings s, Map<String, LocalDate> sendBy) {
        List<Workload.Task> tasks = new ArrayList<>();
        s.beside().forEach(t -> tasks.add(new Workload.Task("beside " + t.id(), t.hours(), t.due())));
        order.forEach(x -> tasks.add(new Workload.Task(
                x.id(),
                x.sentOn().isPresent() || x.grantedOn().isPresent() ? 0 : x.prepareHours(),
                sendBy.get(x.id()))));
        return Workload.share(tasks, s.today(), s.house(), s.hoursADay());
    }

    private static void forward(
            Step x,
            Settings s,
            Workload.Slot slot,
            Map<String, LocalDate> start,
            Map<String, LocalDate> send,
            Map<String, LocalDate> grant,
            Map<String, LocalDate> usual,
            Map<String, String> before) {
        LocalDate needed = s.today();
        LocalDate neededUsual = s.today();
        for (String n : x.needs()) {
            if (grant.get(n).isAfter(needed)) {
                needed = grant.get(n);
                before.put(x.id(), n);
            }
            neededUsual = usual.get(n).isAfter(neededUsual) ? usual.get(n) : neededUsual;
        }
        // work on the papers may go on while the approvals it needs are still out
        start.put(x.id(), x.sentOn().orElse(slot.begins()));
        LocalDate soonest = later(slot.ready(), x.earliestSend().orElse(slot.ready()));
        LocalDate sent = x.sentOn().orElse(later(soonest, needed));
        LocalDate sentUsual = x.sentOn().orElse(later(soonest, neededUsual));
        send.put(x.id(), sent);
        // sent and overdue: it may come any day, and not before today
        grant.put(
                x.id(),
                x.grantedOn()
                        .orElse(later(
                                x.lead().grantedIfSent(sent, granter(x, s)),
                                x.sentOn().isPresent() ? s.today() : sent)));
        usual.put(
                x.id(),
                x.grantedOn()
                        .orElse(later(
                                x.usual().grantedIfSent(sentUsual, granter(x, s)),
                                x.sentOn().isPresent() ? s.today() : sentUsual)));
    }

    private static LocalDate later(LocalDate a, LocalDate b) {
        return a.isAfter(b) ? a : b;
    }

    private static List<String> path(String last, Map<String, String> before) {
        Deque<String> path = new ArrayDeque<>();
        for (String id = last; id != null; id = before.get(id)) {
            path.addFirst(id);
        }
        return List.copyOf(path);
    }

    /** Each after what it needs, else as they came. */
    private static List<Step> ordered(Map<String, Step> byId) {
        List<Step> order = new ArrayList<>();
        Map<String, Boolean> done = new HashMap<>();
        for (Step x : byId.values()) {
            visit(x, byId, done, new ArrayDeque<>(), order);
        }
        return order;
    }

    private static void visit(
            Step x, Map<String, Step> byId, Map<String, Boolean> done, Deque<Step> way, List<Step> order) {
        Boolean state = done.get(x.id());
        if (Boolean.TRUE.equals(state)) {
            return;
        }
        if (Boolean.FALSE.equals(state)) {
            List<String> names = new ArrayList<>();
            way.descendingIterator().forEachRemaining(w -> names.add(w.name()));
            List<String> circle = new ArrayList<>(names.subList(names.indexOf(x.name()), names.size()));
            circle.add(x.name());
            throw new CircleException(circle);
        }
        done.put(x.id(), false);
        way.push(x);
        for (String n : x.needs().stream().sorted().toList()) {
            Step needed = byId.get(n);
            if (needed == null) {
                throw new IllegalArgumentException(x.name() + " needs '" + n + "', which is not in the chain");
            }
            visit(needed, byId, done, way, order);
        }
        way.pop();
        done.put(x.id(), true);
        order.add(x);
    }

    public Optional<Planned> step(String id) {
        return steps.stream().filter(p -> p.step().id().equals(id)).findFirst();
    }

    /** Steps still to be sent, the most pressing first. */
    public List<Planned> toSend() {
        return steps.stream()
                .filter(p -> !p.isDone() && p.step().sentOn().isEmpty())
                .sorted(Comparator.comparing(Planned::latestSend))
                .toList();
    }
}
