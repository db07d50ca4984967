package yarrek.app.jobs;

import java.time.LocalDate;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Stream;
import yarrek.app.forms.Form;
import yarrek.core.judging.Arranged;
import yarrek.core.judging.FlightsPlanned;
import yarrek.core.time.Days;

/** The form of what a job has besides its flights: a row for each day, for each of the crew, for each build. */
final class BesidesForm {
    /** Empty rows offered for more of the crew. */
    static final int SPARE = 2;

    private static final int MOST_REASON = 300;

    private BesidesForm() {}

    /**
     * @param helpers rows for people
     * @param crew, builds names by id
     */
    static Form form(Jobs.JobView job, int helpers, Map<UUID, String> crew, Map<UUID, String> builds) {
        JobDraft d = job.draft();
        Form form =
                new Form("Days, crew and builds: " + d.name(), "/jobs/" + job.id() + "/besides", "/jobs/" + job.id());
        List<LocalDate> days = days(d);
        for (int i = 0; i < days.size() && days.size() > 1; i++) {
            form.group(Days.show(days.get(i)))
                    .text("from" + i, "From", "empty: " + d.from() + ", as the job")
                    .text("to" + i, "To", "empty: " + d.to() + ", as the job");
        }
        for (int i = 0; i < helpers; i++) {
            helper(form.group("Crew without a flight, " + (i + 1)), String.valueOf(i), crew);
        }
        builds.forEach(
                (id, name) -> form.group(name).text("why" + id, "Why it goes", "so that nobody has to ask again"));
        return form;
    }

    /** The questions of one of the crew; {@code row} ends their names. */
    static void helper(Form form, String row, Map<UUID, String> crew) {
        form.select("personId" + row, "Who", "", Form.choices("nobody", names(crew)))
                .select(
                        "role" + row,
                        "Does",
                        "",
                        FlightsPlanned.Role.BESIDES.stream()
                                .map(r -> new Form.Option(r.name(), r.words()))
                                .toList())
                .text("day" + row, "Day", "empty: every day");
    }

    static Map<String, String> names(Map<UUID, String> byId) {
        Map<String, String> names = new LinkedHashMap<>();
        byId.forEach((id, name) -> names.put(id.toString(), name));
        return names;
    }

    private static List<LocalDate> days(JobDraft d) {
        return d.firstDay().datesUntil(d.lastDay().plusDays(1)).toList();
    }

    static void fill(Form form, JobDraft d) {
        List<LocalDate> days = days(d);
        d.besides()
                .hours()
                .forEach((day, h) ->
                        form.set("from" + days.indexOf(day), h.from()).set("to" + days.indexOf(day), h.to()));
        for (int i = 0; i < d.besides().crew().size(); i++) {
            fill(form, String.valueOf(i), d.besides().crew().get(i));
        }
        d.besides().reasons().forEach((id, why) -> form.set("why" + id, why));
    }

    static void fill(Form form, String row, Arranged.Helper h) {
        form.set("personId" + row, h.personId())
                .set("role" + row, h.role().name())
                .set("day" + row, h.day() == null ? "" : h.day());
    }

    /** How many rows for people were sent. */
    static int helpers(Map<String, String> typed) {
        return (int) Stream.iterate(0, i -> i + 1)
                .takeWhile(i -> typed.containsKey("personId" + i))
                .count();
    }

    /** Hours as typed beside the job's; null where the day has none of its own. */
    static Arranged.Hours hours(Form form, String row, JobDraft d) {
        LocalTime from = form.time("from" + row, false);
        LocalTime to = form.time("to" + row, false);
        return from == null && to == null
                ? null
                : new Arranged.Hours(from == null ? d.from() : from, to == null ? d.to() : to);
    }

    /** One of the crew as typed; null where nobody is chosen. */
    static Arranged.Helper one(Form form, String row, LocalDate today) {
        UUID who = form.id("personId" + row, false);
        LocalDate day = form.date("day" + row, false, today);
        String role = form.choice("role" + row, false);
        return who == null || role == null ? null : new Arranged.Helper(who, FlightsPlanned.Role.valueOf(role), day);
    }

    static Arranged read(Form form, int helpers, JobDraft d, Map<UUID, String> builds, LocalDate today) {
        List<LocalDate> days = days(d);
        Map<LocalDate, Arranged.Hours> hours = new HashMap<>();
        for (int i = 0; i < days.size() && days.size() > 1; i++) {
            Arranged.Hours h = hours(form, String.valueOf(i), d);
            if (h != null && !h.equals(new Arranged.Hours(d.from(), d.to()))) {
                hours.put(days.get(i), h);
            }
        }
        List<Arranged.Helper> crew = new ArrayList<>();
        for (int i = 0; i < helpers; i++) {
            Arranged.Helper h = one(form, String.valueOf(i), today);
            if (h != null && h.day() != null && !days.contains(h.day())) {
                form.error("day" + i, "that day is none of the job's");
            }
            if (h != null && crew.contains(h)) {
                form.error("personId" + i, "is named for that already");
            } else if (h != null) {
                crew.add(h);
            }
        }
        Map<UUID, String> reasons = new HashMap<>();
        builds.keySet().forEach(id -> {
            String why = form.optionalText("why" + id, MOST_REASON);
            if (why != null && !why.isBlank()) {
                reasons.put(id, why.strip());
            }
        });
        return new Arranged(hours, crew, reasons);
    }
}
