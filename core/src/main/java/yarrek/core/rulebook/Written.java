package yarrek.core.rulebook;

import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;

/** A piece of a text of names and values that knows its line, so that whatever is wrong can be pointed at. */
public final class Written {
    /** Something wrong at a line; the message says what was expected. */
    public static final class Wrong extends RuntimeException {
        private final int line;

        public Wrong(int line, String message) {
            super(message);
            this.line = line;
        }

        /** Counted from 1. */
        public int line() {
            return line;
        }
    }

    /** Where a piece stands in its text, in code points, the end excluded. */
    public record Span(int start, int end) {}

    private final int line;
    private final Span span;
    private final Optional<String> text;
    private final Optional<List<Written>> items;
    private final Optional<Map<String, Written>> children;

    private Written(
            int line,
            Span span,
            Optional<String> text,
            Optional<List<Written>> items,
            Optional<Map<String, Written>> children) {
        this.line = line;
        this.span = span;
        this.text = text;
        this.items = items;
        this.children = children;
    }

    /**
     * Plain text.
     *
     * @param line counted from 1
     * @param span where it stands in what it was read from
     */
    public static Written text(int line, Span span, String text) {
        return new Written(line, span, Optional.of(text), Optional.empty(), Optional.empty());
    }

    public static Written list(int line, Span span, List<Written> items) {
        return new Written(line, span, Optional.empty(), Optional.of(List.copyOf(items)), Optional.empty());
    }

    /** @param children in the order in which they are written */
    public static Written names(int line, Span span, Map<String, Written> children) {
        return new Written(line, span, Optional.empty(), Optional.empty(), Optional.of(children));
    }

    public Wrong wrong(String message) {
        return new Wrong(line, message);
    }

    public boolean has(String word) {
        return children().containsKey(word);
    }

    /** @throws Wrong unless it is a mapping with only these words */
    public Written only(Set<String> words, String what) {
        if (children.isEmpty()) {
            throw wrong(what + " must be written as name: value");
        }
        children.get().forEach((name, value) -> {
            if (!words.contains(name)) {
                throw value.wrong("unknown word '" + name + "' in " + what + "; it takes " + new TreeSet<>(words));
            }
        });
        return this;
    }

    public Written get(String word) {
        Written child = children().get(word);
        if (child == null) {
            throw wrong("'" + word + "' is missing");
        }
        return child;
    }

    /** By name, in the order in which they are written; none when it is no mapping. */
    public Map<String, Written> children() {
        return children.orElse(Map.of());
    }

    public boolean isList() {
        return items.isPresent();
    }

    /** As it stands in the text that it was read from; for what is written on one line. */
    public String in(String whole) {
        return whole.substring(whole.offsetByCodePoints(0, span.start()), whole.offsetByCodePoints(0, span.end()));
    }

    public List<Written> items() {
        return items.orElseThrow(() -> wrong("a list was expected"));
    }

    public List<Written> items(String word) {
        return has(word) ? get(word).items() : List.of();
    }

    public String text() {
        return text.filter(t -> !t.isBlank()).orElseThrow(() -> wrong("text was expected"));
    }

    public String text(String word) {
        return get(word).text();
    }

    public Optional<String> optional(String word) {
        return has(word) ? Optional.of(text(word)) : Optional.empty();
    }

    public boolean yesNo() {
        return switch (text()) {
            case "true", "yes" -> true;
            case "false", "no" -> false;
            default -> throw wrong("true or false was expected, got '" + text() + "'");
        };
    }

    public BigDecimal number() {
        if (!text().matches("-?[0-9]{1,12}([.][0-9]{1,9})?")) {
            throw wrong("a number was expected, got '" + text() + "'");
        }
        return new BigDecimal(text());
    }

    public LocalDate date() {
        try {
            return LocalDate.parse(text());
        } catch (DateTimeException e) {
            throw wrong("a date such as 2026-01-31 was expected, got '" + text() + "'");
        }
    }

    /** The value among these, by its name. */
    public <T> T oneOf(Map<String, T> values) {
        T value = values.get(text());
        if (value == null) {
            throw wrong("one of " + new TreeMap<>(values).keySet() + " was expected, got '" + text() + "'");
        }
        return value;
    }
}
