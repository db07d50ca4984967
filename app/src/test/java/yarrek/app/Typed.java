package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jsoup.Connection;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Element;
import org.jsoup.nodes.FormElement;

/** The fields of a page's main form as a browser would send them. */
record Typed(List<Map.Entry<String, String>> fields) {
    static Typed of(String page) {
        Element form = Jsoup.parse(page).getElementById("main-form");
        assertThat(form).as("a form in: " + page).isInstanceOf(FormElement.class);
        List<Map.Entry<String, String>> all = new ArrayList<>();
        for (Connection.KeyVal k : ((FormElement) form).formData()) {
            // each sending has its own token, and counts as sent anew
            if (!List.of("_csrf", "_once").contains(k.key())) {
                all.add(Map.entry(k.key(), k.value()));
            }
        }
        return new Typed(all);
    }

    String get(String name) {
        return fields.stream()
                .filter(f -> f.getKey().equals(name))
                .map(Map.Entry::getValue)
                .findFirst()
                .orElseThrow(() -> new AssertionError("no field " + name + " among " + names()));
    }

    /** The same with another value in a field that is there. */
    Typed with(String name, String value) {
        get(name);
        return new Typed(fields.stream()
                .map(f -> f.getKey().equals(name) ? Map.entry(name, value) : f)
                .toList());
    }

    List<String> names() {
        return fields.stream().map(Map.Entry::getKey).distinct().toList();
    }

    String encoded() {
        return fields.stream()
                .map(f -> f.getKey() + "=" + URLEncoder.encode(f.getValue(), StandardCharsets.UTF_8))
                .collect(Collectors.joining("&"));
    }
}
