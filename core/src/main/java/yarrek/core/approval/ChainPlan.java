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
    /** Settings of the operator. */
    public record Settings(LocalDate today, WorkDays calendar, double hoursADay, int marginDays) {
        public Settings {
            if (!(hoursADay > 0 && hoursADay <= 24) || marginDays < 0) {
                throw new IllegalArgumentException(
                        "hours a day must be above 0 to 24 and the margin 0 days or more, got " + hoursADay + ", "
                                + marginDays);
            }
        }
    }

    /**
     * A step with its dates.
     *
     * @param earliestStart first day of work on it
     * @param earliestSend first day on which it can be sent
     * @param earliestGrant day on which it is granted when sent then, at worst
     * @param usualGrant the same with the usual lead times all along
     * @param latestGrant last day on which it may be granted
     * @param latestSend last day on which it may be sent, "send by"
     * @param latestStart last day on which work on it may begin
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
        Map<String, LocalDate> start = new HashMap<>();
        Map<String, LocalDate> send = new HashMap<>();
        Map<String, LocalDate> grant = new HashMap<>();
        Map<String, LocalDate> usual = new HashMap<>();
        Map<String, String> before = new HashMap<>();
        for (Step x : order) {
            forward(x, s, start, send, grant, usual, before);
        }
        Map<String, LocalDate> latest = new HashMap<>();
        order.forEach(x -> latest.put(x.id(), x.neededOn().minusDays(s.marginDays())));
        for (int i = order.size() - 1; i >= 0; i--) {
            Step x = order.get(i);
            LocalDate sendBy = x.lead().sentToBeGranted(latest.get(x.id()), s.calendar());
            x.needs().forEach(n -> latest.merge(n, sendBy, (a, b) -> a.isBefore(b) ? a : b));
        }
        List<Planned> planned = new ArrayList<>();
        long late = Long.MIN_VALUE;
        Step last = null;
        for (Step x : order) {
            LocalDate g = latest.get(x.id());
            LocalDate sendBy = x.lead().sentToBeGranted(g, s.calendar());
            long slack = ChronoUnit.DAYS.between(grant.get(x.id()), g);
            planned.add(new Planned(
                    x,
                    start.get(x.id()),
                    send.get(x.id()),
                    grant.get(x.id()),
                    usual.get(x.id()),
                    g,
                    sendBy,
                    s.calendar().before(sendBy, workDays(x, s)),
                    slack));
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

    private static int workDays(Step x, Settings s) {
        return (int) Math.ceil(x.prepareHours() / s.hoursADay());
    }

    private static void forward(
            Step x,
            Settings s,
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
        start.put(x.id(), x.sentOn().orElse(s.today()));
        LocalDate ready = s.calendar().after(s.today(), workDays(x, s));
        LocalDate soonest = later(ready, x.earliestSend().orElse(ready));
        LocalDate sent = x.sentOn().orElse(later(soonest, needed));
        LocalDate sentUsual = x.sentOn().orElse(later(soonest, neededUsual));
        send.put(x.id(), sent);
        // sent and overdue: it may come any day, and not before today
        grant.put(
                x.id(),
                x.grantedOn()
                        .orElse(later(
                                x.lead().grantedIfSent(sent, s.calendar()),
                                x.sentOn().isPresent() ? s.today() : sent)));
        usual.put(
                x.id(),
                x.grantedOn()
                        .orElse(later(
                                x.usual().grantedIfSent(sentUsual, s.calendar()),
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
