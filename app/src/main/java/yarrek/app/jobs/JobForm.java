package yarrek.app.jobs;

import java.time.LocalDate;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.UUID;
import java.util.function.BiFunction;
import yarrek.app.forms.Form;
import yarrek.core.rulebook.FactDefinition;
import yarrek.core.rulebook.FactType;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.Vocabulary;

/** The form of a job: what is asked, and how it is read. */
final class JobForm {
    private static final String WHAT = "What, where and when";
    private static final String HOW = "How it is flown";

    private JobForm() {}

    /** @param sites, crew, builds what may be chosen: names by id */
    static void fields(Form form, Map<UUID, String> sites, Map<UUID, String> crew, Map<UUID, String> builds) {
        form.group(WHAT)
                .text("name", "Name", "")
                .select("siteId", "Site", "", options("choose", sites))
                .text("firstDay", "First day", "a date such as 14 Mar 2027 or tomorrow")
                .text("lastDay", "Last day", "empty: the same day")
                .text("from", "From", "local time, such as 9:30")
                .text("to", "To", "local time; before “from” means past midnight");
        ask(form, WHAT);
        form.group("Crew and build")
                .select("pilotId", "Pilot in command", "", options("not yet", crew))
                .select(
                        "observerId",
                        "Observer",
                        "beside the pilot; whether there is none is asked where a rule turns on it",
                        options("nobody named", crew))
                .select("buildId", "Build", "", options("not yet", builds));
        form.group(HOW)
                .text("height", "Greatest height", "such as 90 m or 300 ft")
                .select(
                        "heightReference",
                        "Height counts from",
                        "",
                        List.of(new Form.Option("GROUND", "the ground below"), new Form.Option("TAKEOFF", "take-off")));
        ask(form, HOW);
        Vocabulary.ofPlan().stream()
                .map(d -> d.plan().orElseThrow().group())
                .distinct()
                .filter(g -> !g.equals(WHAT) && !g.equals(HOW))
                .forEach(g -> ask(form.group(g), g));
    }

    /** The questions of a group, as the vocabulary has them. */
    private static void ask(Form form, String group) {
        for (FactDefinition d : Vocabulary.ofPlan()) {
            FactDefinition.InPlan p = d.plan().orElseThrow();
            if (!p.group().equals(group)) {
                continue;
            }
            switch (d.type()) {
                case YES_NO -> form.select(d.name(), p.label(), p.hint(), Form.yesNo());
                case WORD -> form.select(d.name(), p.label(), p.hint(), words(d));
                case WORDS -> form.text(d.name(), p.label(), "words of " + String.join(" ", d.words()));
                case QUANTITY, DATE, INSTANT -> form.text(d.name(), p.label(), p.hint());
            }
        }
    }

    private static List<Form.Option> words(FactDefinition d) {
        List<Form.Option> options = new ArrayList<>(List.of(new Form.Option("", "not known")));
        d.words().forEach(w -> options.add(new Form.Option(w, d.say(w))));
        return options;
    }

    private static List<Form.Option> options(String empty, Map<UUID, String> names) {
        List<Form.Option> all = new ArrayList<>(List.of(new Form.Option("", empty)));
        names.forEach((id, name) -> all.add(new Form.Option(id.toString(), name)));
        return all;
    }

    /** A draft as texts by field, for filling the form and for showing what is stored. */
    static Map<String, String> values(JobDraft d) {
        Map<String, String> v = new LinkedHashMap<>();
        v.put("name", d.name());
        v.put("siteId", text(d.siteId()));
        v.put("firstDay", text(d.firstDay()));
        v.put("lastDay", text(d.lastDay()));
        v.put("from", text(d.from()));
        v.put("to", text(d.to()));
        v.put("pilotId", text(d.pilotId()));
        v.put("observerId", text(d.observerId()));
        v.put("buildId", text(d.buildId()));
        v.put("height", number(d.heightM(), "m"));
        v.put("heightReference", d.heightReference().name());
        for (FactDefinition q : Vocabulary.ofPlan()) {
            FactValue value = d.said().get(q.name());
            v.put(q.name(), value == null ? "" : q.type() == FactType.QUANTITY ? value.show(q) : value.text());
        }
        return v;
    }

    /**
     * The draft as typed, without what the form does not ask for; null when something is wrong, and then the form says what.
     *
     * @param reads a value as people type it
     */
    static JobDraft read(Form form, LocalDate today, BiFunction<FactDefinition, String, FactValue> reads) {
        String name = form.requiredText("name", 120);
        UUID site = form.id("siteId", true);
        LocalDate first = form.date("firstDay", true, today);
        LocalDate last = form.date("lastDay", false, today);
        LocalTime from = form.time("from", true);
        LocalTime to = form.time("to", true);
        if (first != null && last != null && last.isBefore(first)) {
            form.error("lastDay", "the last day is before the first");
        }
        String reference = form.choice("heightReference", true);
        Double height = form.metres("height", 0, 10_000);
        Map<String, FactValue> said = new TreeMap<>();
        for (FactDefinition d : Vocabulary.ofPlan()) {
            FactValue v = form.fact(d, reads);
            if (v != null) {
                d.plan()
                        .orElseThrow()
                        .wrong(v, d.unit())
                        .ifPresentOrElse(why -> form.error(d.name(), why), () -> said.put(d.name(), v));
            }
        }
        UUID pilot = form.id("pilotId", false);
        UUID observer = form.id("observerId", false);
        UUID build = form.id("buildId", false);
        return form.hasErrors()
                ? null
                : new JobDraft(
                        name,
                        site,
                        first,
                        last == null ? first : last,
                        from,
                        to,
                        height,
                        JobDraft.HeightReference.valueOf(reference),
                        pilot,
                        observer,
                        build,
                        said);
    }

    private static String text(Object o) {
        return o == null ? "" : o.toString();
    }

    private static String number(Double v, String unit) {
        return v == null ? "" : yarrek.core.units.Finite.format(v) + " " + unit;
    }
}
