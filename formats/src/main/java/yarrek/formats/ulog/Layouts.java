package yarrek.formats.ulog;

import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** The format definitions of a ULog file: which field lies where in a record. A format may hold others. */
final class Layouts {
    private static final int MOST_FORMATS = 5000;
    private static final int MOST_FIELDS = 5000;
    private static final int DEEPEST = 8;
    private static final int LARGEST = 65_535;

    private static final Map<String, Integer> SIZES = Map.ofEntries(
            Map.entry("int8_t", 1),
            Map.entry("uint8_t", 1),
            Map.entry("bool", 1),
            Map.entry("char", 1),
            Map.entry("int16_t", 2),
            Map.entry("uint16_t", 2),
            Map.entry("int32_t", 4),
            Map.entry("uint32_t", 4),
            Map.entry("float", 4),
            Map.entry("int64_t", 8),
            Map.entry("uint64_t", 8),
            Map.entry("double", 8));

    /** A field of a record by its path, such as "voltage_cell_v[3]" or "esc[0].esc_rpm". */
    record Field(int offset, String type) {
        /** @return NaN where the record is shorter, as it may be for fields at its end */
        double read(ByteBuffer b, int at, int length) {
            if (offset + SIZES.get(type) > length) {
                return Double.NaN;
            }
            int p = at + offset;
            return switch (type) {
                case "int8_t" -> b.get(p);
                case "uint8_t", "bool", "char" -> b.get(p) & 0xFF;
                case "int16_t" -> b.getShort(p);
                case "uint16_t" -> b.getShort(p) & 0xFFFF;
                case "int32_t" -> b.getInt(p);
                case "uint32_t" -> b.getInt(p) & 0xFFFFFFFFL;
                case "float" -> b.getFloat(p);
                case "double" -> b.getDouble(p);
                default -> b.getLong(p);
            };
        }
    }

    /**
     * @param size bytes of a whole record
     * @param leastSize of one that leaves out the padding at its end
     */
    record Layout(Map<String, Field> fields, int size, int leastSize) {
        Optional<Field> field(String path) {
            return Optional.ofNullable(fields.get(path));
        }
    }

    private final Map<String, String> formats = new HashMap<>();
    private final Map<String, Optional<Layout>> laidOut = new HashMap<>();

    /** Takes "name:type field;type field;". */
    void define(String definition) {
        int colon = definition.indexOf(':');
        if (colon > 0 && formats.size() < MOST_FORMATS) {
            formats.put(definition.substring(0, colon), definition.substring(colon + 1));
            laidOut.clear();
        }
    }

    /** Empty for a format that is not defined, or makes no sense. */
    Optional<Layout> of(String name) {
        Optional<Layout> known = laidOut.get(name);
        if (known == null) {
            known = layOut(name);
            laidOut.put(name, known);
        }
        return known;
    }

    private Optional<Layout> layOut(String name) {
        Map<String, Field> fields = new LinkedHashMap<>();
        int[] padding = {0};
        int size = add(name, "", 0, fields, 0, padding);
        return size < 0 ? Optional.empty() : Optional.of(new Layout(fields, size, size - padding[0]));
    }

    /** @return the offset after it; -1 when it makes no sense */
    private int add(String name, String prefix, int offset, Map<String, Field> fields, int depth, int[] padding) {
        String definition = formats.get(name);
        if (definition == null || depth > DEEPEST) {
            return -1;
        }
        int at = offset;
        for (String part : split(definition)) {
            int space = part.indexOf(' ');
            if (space < 0) {
                return -1;
            }
            String type = part.substring(0, space).strip();
            String field = part.substring(space + 1).strip();
            int many = 1;
            boolean array = type.endsWith("]") && type.indexOf('[') > 0;
            if (array) {
                try {
                    many = Integer.parseInt(type.substring(type.indexOf('[') + 1, type.length() - 1));
                } catch (NumberFormatException e) {
                    return -1;
                }
                type = type.substring(0, type.indexOf('['));
            }
            padding[0] = depth == 0 ? field.startsWith("_padding") ? many : 0 : padding[0];
            Integer size = SIZES.get(type);
            for (int i = 0; i < many; i++) {
                String path = prefix + field + (array ? "[" + i + "]" : "");
                if (size != null) {
                    fields.put(path, new Field(at, type));
                    at += size;
                } else {
                    at = add(type, path + ".", at, fields, depth + 1, padding);
                }
                if (at < 0 || at > LARGEST || fields.size() > MOST_FIELDS * DEEPEST) {
                    return -1;
                }
            }
        }
        return at;
    }

    private static List<String> split(String definition) {
        List<String> parts = new ArrayList<>();
        for (String s : definition.split(";")) {
            if (!s.isBlank()) {
                parts.add(s.strip());
            }
        }
        return parts;
    }
}
