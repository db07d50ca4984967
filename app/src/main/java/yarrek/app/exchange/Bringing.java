package yarrek.app.exchange;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import yarrek.app.forms.Form;
import yarrek.app.forms.Register;
import yarrek.app.forms.TypedInput;
import yarrek.formats.table.Table;

/** One table against one register: which column is which, and what each row would do. Stores nothing. */
public final class Bringing<V> {
    /** What a row would do. */
    enum Outcome {
        WRONG("cannot be brought in", "notch"),
        NEW("new", "full"),
        CHANGED("changes", "full"),
        SAME("as it is", "dots");

        private final String words;
        private final String shape;

        Outcome(String words, String shape) {
            this.words = words;
            this.shape = shape;
        }

        /** Name of the status shape. */
        public String shape() {
            return shape;
        }

        public String words() {
            return words;
        }
    }

    /** @param column as the file names it; empty when the file has none for the field */
    public record Problem(String column, String field, String value, String message) {

        /** The column as the file names it, the field that has none, or the row as a whole. */
        public String where() {
            return !column.isEmpty() ? column : field.isEmpty() ? "The row" : field + " (no column of the file)";
        }
    }

    public record Change(String field, String before, String after) {}

    /** @param saving stores the row; null unless it is new or changes */
    record RowPlan(
            int line,
            Outcome outcome,
            String name,
            List<Change> changes,
            List<Problem> problems,
            Supplier<UUID> saving) {}

    private static final Pattern UNIT =
            Pattern.compile(".*[(\\[]\\s*(g|kg|lb|oz|m|km|ft|m/s|km/h|kn|kt|mph|mAh|V|°C|SDR)\\s*[)\\]]\\s*");
    /** A field's hint that tells the unit its figures are kept in. */
    private static final Pattern HINTED = Pattern.compile("(?:such as [0-9.]+ )?(g|m/s|m|°C|mAh|V|SDR)\\b.*");

    private static final List<Function<String, Double>> QUANTITIES =
            List.of(s -> TypedInput.plain(s, ""), TypedInput::grams, TypedInput::metres, TypedInput::metresPerSecond);

    private static final Pattern PLAIN = Pattern.compile("[+\\-−]?[0-9]+([.,][0-9]+)?");

    /** What other tables call a field, by what is left of the words without spaces and signs. */
    private static final Map<String, String> ALIASES = Map.ofEntries(
            Map.entry("sn", "serial"),
            Map.entry("serialno", "serial"),
            Map.entry("serialnr", "serial"),
            Map.entry("aircraft", "name"),
            Map.entry("callname", "name"),
            Map.entry("pilot", "name"),
            Map.entry("person", "name"),
            Map.entry("type", "model"),
            Map.entry("purchased", "boughtOn"),
            Map.entry("purchasedate", "boughtOn"),
            Map.entry("dateofbirth", "bornOn"),
            Map.entry("birthdate", "bornOn"),
            Map.entry("dob", "bornOn"),
            Map.entry("mobile", "phone"),
            Map.entry("weight", "mass"),
            Map.entry("expiry", "validTo"),
            Map.entry("expires", "validTo"),
            Map.entry("expirydate", "validTo"),
            Map.entry("validuntil", "validTo"),
            Map.entry("owner", "holder"),
            Map.entry("authority", "issuer"));

    private final Register<V> register;
    private final Form blank;
    private final Map<String, String> headers;

    Bringing(Register<V> register) {
        this.register = register;
        this.blank = register.form("", "", "", null);
        this.headers = headers(blank);
    }

    /** Header by field: its label, or its name in words where two fields share a label, and its unit. */
    private static Map<String, String> headers(Form form) {
        Map<String, Long> shared =
                form.fields().stream().collect(Collectors.groupingBy(Form.Field::label, Collectors.counting()));
        Map<String, String> headers = new LinkedHashMap<>();
        for (Form.Field f : form.fields()) {
            Matcher unit = HINTED.matcher(f.hint());
            headers.put(
                    f.name(),
                    (shared.get(f.label()) == 1 ? f.label() : spaced(f.name()))
                            + (unit.matches() ? " (" + unit.group(1) + ")" : ""));
        }
        return headers;
    }

    private static String spaced(String name) {
        String s = name.replaceAll("([A-Z])", " $1").toLowerCase(Locale.ROOT);
        return s.substring(0, 1).toUpperCase(Locale.ROOT) + s.substring(1);
    }

    Map<String, String> headers() {
        return headers;
    }

    // --- out ---------------------------------------------------------------------------------------------------------

    Table table() {
        return Table.of(
                List.copyOf(headers.values()),
                register.all().get().stream()
                        .map(v -> blank.fields().stream()
                                .map(f -> shown(f, stored(v).all(f.name())))
                                .toList())
                        .toList());
    }

    /** Records with field names as keys. */
    List<Map<String, String>> objects() {
        return register.all().get().stream()
                .map(v -> {
                    Form form = stored(v);
                    Map<String, String> m = new LinkedHashMap<>();
                    form.fields().forEach(f -> m.put(f.name(), shown(f, form.all(f.name()))));
                    return m;
                })
                .toList();
    }

    private Form stored(V v) {
        Form form = blank.again();
        register.fill().accept(form, v);
        return form;
    }

    private static String shown(Form.Field f, List<String> values) {
        List<String> order = f.options().stream().map(Form.Option::value).toList();
        return values.stream()
                .filter(v -> !v.isEmpty())
                .sorted(Comparator.comparing(order::indexOf))
                .map(v -> label(f, v))
                .collect(Collectors.joining("; "));
    }

    private static String label(Form.Field f, String value) {
        return f.options().stream()
                .filter(o -> o.value().equals(value))
                .map(Form.Option::label)
                .findFirst()
                .orElse(value);
    }

    // --- columns -----------------------------------------------------------------------------------------------------

    /**
     * The fields of columns that bear their names.
     *
     * @throws IllegalArgumentException naming the first that is no field
     */
    List<String> exactly(List<String> columns) {
        columns.stream().filter(c -> !headers.containsKey(c)).findFirst().ifPresent(c -> {
            throw new IllegalArgumentException("“" + c + "” is no field of " + register.title() + "; they are "
                    + String.join(", ", headers.keySet()));
        });
        return columns;
    }

    /** The field each column probably is; empty where nothing fits. No field is given twice. */
    List<String> suggest(List<String> columns) {
        Map<String, String> byWords = new HashMap<>();
        ALIASES.forEach((k, v) -> {
            if (headers.containsKey(v)) {
                byWords.put(k, v);
            }
        });
        headers.forEach((name, header) -> {
            byWords.put(bare(name), name);
            byWords.put(bare(header), name);
        });
        String[] fields = new String[columns.size()];
        Set<String> given = new HashSet<>();
        Map<String, String> asHandedOut = new HashMap<>();
        headers.forEach((name, header) -> asHandedOut.put(header, name));
        for (int i = 0; i < fields.length; i++) {
            String own = asHandedOut.get(columns.get(i).strip());
            fields[i] = own != null && given.add(own) ? own : "";
        }
        for (int i = 0; i < fields.length; i++) {
            String exact = byWords.get(bare(columns.get(i)));
            if (fields[i].isEmpty() && exact != null && given.add(exact)) {
                fields[i] = exact;
            }
        }
        for (int i = 0; i < fields.length; i++) {
            String words = bare(columns.get(i));
            if (fields[i].isEmpty() && words.length() >= 4) {
                Optional<String> close = byWords.entrySet().stream()
                        .filter(e ->
                                e.getKey().length() >= 4 && (e.getKey().contains(words) || words.contains(e.getKey())))
                        .map(Map.Entry::getValue)
                        .distinct()
                        .filter(f -> !given.contains(f))
                        .reduce((a, b) -> "");
                if (close.isPresent() && !close.get().isEmpty()) {
                    fields[i] = close.get();
                    given.add(close.get());
                }
            }
        }
        return Arrays.asList(fields);
    }

    private static String bare(String s) {
        return s.replaceAll("[(\\[].*[)\\]]", "").toLowerCase(Locale.ROOT).replaceAll("[^\\p{L}\\p{N}]", "");
    }

    // --- rows --------------------------------------------------------------------------------------------------------

    /**
     * @param mapping a field for each column, empty for a column that is left out
     * @param clearing whether an empty cell empties what is stored
     */
    List<RowPlan> plan(Table table, List<String> mapping, boolean clearing, LocalDate today) {
        List<V> all = register.all().get();
        Map<UUID, V> byId = new LinkedHashMap<>();
        Map<String, UUID> byKey = new HashMap<>();
        Map<String, UUID> taken = new HashMap<>();
        for (V v : all) {
            UUID id = register.id().apply(v);
            Form form = stored(v);
            byId.put(id, v);
            for (List<String> key : register.keys()) {
                keyOf(form, key).ifPresent(k -> byKey.putIfAbsent(k, id));
            }
            takenBy(form).forEach(t -> taken.put(t, id));
        }
        Map<String, Integer> lineOf = new HashMap<>();
        List<RowPlan> plans = new ArrayList<>();
        for (Table.Row row : table.rows()) {
            plans.add(plan(table, row, mapping, clearing, today, byId, byKey, taken, lineOf));
        }
        return plans;
    }

    private RowPlan plan(
            Table table,
            Table.Row row,
            List<String> mapping,
            boolean clearing,
            LocalDate today,
            Map<UUID, V> byId,
            Map<String, UUID> byKey,
            Map<String, UUID> taken,
            Map<String, Integer> lineOf) {
        Form typed = blank.again();
        Map<String, Integer> columnOf = new HashMap<>();
        for (int c = 0; c < mapping.size(); c++) {
            if (!mapping.get(c).isEmpty()) {
                columnOf.put(mapping.get(c), c);
                set(typed, mapping.get(c), row.cell(c), table.header().get(c));
            }
        }
        UUID id = match(typed, byId, byKey);
        Form form = id == null ? blank.again() : stored(byId.get(id));
        List<Change> changes = new ArrayList<>();
        for (Form.Field f : blank.fields()) {
            Integer column = columnOf.get(f.name());
            if (column == null || (row.cell(column).isBlank() && !clearing)) {
                continue;
            }
            List<String> before = form.all(f.name()).stream()
                    .filter(v -> !v.isEmpty())
                    .sorted()
                    .toList();
            List<String> after = typed.all(f.name()).stream()
                    .filter(v -> !v.isEmpty())
                    .sorted()
                    .toList();
            if (!same(before, after, today)) {
                changes.add(new Change(headers.get(f.name()), shown(f, before), shown(f, after)));
                form.setAll(f.name(), typed.all(f.name()));
            }
        }
        String name = register.keys().stream()
                .map(k -> k.stream()
                        .map(x -> shown(field(x), form.all(x)))
                        .filter(x -> !x.isEmpty())
                        .collect(Collectors.joining(", ")))
                .filter(x -> !x.isEmpty())
                .reduce((a, b) -> b)
                .orElse("");
        if (id != null && changes.isEmpty()) {
            return noted(
                    lineOf,
                    form,
                    row,
                    new RowPlan(row.line(), Outcome.SAME, name, changes, List.of(), null),
                    table,
                    columnOf);
        }
        Supplier<UUID> saving = register.read().apply(form, id);
        for (String t : takenBy(form)) {
            UUID other = taken.get(t);
            if (other != null && !other.equals(id)) {
                form.error(t.substring(0, t.indexOf('=')), "another record of the register has it");
            }
        }
        return noted(
                lineOf,
                form,
                row,
                new RowPlan(row.line(), id == null ? Outcome.NEW : Outcome.CHANGED, name, changes, List.of(), saving),
                table,
                columnOf);
    }

    /** The record a row is of: by the first key that both have filled in; null when it is a new one. */
    private UUID match(Form typed, Map<UUID, V> byId, Map<String, UUID> byKey) {
        List<List<String>> earlier = new ArrayList<>();
        for (List<String> key : register.keys()) {
            UUID id = keyOf(typed, key).map(byKey::get).orElse(null);
            if (id != null) {
                Form stored = stored(byId.get(id));
                boolean another = earlier.stream()
                        .anyMatch(k ->
                                keyOf(typed, k).isPresent() && keyOf(stored, k).isPresent());
                if (!another) {
                    return id;
                }
            }
            earlier.add(key);
        }
        return null;
    }

    /** Turns a plan into a wrong one when the form has errors or an earlier row of the file is of the same record. */
    private RowPlan noted(
            Map<String, Integer> lineOf,
            Form form,
            Table.Row row,
            RowPlan plan,
            Table table,
            Map<String, Integer> columnOf) {
        Set<String> own = new HashSet<>(takenBy(form));
        for (List<String> key : register.keys()) {
            if (register.unique().containsAll(key) || key.size() > 1) {
                keyOf(form, key).ifPresent(own::add);
            }
        }
        for (String t : own) {
            Integer earlier = lineOf.putIfAbsent(t, row.line());
            if (earlier != null) {
                form.error(t.substring(0, t.indexOf('=')).split("\\+")[0], "line " + earlier + " has the same");
            }
        }
        if (!form.hasErrors()) {
            return plan;
        }
        List<Problem> problems = new ArrayList<>();
        form.getErrors().forEach((f, message) -> {
            Integer c = columnOf.get(f);
            problems.add(new Problem(
                    c == null ? "" : table.header().get(c),
                    headers.getOrDefault(f, f),
                    c == null || message.contains(row.cell(c)) ? "" : row.cell(c),
                    message));
        });
        if (!form.getProblem().isEmpty()) {
            problems.add(new Problem("", "", "", form.getProblem()));
        }
        return new RowPlan(plan.line(), Outcome.WRONG, plan.name(), plan.changes(), problems, null);
    }

    private Form.Field field(String name) {
        return blank.fields().stream()
                .filter(f -> f.name().equals(name))
                .findFirst()
                .orElseThrow();
    }

    /** A cell into its field: words of a choice become the choice, the unit of the header goes to a bare number. */
    private void set(Form form, String name, String cell, String header) {
        Form.Field f = field(name);
        if (f.kind().equals("ticks")) {
            form.setAll(
                    name,
                    Arrays.stream(cell.split(";"))
                            .flatMap(s -> isChoice(f, s) ? Stream.of(s) : Arrays.stream(s.split(",")))
                            .map(String::strip)
                            .filter(s -> !s.isEmpty())
                            .map(s -> choice(f, s))
                            .toList());
            return;
        }
        String value = f.options().isEmpty() || cell.isBlank() ? cell : choice(f, cell);
        Matcher unit = UNIT.matcher(header);
        Matcher own = HINTED.matcher(f.hint());
        boolean kept = unit.matches() && own.matches() && unit.group(1).equals(own.group(1));
        if (f.options().isEmpty()
                && unit.matches()
                && !kept
                && PLAIN.matcher(value).matches()) {
            value = value + " " + unit.group(1);
        }
        form.set(name, value);
    }

    /** What a label says beside the name, such as a mass that will have changed by the time the table comes back. */
    private static final Pattern BESIDE = Pattern.compile("\\s*\\([^()]*\\)\\s*$");

    private static String choice(Form.Field f, String words) {
        return f.options().stream()
                .filter(o -> o.value().equalsIgnoreCase(words) || o.label().equalsIgnoreCase(words))
                .map(Form.Option::value)
                .findFirst()
                .orElseGet(() -> {
                    List<String> close = f.options().stream()
                            .filter(o -> name(o.label()).equalsIgnoreCase(name(words)))
                            .map(Form.Option::value)
                            .toList();
                    return close.size() == 1 ? close.get(0) : words;
                });
    }

    private static boolean isChoice(Form.Field f, String words) {
        String choice = choice(f, words.strip());
        return f.options().stream().anyMatch(o -> o.value().equals(choice));
    }

    private static String name(String label) {
        return BESIDE.matcher(label).replaceFirst("");
    }

    private static Optional<String> keyOf(Form form, List<String> fields) {
        List<String> values = fields.stream()
                .map(f -> form.raw(f).strip().toLowerCase(Locale.ROOT))
                .toList();
        return values.stream().anyMatch(String::isEmpty)
                ? Optional.empty()
                : Optional.of(String.join("+", fields) + "=" + String.join("\u001f", values));
    }

    private List<String> takenBy(Form form) {
        return register.unique().stream()
                .map(f -> keyOf(form, List.of(f)))
                .flatMap(Optional::stream)
                .toList();
    }

    /** Whether two entries mean the same: the same words, day or number. */
    private static boolean same(List<String> before, List<String> after, LocalDate today) {
        if (before.equals(after)) {
            return true;
        }
        if (before.size() != 1 || after.size() != 1) {
            return false;
        }
        String a = before.get(0);
        String b = after.get(0);
        if (PLAIN.matcher(a).matches()) {
            double kept = TypedInput.plain(a, "");
            return QUANTITIES.stream()
                    .anyMatch(q -> parsed(q, b)
                            .filter(v -> Math.abs(v - kept) <= 1e-9 * Math.abs(kept))
                            .isPresent());
        }
        Optional<LocalDate> day = parsed(s -> TypedInput.date(s, today), a);
        return day.isPresent() && day.equals(parsed(s -> TypedInput.date(s, today), b));
    }

    private static <T> Optional<T> parsed(Function<String, T> parser, String s) {
        try {
            return Optional.of(parser.apply(s));
        } catch (IllegalArgumentException e) {
            return Optional.empty();
        }
    }
}
