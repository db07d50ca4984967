package yarrek.formats.rules;

import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.yaml.snakeyaml.nodes.MappingNode;
import org.yaml.snakeyaml.nodes.Node;
import org.yaml.snakeyaml.nodes.NodeTuple;
import org.yaml.snakeyaml.nodes.ScalarNode;
import org.yaml.snakeyaml.nodes.SequenceNode;

/** A piece of a YAML file that knows its line, so that whatever is wrong can be pointed at. */
final class YamlNode {
    /** Something wrong at a line; the message says what was expected. */
    static final class Wrong extends RuntimeException {
        private final int line;

        Wrong(int line, String message) {
            super(message);
            this.line = line;
        }

        int line() {
            return line;
        }
    }

    private final Node node;
    private final Map<String, YamlNode> children;

    YamlNode(Node node) {
        this.node = node;
        this.children = node instanceof MappingNode m ? children(m) : Map.of();
    }

    private static Map<String, YamlNode> children(MappingNode m) {
        Map<String, YamlNode> children = new LinkedHashMap<>();
        for (NodeTuple t : m.getValue()) {
            int line = t.getKeyNode().getStartMark().getLine() + 1;
            if (!(t.getKeyNode() instanceof ScalarNode key)) {
                throw new Wrong(line, "a name must be plain text");
            }
            if (children.put(key.getValue(), new YamlNode(t.getValueNode())) != null) {
                throw new Wrong(line, "'" + key.getValue() + "' stands there twice");
            }
        }
        return children;
    }

    /** Counted from 1. */
    int line() {
        return node.getStartMark().getLine() + 1;
    }

    Wrong wrong(String message) {
        return new Wrong(line(), message);
    }

    boolean has(String word) {
        return children.containsKey(word);
    }

    /** @throws Wrong unless it is a mapping with only these words */
    YamlNode only(Set<String> words, String what) {
        if (!(node instanceof MappingNode)) {
            throw wrong(what + " must be written as name: value");
        }
        children.forEach((name, value) -> {
            if (!words.contains(name)) {
                throw new Wrong(
                        value.line(), "unknown word '" + name + "' in " + what + "; it takes " + new TreeSet<>(words));
            }
        });
        return this;
    }

    YamlNode get(String word) {
        YamlNode child = children.get(word);
        if (child == null) {
            throw wrong("'" + word + "' is missing");
        }
        return child;
    }

    Map<String, YamlNode> children() {
        return children;
    }

    boolean isList() {
        return node instanceof SequenceNode;
    }

    /** As it stands in the text that it was read from; for what is written on one line. */
    String slice(String text) {
        return text.substring(
                text.offsetByCodePoints(0, node.getStartMark().getIndex()),
                text.offsetByCodePoints(0, node.getEndMark().getIndex()));
    }

    List<YamlNode> items() {
        if (!(node instanceof SequenceNode s)) {
            throw wrong("a list was expected");
        }
        List<YamlNode> items = new ArrayList<>();
        s.getValue().forEach(n -> items.add(new YamlNode(n)));
        return items;
    }

    List<YamlNode> items(String word) {
        return has(word) ? get(word).items() : List.of();
    }

    String text() {
        if (!(node instanceof ScalarNode s) || s.getValue().isBlank()) {
            throw wrong("text was expected");
        }
        return s.getValue();
    }

    String text(String word) {
        return get(word).text();
    }

    Optional<String> optional(String word) {
        return has(word) ? Optional.of(text(word)) : Optional.empty();
    }

    boolean yesNo() {
        return switch (text()) {
            case "true", "yes" -> true;
            case "false", "no" -> false;
            default -> throw wrong("true or false was expected, got '" + text() + "'");
        };
    }

    BigDecimal number() {
        if (!text().matches("-?[0-9]{1,12}([.][0-9]{1,9})?")) {
            throw wrong("a number was expected, got '" + text() + "'");
        }
        return new BigDecimal(text());
    }

    LocalDate date() {
        try {
            return LocalDate.parse(text());
        } catch (DateTimeException e) {
            throw wrong("a date such as 2026-01-31 was expected, got '" + text() + "'");
        }
    }

    /** The value among these, by its name. */
    <T> T oneOf(Map<String, T> values) {
        T value = values.get(text());
        if (value == null) {
            throw wrong("one of " + new TreeSet<>(values.keySet()) + " was expected, got '" + text() + "'");
        }
        return value;
    }
}
