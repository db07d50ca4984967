package yarrek.core;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Stream;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Worked figures from a file: each case is answered by the method that knows its kind. */
public final class WorkedCases {
    private final Map<String, JsonNode> cases = new LinkedHashMap<>();
    private final Map<String, Function<JsonNode, Object>> answers;

    public WorkedCases(String file, Map<String, Function<JsonNode, Object>> answers) {
        this.answers = answers;
        JsonMapper.builder()
                .build()
                .readTree(WorkedCases.class.getResourceAsStream(file))
                .forEach(c -> cases.put(c.get("id").asString(), c));
    }

    public static double d(JsonNode g, String name) {
        return g.get(name).asDouble();
    }

    /** Ids of the cases of these first letters that something answers. */
    public Stream<String> answered(String letters) {
        return of(letters)
                .filter(c -> answers.containsKey(what(c)))
                .map(c -> c.get("id").asString());
    }

    /** Cases of these first letters that nothing answers, with their question. */
    public List<String> unanswered(String letters) {
        return of(letters)
                .filter(c -> !answers.containsKey(what(c)))
                .map(c -> c.get("id").asString() + " " + what(c))
                .toList();
    }

    public void check(String id) {
        JsonNode c = cases.get(id);
        check(
                answers.get(what(c)).apply(c.get("given")),
                c.get("expect").get("value"),
                c.get("expect").get("tolerance"));
    }

    private Stream<JsonNode> of(String letters) {
        return cases.values().stream()
                .filter(c -> letters.indexOf(c.get("id").asString().charAt(0)) >= 0);
    }

    private static String what(JsonNode c) {
        return c.get("what").asString();
    }

    private static void check(Object got, JsonNode want, JsonNode tolerance) {
        if (want.isArray()) {
            assertThat((List<?>) got).hasSize(want.size());
            for (int i = 0; i < want.size(); i++) {
                check(((List<?>) got).get(i), want.get(i), tolerance.isArray() ? tolerance.get(i) : tolerance);
            }
        } else if (want.isNull()) {
            assertThat(got).isNull();
        } else if (want.isBoolean()) {
            assertThat(got).isEqualTo(want.asBoolean());
        } else if (want.isString()) {
            assertThat(got).isEqualTo(want.asString());
        } else {
            assertThat(((Number) got).doubleValue()).isCloseTo(want.asDouble(), within(tolerance.asDouble()));
        }
    }
}
