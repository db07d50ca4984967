package yarrek.formats.rules;

import java.io.StringReader;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Map;
import org.yaml.snakeyaml.LoaderOptions;
import org.yaml.snakeyaml.Yaml;
import org.yaml.snakeyaml.error.MarkedYAMLException;
import org.yaml.snakeyaml.error.YAMLException;
import org.yaml.snakeyaml.nodes.MappingNode;
import org.yaml.snakeyaml.nodes.Node;
import org.yaml.snakeyaml.nodes.NodeTuple;
import org.yaml.snakeyaml.nodes.ScalarNode;
import org.yaml.snakeyaml.nodes.SequenceNode;
import yarrek.core.rulebook.Written;
import yarrek.formats.log.BrokenFileException;

/** Reads YAML into names and values that know their lines; tags, aliases and what is nested too deep are refused. */
final class YamlText {
    /** Largest file taken; the shipped packs are a tenth of it. */
    private static final int MOST_BYTES = 2 * 1024 * 1024;

    private YamlText() {}

    /**
     * @throws BrokenFileException when it is too large, not UTF-8, empty or not well-formed
     * @throws Written.Wrong when a name stands there twice or is no plain text
     */
    static Written read(String file, byte[] yaml) throws BrokenFileException {
        return written(compose(file, yaml));
    }

    private static Written written(Node node) {
        int line = node.getStartMark().getLine() + 1;
        Written.Span span = new Written.Span(
                node.getStartMark().getIndex(), node.getEndMark().getIndex());
        if (node instanceof MappingNode m) {
            Map<String, Written> children = new LinkedHashMap<>();
            for (NodeTuple t : m.getValue()) {
                int keyLine = t.getKeyNode().getStartMark().getLine() + 1;
                if (!(t.getKeyNode() instanceof ScalarNode key)) {
                    throw new Written.Wrong(keyLine, "a name must be plain text");
                }
                if (children.put(key.getValue(), written(t.getValueNode())) != null) {
                    throw new Written.Wrong(keyLine, "'" + key.getValue() + "' stands there twice");
                }
            }
            return Written.names(line, span, children);
        }
        return node instanceof SequenceNode s
                ? Written.list(
                        line, span, s.getValue().stream().map(YamlText::written).toList())
                : Written.text(line, span, ((ScalarNode) node).getValue());
    }

    private static Node compose(String file, byte[] yaml) throws BrokenFileException {
        if (yaml.length > MOST_BYTES) {
            throw new BrokenFileException("rules.size", file + ": larger than 2 MB, which no pack is");
        }
        try {
            String text = StandardCharsets.UTF_8
                    .newDecoder()
                    .decode(ByteBuffer.wrap(yaml))
                    .toString();
            LoaderOptions options = new LoaderOptions();
            options.setMaxAliasesForCollections(0);
            options.setNestingDepthLimit(40);
            options.setCodePointLimit(MOST_BYTES);
            Node node = new Yaml(options).compose(new StringReader(text));
            if (node == null) {
                throw new BrokenFileException("rules.yaml", file + ": the file is empty");
            }
            return node;
        } catch (CharacterCodingException e) {
            throw new BrokenFileException("rules.encoding", file + ": not UTF-8 text; save it as UTF-8", e);
        } catch (MarkedYAMLException e) {
            int line = e.getProblemMark() == null ? 1 : e.getProblemMark().getLine() + 1;
            throw new BrokenFileException(
                    "rules.yaml", file + ", line " + line + ": not well-formed YAML: " + e.getProblem(), e);
        } catch (YAMLException e) {
            throw new BrokenFileException("rules.yaml", file + ": not well-formed YAML: " + e.getMessage(), e);
        }
    }
}
