package yarrek.app.forms;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import java.util.UUID;
import java.util.function.BiFunction;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.ConcurrencyFailureException;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import yarrek.app.page.AtOnce;
import yarrek.core.rulebook.FactDefinition;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.Words;
import yarrek.core.units.Mass;

/**
 * A form as typed: fields with what stands in them, read with units, every error beside its field and nothing typed ever
 * lost. Lives for one request.
 */
public final class Form {
    private static final Logger LOG = LoggerFactory.getLogger(Form.class);
    private static final int TRIES = 4;

    /** A choice of a select or a list of ticks. */
    public record Option(String value, String label) {}

    /**
     * @param kind text, area, select, ticks, date, time or hidden
     * @param hint what may be typed, with the unit
     */
    public record Field(String name, String label, String kind, String hint, List<Option> options, boolean wide) {}

    /** Fields under one heading. */
    public record Group(String title, List<Field> fields) {}

    private final String title;
    private final String action;
    private final String back;
    private final List<Group> groups = new ArrayList<>();
    private final Map<String, List<String>> values = new LinkedHashMap<>();
    private final Map<String, String> errors = new LinkedHashMap<>();
    private final Map<String, String> stored = new LinkedHashMap<>();
    private String history = "";
    private String problem = "";
    private long version = -1;

    public Form(String title, String action, String back) {
        this.title = title;
        this.action = action;
        this.back = back;
    }

    public static List<Option> yesNo() {
        return List.of(new Option("", "not known"), new Option("yes", "yes"), new Option("no", "no"));
    }

    /** Options from words, each shown as it stands, after an empty one with the given label. */
    /** Choices by what is stored and what is shown, an empty one first. */
    public static List<Option> choices(String emptyLabel, Map<String, String> labels) {
        List<Option> all = new ArrayList<>(List.of(new Option("", emptyLabel)));
        labels.forEach((value, label) -> all.add(new Option(value, label)));
        return all;
    }

    public static List<Option> words(String emptyLabel, String... words) {
        List<Option> options = new ArrayList<>();
        options.add(new Option("", emptyLabel));
        for (String w : words) {
            options.add(new Option(w, Words.word(w)));
        }
        return options;
    }

    /** An empty form with the same fields. */
    public Form again() {
        Form form = new Form(title, action, back);
        form.groups.addAll(groups);
        return form;
    }

    /** Fields that several forms share. */
    public Form fields(Consumer<Form> shared) {
        shared.accept(this);
        return this;
    }

    public Form group(String heading) {
        groups.add(new Group(heading, new ArrayList<>()));
        return this;
    }

    public Form text(String name, String label, String hint) {
        return add(new Field(name, label, "text", hint, List.of(), false));
    }

    public Form area(String name, String label, String hint) {
        return add(new Field(name, label, "area", hint, List.of(), true));
    }

    public Form select(String name, String label, String hint, List<Option> options) {
        return add(new Field(name, label, "select", hint, options, false));
    }

    public Form ticks(String name, String label, String hint, List<Option> options) {
        return add(new Field(name, label, "ticks", hint, options, true));
    }

    public Form password(String name, String label, String hint) {
        return add(new Field(name, label, "password", hint, List.of(), false));
    }

    public Form file(String name, String label, String hint) {
        return add(new Field(name, label, "file", hint, List.of(), false));
    }

    private Form add(Field f) {
        if (groups.isEmpty()) {
            group("");
        }
        groups.get(groups.size() - 1).fields().add(f);
        return this;
    }

    public Form set(String name, Object value) {
        values.put(name, List.of(value == null ? "" : value.toString()));
        return this;
    }

    public Form setAll(String name, List<String> all) {
        values.put(name, List.copyOf(all));
        return this;
    }

    public Form yesNo(String name, Boolean value) {
        return set(name, value == null ? "" : value ? "yes" : "no");
    }

    /** Where the history of the record stands, such as "/history/site/…". */
    public Form history(String code, Object id) {
        history = "/history/" + code + "/" + id;
        return this;
    }

    /** Empty when there is none. */
    public String getHistory() {
        return history;
    }

    public Form version(long v) {
        version = v;
        return this;
    }

    /** Takes over what was typed. */
    public Form bind(MultiValueMap<String, String> params) {
        for (Group g : groups) {
            for (Field f : g.fields()) {
                List<String> typed = params.get(f.name());
                values.put(f.name(), typed == null ? List.of() : List.copyOf(typed));
            }
        }
        String v = params.getFirst("version");
        version = v == null || !v.matches("-?\\d{1,18}") ? -1 : Long.parseLong(v);
        return this;
    }

    // --- reading -----------------------------------------------------------------------------------------------------

    /** Whether the form has a field of that name. */
    public boolean holds(String name) {
        return field(name).isPresent();
    }

    public String raw(String name) {
        List<String> v = values.get(name);
        return v == null || v.isEmpty() ? "" : v.get(0);
    }

    /** What stands in each field, by its name; of several choices the first. */
    public Map<String, String> typed() {
        return fields().stream().collect(Collectors.toMap(Field::name, f -> raw(f.name())));
    }

    public List<String> all(String name) {
        return values.getOrDefault(name, List.of());
    }

    /** At most {@code max} characters; empty when nothing was typed. */
    public String optionalText(String name, int max) {
        String s = raw(name).strip();
        if (s.length() > max) {
            error(name, "at most " + max + " characters, got " + s.length());
            return s.substring(0, max);
        }
        return s;
    }

    public String requiredText(String name, int max) {
        String s = optionalText(name, max);
        if (s.isEmpty()) {
            error(name, "this is needed");
        }
        return s;
    }

    private <T> T read(String name, boolean required, Function<String, T> parse) {
        String s = raw(name).strip();
        if (s.isEmpty()) {
            if (required) {
                error(name, "this is needed");
            }
            return null;
        }
        try {
            return parse.apply(s);
        } catch (IllegalArgumentException e) {
            error(name, e.getMessage());
            return null;
        }
    }

    /** Zero or more; null when empty or wrong. */
    public Mass mass(String name, boolean required) {
        Double g = range(name, read(name, required, TypedInput::grams), 0, 1e7, "a mass of 0 g or more");
        return g == null ? null : Mass.ofGrams(BigDecimal.valueOf(g));
    }

    public Double metres(String name, double least, double most) {
        return range(
                name,
                read(name, false, TypedInput::metres),
                least,
                most,
                "a length from " + text(least) + " to " + text(most) + " m");
    }

    public Double speed(String name) {
        return range(name, read(name, false, TypedInput::metresPerSecond), 0, 200, "a speed from 0 to 200 m/s");
    }

    public Double number(String name, String unit, double least, double most, boolean required) {
        return range(
                name,
                read(name, required, s -> TypedInput.plain(s, unit)),
                least,
                most,
                "from " + text(least) + " to " + text(most) + (unit.isEmpty() ? "" : " " + unit));
    }

    public Integer whole(String name, int least, int most, boolean required) {
        Double d = number(name, "", least, most, required);
        if (d != null && d != Math.rint(d)) {
            error(name, "a whole number, such as 14");
            return null;
        }
        return d == null ? null : d.intValue();
    }

    /**
     * The value of a fact of the vocabulary under its own name; null when empty or wrong.
     *
     * @param reads a value as people type it, refusing in words
     */
    public FactValue fact(FactDefinition d, BiFunction<FactDefinition, String, FactValue> reads) {
        return read(d.name(), false, s -> reads.apply(d, s));
    }

    private Double range(String name, Double v, double least, double most, String accepted) {
        if (v != null && !(v >= least && v <= most)) {
            error(name, "must be " + accepted + ", got " + text(v));
            return null;
        }
        return v;
    }

    private static String text(double v) {
        return yarrek.core.units.Finite.format(v);
    }

    public LocalDate date(String name, boolean required, LocalDate today) {
        return read(name, required, s -> TypedInput.date(s, today));
    }

    public LocalTime time(String name, boolean required) {
        return read(name, required, TypedInput::time);
    }

    public Boolean yesNo(String name) {
        String s = raw(name);
        return s.equals("yes") ? Boolean.TRUE : s.equals("no") ? Boolean.FALSE : null;
    }

    /** One of the field's options; null for the empty one. */
    public String choice(String name, boolean required) {
        String s = raw(name);
        if (s.isEmpty()) {
            if (required) {
                error(name, "choose one");
            }
            return null;
        }
        if (field(name)
                .map(f -> f.options().stream().noneMatch(o -> o.value().equals(s)))
                .orElse(true)) {
            error(name, "that is not among the choices");
            return null;
        }
        return s;
    }

    public UUID id(String name, boolean required) {
        String s = choice(name, required);
        return s == null ? null : UUID.fromString(s);
    }

    public List<UUID> ids(String name) {
        List<UUID> ids = new ArrayList<>();
        Field f = field(name).orElseThrow();
        for (String s : all(name)) {
            if (f.options().stream().anyMatch(o -> o.value().equals(s))) {
                ids.add(UUID.fromString(s));
            } else {
                error(name, "that is not among the choices");
            }
        }
        return ids;
    }

    /** Every field, in order. */
    public List<Field> fields() {
        return groups.stream().flatMap(g -> g.fields().stream()).toList();
    }

    private Optional<Field> field(String name) {
        return groups.stream()
                .flatMap(g -> g.fields().stream())
                .filter(f -> f.name().equals(name))
                .findFirst();
    }

    // --- errors ------------------------------------------------------------------------------------------------------

    public void error(String name, String message) {
        errors.putIfAbsent(name, message);
    }

    public void problem(String message) {
        problem = message;
    }

    public boolean hasErrors() {
        return !errors.isEmpty() || !problem.isEmpty();
    }

    /** What stands before the page's title while something is to be mended; a screen reader says the title first. */
    public String titleLead() {
        if (errors.isEmpty()) {
            return problem.isEmpty() ? "" : "Not stored: ";
        }
        return errors.size() == 1 ? "1 thing to mend: " : errors.size() + " things to mend: ";
    }

    /** Stores what is new, see {@link #store(Supplier, Supplier)}. */
    public Optional<String> store(Supplier<String> work) {
        return store(work, () -> this);
    }

    /**
     * Does the storing unless something is wrong already, and answers where to go on. A lost update or a refusal is told on
     * the form, and then the answer is empty.
     *
     * @param now the form filled with what is stored by then; asked after a lost update
     */
    public Optional<String> store(Supplier<String> work, Supplier<Form> now) {
        if (hasErrors()) {
            return Optional.empty();
        }
        try {
            return Optional.of(afterOthers(work));
        } catch (LostUpdateException e) {
            lostUpdate(now.get());
        } catch (IllegalArgumentException e) {
            problem(e.getMessage());
        } catch (DataIntegrityViolationException e) {
            problem("It is there already: somebody stored the same a moment ago. What you typed is still here.");
        } catch (ConcurrencyFailureException e) {
            problem(
                    "Others are changing the same just now. Nothing was stored; what you typed is still here. Save again.");
        }
        return Optional.empty();
    }

    /**
     * Work that met somebody else's is done once more from the start: what of it was only in the way is not any more, and what
     * was taken or changed in between is found and told as such.
     */
    private static String afterOthers(Supplier<String> work) {
        for (int n = 1; n < TRIES; n++) {
            try {
                return AtOnce.said(work);
            } catch (ConcurrencyFailureException | DataIntegrityViolationException e) {
                LOG.debug("done again, since others did the same", e);
            }
        }
        return AtOnce.said(work);
    }

    /** Shows the form again in its template, with everything that was typed. */
    public String page(Model model, String template) {
        model.addAttribute("form", this);
        return template;
    }

    /** Tells of a lost update: what was typed stays, what stands stored is shown beside it, saving again overwrites it. */
    private void lostUpdate(Form now) {
        problem(
                "Somebody else saved this record while you had it open. What you typed is still here; where it differs, what is stored now stands beside the field. Save again to put yours in its place.");
        for (Field f : fields()) {
            if (!List.of("password", "file").contains(f.kind())
                    && !new TreeSet<>(now.said(f)).equals(new TreeSet<>(said(f)))) {
                String said = String.join(", ", now.said(f));
                stored.put(f.name(), said.isEmpty() ? "(empty)" : said);
            }
        }
        version = now.version;
    }

    /** What stands in a field, by the labels of its choices. */
    private List<String> said(Field f) {
        return all(f.name()).stream()
                .map(v -> v.strip().replace("\r\n", "\n"))
                .filter(v -> !v.isEmpty())
                .map(v -> f.options().stream()
                        .filter(o -> o.value().equals(v))
                        .findFirst()
                        .map(Option::label)
                        .orElse(v))
                .toList();
    }

    // --- for the page ------------------------------------------------------------------------------------------------

    public String getTitle() {
        return title;
    }

    public String getAction() {
        return action;
    }

    public String getBack() {
        return back;
    }

    public List<Group> getGroups() {
        return groups;
    }

    public Map<String, String> getErrors() {
        return errors;
    }

    public String getProblem() {
        return problem;
    }

    public long getVersion() {
        return version;
    }

    public boolean isMultipart() {
        return groups.stream()
                .flatMap(g -> g.fields().stream())
                .anyMatch(f -> f.kind().equals("file"));
    }

    public String errorOf(String name) {
        return errors.get(name);
    }

    public String storedOf(String name) {
        return stored.get(name);
    }

    public String labelOf(String name) {
        return field(name).map(Field::label).orElse(name);
    }

    public boolean has(String name, String value) {
        return all(name).contains(value);
    }
}
