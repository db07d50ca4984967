package yarrek.app.history;

import jakarta.persistence.Embeddable;
import jakarta.persistence.EntityManager;
import jakarta.persistence.Id;
import jakarta.persistence.Transient;
import jakarta.persistence.Version;
import java.lang.reflect.Field;
import java.lang.reflect.Modifier;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.UUID;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.hibernate.Hibernate;
import org.hibernate.envers.Audited;
import org.hibernate.envers.NotAudited;
import yarrek.core.rulebook.FactDefinition;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.Vocabulary;
import yarrek.core.rulebook.Words;
import yarrek.core.time.Days;
import yarrek.core.units.Finite;

/** The fields of a kind of record: read, shown in words, compared and put back. */
final class Fields {
    private static final Pattern CODE = Pattern.compile("[a-z]+(?:[A-Z][a-z]+)+");
    private static final DateTimeFormatter MOMENT =
            DateTimeFormatter.ofPattern("d MMM uuuu HH:mm 'UTC'", Locale.UK).withZone(ZoneOffset.UTC);
    private static final int MOST_SHOWN = 300;

    private final Recorded<?> kind;
    private final EntityManager em;
    private final Collection<Recorded<?>> kinds;
    private final List<Field> fields;
    private final Map<UUID, String> names = new HashMap<>();

    Fields(Recorded<?> kind, EntityManager em, Collection<Recorded<?>> kinds) {
        this.kind = kind;
        this.em = em;
        this.kinds = kinds;
        boolean whole = kind.type().isAnnotationPresent(Audited.class);
        this.fields = Arrays.stream(kind.type().getDeclaredFields())
                .filter(f -> !Modifier.isStatic(f.getModifiers())
                        && !f.isAnnotationPresent(Id.class)
                        && !f.isAnnotationPresent(Version.class)
                        && !f.isAnnotationPresent(Transient.class)
                        && !f.isAnnotationPresent(NotAudited.class)
                        && (whole || f.isAnnotationPresent(Audited.class)))
                .toList();
        fields.forEach(f -> f.setAccessible(true));
    }

    private static Object get(Field f, Object record) {
        try {
            return f.get(record);
        } catch (IllegalAccessException e) {
            throw new IllegalStateException(f.getName(), e);
        }
    }

    private static void set(Field f, Object record, Object value) {
        try {
            f.set(record, value);
        } catch (IllegalAccessException e) {
            throw new IllegalStateException(f.getName(), e);
        }
    }

    static Object id(EntityManager em, Object record) {
        return em.getEntityManagerFactory().getPersistenceUnitUtil().getIdentifier(record);
    }

    // --- shown -------------------------------------------------------------------------------------------------------

    /** Each field in words under its label, in the order in which the record has them. */
    Map<String, String> shown(Object record) {
        Map<String, String> shown = new LinkedHashMap<>();
        for (Field f : fields) {
            Object value = get(f, record);
            if (kind.hidden().contains(f.getName())) {
                continue;
            }
            if (value instanceof Map<?, ?> said) {
                new TreeMap<>(said)
                        .forEach((fact, text) ->
                                shown.put(factLabel(fact.toString()), fact(fact.toString(), Objects.toString(text))));
            } else {
                shown.put(label(f), words(value));
            }
        }
        return shown;
    }

    private String label(Field f) {
        String own = kind.labels().get(f.getName());
        if (own != null) {
            return own;
        }
        String words = f.getName()
                .replaceAll("Id$", "")
                .replaceAll("([a-z])([A-Z])", "$1 $2")
                .toLowerCase(Locale.ROOT);
        return Character.toUpperCase(words.charAt(0)) + words.substring(1);
    }

    private static String factLabel(String fact) {
        return Vocabulary.knows(fact) ? Vocabulary.define(fact).label() : fact;
    }

    private static String fact(String fact, String text) {
        if (!Vocabulary.knows(fact)) {
            return text;
        }
        FactDefinition d = Vocabulary.define(fact);
        return FactValue.of(d, text).show(d);
    }

    private String words(Object value) {
        if (value == null) {
            return "";
        }
        if (value instanceof List<?> inOrder) {
            return IntStream.range(0, inOrder.size())
                    .mapToObj(i -> (i + 1) + ": " + words(inOrder.get(i)))
                    .collect(Collectors.joining("; "));
        }
        if (value instanceof Collection<?> many) {
            return many.stream().map(this::words).sorted().collect(Collectors.joining(", "));
        }
        if (value.getClass().isAnnotationPresent(Embeddable.class)) {
            return Arrays.stream(value.getClass().getDeclaredFields())
                    .filter(f -> !Modifier.isStatic(f.getModifiers()))
                    .peek(f -> f.setAccessible(true))
                    .map(f -> words(get(f, value)))
                    .filter(w -> !w.isEmpty())
                    .collect(Collectors.joining(", "));
        }
        if (value instanceof UUID id) {
            return names.computeIfAbsent(id, this::name);
        }
        if (value instanceof Boolean yes) {
            return yes ? "yes" : "no";
        }
        if (value instanceof LocalDate day) {
            return Days.show(day);
        }
        if (value instanceof Instant at) {
            return MOMENT.format(at);
        }
        if (value instanceof Number n) {
            return Finite.format(n.doubleValue());
        }
        if (value instanceof Enum<?> e) {
            return e.name().toLowerCase(Locale.ROOT).replace('_', ' ');
        }
        Object record = Hibernate.unproxy(value);
        return kinds.stream()
                .filter(k -> k.type().isInstance(record))
                .findFirst()
                .map(k -> called(k, record))
                .orElseGet(() -> cut(plain(record.toString())));
    }

    /** Codes, records and moments as a program writes them, as people read them. */
    private static String plain(String text) {
        if (CODE.matcher(text).matches()) {
            return Words.word(text);
        }
        return Days.inWords(
                text.startsWith("{")
                        ? text.replace("\":", ": ")
                                .replaceAll("[{}\"\\[\\]]", "")
                                .replace(",", ", ")
                        : text);
    }

    private static String cut(String text) {
        return text.length() > MOST_SHOWN ? text.substring(0, MOST_SHOWN) + "…" : text;
    }

    private static <E> String called(Recorded<E> kind, Object record) {
        return kind.called().apply(kind.type().cast(record));
    }

    /** What an identity is called among all kinds; part of the identity when it is gone. */
    private String name(UUID id) {
        for (Recorded<?> k : kinds) {
            Object found = idOf(k, id) instanceof UUID ? em.find(k.type(), id) : null;
            if (found != null) {
                return called(k, found);
            }
        }
        return "something no longer there (" + id.toString().substring(0, 8) + ")";
    }

    private static Object idOf(Recorded<?> k, UUID id) {
        try {
            return k.id().apply(id.toString());
        } catch (IllegalArgumentException e) {
            return null;
        }
    }

    static List<History.Change> changes(Map<String, String> before, Map<String, String> after) {
        Set<String> labels = new LinkedHashSet<>(before.keySet());
        labels.addAll(after.keySet());
        List<History.Change> changes = new ArrayList<>();
        for (String l : labels) {
            String was = before.getOrDefault(l, "");
            String is = after.getOrDefault(l, "");
            if (!was.equals(is)) {
                changes.add(new History.Change(l, was, is));
            }
        }
        return changes;
    }

    // --- put back ----------------------------------------------------------------------------------------------------

    /**
     * Puts back what one change changed.
     *
     * @throws IllegalArgumentException when any of it was changed again since
     */
    void putBack(Object now, Object before, Object after) {
        Set<String> again = new TreeSet<>();
        for (Field f : fields) {
            Object was = get(f, before);
            Object became = get(f, after);
            if (was instanceof Map<?, ?> a && became instanceof Map<?, ?> b) {
                set(f, now, merged(a, b, (Map<?, ?>) get(f, now), again));
            } else if (!same(was, became)) {
                if (!same(get(f, now), became)) {
                    again.add(label(f));
                }
                set(f, now, managed(was, get(f, now)));
            }
        }
        if (!again.isEmpty()) {
            throw new IllegalArgumentException(
                    String.join(", ", again) + ": changed again since; take the later change back first");
        }
    }

    private static Map<String, String> merged(Map<?, ?> was, Map<?, ?> became, Map<?, ?> now, Set<String> again) {
        Map<String, String> back = new TreeMap<>();
        now.forEach((fact, text) -> back.put(fact.toString(), Objects.toString(text)));
        Set<Object> facts = new LinkedHashSet<>(was.keySet());
        facts.addAll(became.keySet());
        for (Object fact : facts) {
            if (Objects.equals(was.get(fact), became.get(fact))) {
                continue;
            }
            if (!Objects.equals(now.get(fact), became.get(fact))) {
                again.add(factLabel(fact.toString()));
            }
            if (was.get(fact) == null) {
                back.remove(fact.toString());
            } else {
                back.put(fact.toString(), Objects.toString(was.get(fact)));
            }
        }
        return back;
    }

    /** A record that was, made anew with the identity it had. */
    Object anew(Object was) {
        try {
            var make = kind.type().getDeclaredConstructor();
            make.setAccessible(true);
            Object back = make.newInstance();
            for (Field f : kind.type().getDeclaredFields()) {
                if (f.isAnnotationPresent(Id.class)) {
                    f.setAccessible(true);
                    set(f, back, get(f, was));
                }
            }
            fields.forEach(f -> set(f, back, managed(get(f, was), get(f, back))));
            return back;
        } catch (ReflectiveOperationException e) {
            throw new IllegalStateException(kind.code(), e);
        }
    }

    private boolean same(Object a, Object b) {
        return Objects.equals(plain(a), plain(b));
    }

    /** Records by their identity, figures by their value. */
    private Object plain(Object value) {
        if (value instanceof List<?> inOrder) {
            return inOrder.stream().map(this::plain).toList();
        }
        if (value instanceof Collection<?> many) {
            return many.stream().map(this::plain).collect(Collectors.toSet());
        }
        if (value instanceof java.math.BigDecimal n) {
            return n.stripTrailingZeros();
        }
        return isRecord(value) ? id(em, value) : value;
    }

    private boolean isRecord(Object value) {
        return value != null
                && em.getMetamodel().getEntities().stream()
                        .anyMatch(t -> t.getJavaType().isInstance(Hibernate.unproxy(value)));
    }

    /** The same with the records of today in the place of those of the history. */
    private Object managed(Object value, Object now) {
        if (value instanceof List<?> inOrder) {
            return inOrder.stream().map(v -> managed(v, null)).collect(Collectors.toCollection(ArrayList::new));
        }
        if (value instanceof Collection<?> many) {
            Set<Object> all = new LinkedHashSet<>();
            many.forEach(v -> all.add(managed(v, null)));
            return all;
        }
        return isRecord(value)
                ? em.getReference(Hibernate.unproxy(value).getClass(), id(em, value))
                : value == null && now instanceof List
                        ? new ArrayList<>()
                        : value == null && now instanceof Collection ? Set.of() : value;
    }
}
