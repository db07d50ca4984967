package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.impl.driver.Driver;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/**
 * Templates, styles and scripts are written as the formatter writes them. With {@code -Dpages.write=true} it writes them so.
 */
class WrittenPagesTest {
    private static final Path RESOURCES = Path.of("src/main/resources");
    private static final int LONGEST = 140;
    private static final String PRETTIER = "/META-INF/resources/webjars/prettier/3.6.2/";
    private static final Set<String> BLOCKS = Set.of(
            ("div section table p form h1 h2 h3 ul ol li tr td th thead tbody figure details article header main nav dl dt dd option"
                            + " fieldset address svg head body html meta link script title style")
                    .split(" "));
    private static final Pattern TOKEN = Pattern.compile(
            "<!--.*?-->|<(/?)([a-zA-Z][\\w:-]*)((?:\"[^\"]*\"|'[^']*'|[^>\"'])*?)(/?)>", Pattern.DOTALL);
    private static final Pattern RUN_ON = Pattern.compile("(</[\\w:]+)\n(\\s*)>(?=<(?!/a\\b))");
    private static final Pattern RUN_ON_VOID = Pattern.compile("()\n(\\s*)/>(?=<)");
    private static final Pattern COMMA = Pattern.compile("<[\\w:]+(?:\"[^\"]*\"|[^>\"])*>\\s*[,.;:)]");
    private static final Pattern COMMA_SAID =
            Pattern.compile("<[\\w:]+(?:\"[^\"]*\"|[^>\"])*?th:text=\"\\$\\{(?:[^'\"]*\\? '' : |[^'\"]*\\? )?'[,;.:)]");
    private static final String RUN = """
            const fs = require('fs'), dir = process.argv[2];
            const prettier = require(dir + '/standalone.js');
            const plugins = ['html', 'postcss', 'babel', 'estree'].map(p => require(dir + '/plugins/' + p + '.js'));
            const files = JSON.parse(fs.readFileSync(dir + '/in.json', 'utf8')), out = {};
            (async () => {
              for (const name of Object.keys(files)) {
                out[name] = await prettier.format(files[name], {
                  filepath: name, plugins, printWidth: 130, htmlWhitespaceSensitivity: 'css', bracketSameLine: true });
              }
              fs.writeFileSync(dir + '/out.json', JSON.stringify(out));
            })().catch(e => { console.error(e.message); process.exit(1); });
            """;

    @TempDir
    Path dir;

    @Test
    void theyAreAsTheFormatterWritesThem() throws Exception {
        Map<String, String> files = files();
        Map<String, String> in = new TreeMap<>();
        files.forEach((name, text) -> in.put(name, name.endsWith(".html") ? plain(text) : text));
        Map<String, String> formatted = formatted(in);
        List<String> differ = new ArrayList<>();
        for (Map.Entry<String, String> f : files.entrySet()) {
            String out = formatted.get(f.getKey());
            String now = f.getKey().endsWith(".html") ? template(out) : out;
            if (!now.equals(f.getValue())) {
                differ.add(f.getKey());
                if (Boolean.getBoolean("pages.write")) {
                    Files.writeString(RESOURCES.resolve(f.getKey()), now);
                }
            }
        }
        assertThat(differ).as("run once with -Dpages.write=true").isEmpty();
    }

    @Test
    void noLineRunsOn() throws IOException {
        List<String> tooLong = new ArrayList<>();
        files().forEach((name, text) -> {
            List<String> lines = text.lines().toList();
            for (int i = 0; i < lines.size(); i++) {
                if (lines.get(i).length() > LONGEST) {
                    tooLong.add(name + ":" + (i + 1));
                }
            }
        });
        assertThat(tooLong).isEmpty();
    }

    private static Map<String, String> files() throws IOException {
        Map<String, String> files = new LinkedHashMap<>();
        for (String part : List.of("templates", "static/css", "static/js")) {
            try (Stream<Path> all = Files.walk(RESOURCES.resolve(part))) {
                for (Path p : all.filter(Files::isRegularFile).sorted().toList()) {
                    files.put(RESOURCES.relativize(p).toString(), Files.readString(p));
                }
            }
        }
        return files;
    }

    private Map<String, String> formatted(Map<String, String> in) throws Exception {
        Files.createDirectories(dir.resolve("plugins"));
        for (String f : List.of(
                "standalone.js", "plugins/html.js", "plugins/postcss.js", "plugins/babel.js", "plugins/estree.js")) {
            try (InputStream from = WrittenPagesTest.class.getResourceAsStream(PRETTIER + f)) {
                Files.copy(from, dir.resolve(f));
            }
        }
        Files.writeString(dir.resolve("run.cjs"), RUN);
        Files.writeString(dir.resolve("in.json"), JsonMapper.shared().writeValueAsString(in));
        Path node =
                Driver.ensureDriverInstalled(new HashMap<>(), false).driverDir().resolve("node");
        Process p = new ProcessBuilder(node.toString(), dir.resolve("run.cjs").toString(), dir.toString())
                .redirectErrorStream(true)
                .start();
        String said = new String(p.getInputStream().readAllBytes(), java.nio.charset.StandardCharsets.UTF_8);
        assertThat(p.waitFor(2, TimeUnit.MINUTES)).isTrue();
        assertThat(p.exitValue()).as(said).isZero();
        return JsonMapper.shared()
                .readValue(Files.readString(dir.resolve("out.json")), new TypeReference<Map<String, String>>() {});
    }

    /** As elements the formatter knows: a th:block with blocks in it is a block, any other runs with the text. */
    private static String plain(String html) {
        Map<Integer, Boolean> blocks = new HashMap<>();
        Deque<int[]> open = new ArrayDeque<>();
        Matcher m = TOKEN.matcher(html);
        while (m.find()) {
            if (m.group(2) == null) {
                continue;
            }
            boolean closes = !m.group(1).isEmpty();
            if (m.group(2).equals("th:block")) {
                if (!closes) {
                    open.push(new int[] {m.start(), 0});
                } else {
                    int[] of = open.pop();
                    blocks.put(of[0], of[1] == 1);
                    blocks.put(m.start(), of[1] == 1);
                }
            } else if (!closes && BLOCKS.contains(m.group(2))) {
                open.forEach(o -> o[1] = 1);
            }
        }
        return TOKEN.matcher(html)
                .replaceAll(t -> Matcher.quoteReplacement(
                        "th:block".equals(t.group(2))
                                ? t.group().replaceFirst("th:block", blocks.get(t.start()) ? "address" : "thb-block")
                                : t.group()));
    }

    /**
     * Elements that the formatter ran together stand on lines of their own, unless the next begins with a comma or its like,
     * before which no blank may stand, or a link ends, which would underline it.
     */
    private static String template(String html) {
        String text =
                html.replaceAll("(</?)(address|thb-block)", "$1th:block").replace("<!doctype html>", "<!DOCTYPE html>");
        return apart(apart(text, RUN_ON, ">"), RUN_ON_VOID, " />");
    }

    private static String apart(String text, Pattern where, String end) {
        return where.matcher(text).replaceAll(m -> {
            String rest = text.substring(m.end(), Math.min(text.length(), m.end() + 600));
            boolean together =
                    COMMA.matcher(rest).lookingAt() || COMMA_SAID.matcher(rest).lookingAt();
            return Matcher.quoteReplacement(together ? m.group() : m.group(1) + end + "\n" + m.group(2));
        });
    }
}
