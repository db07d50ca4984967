package yarrek.formats.dataflash;

import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Map;

/**
 * What a record type of a DataFlash log holds. Its figures are read in the basic unit (seconds, volts, metres, ampere hours):
 * by the multiplier that the log gives, or where it gives none by the one that such a field has always had.
 */
final class Definition {
    private static final Map<Character, Integer> SIZES = Map.ofEntries(
            Map.entry('a', 64),
            Map.entry('b', 1),
            Map.entry('B', 1),
            Map.entry('M', 1),
            Map.entry('h', 2),
            Map.entry('H', 2),
            Map.entry('c', 2),
            Map.entry('C', 2),
            Map.entry('g', 2),
            Map.entry('i', 4),
            Map.entry('I', 4),
            Map.entry('e', 4),
            Map.entry('E', 4),
            Map.entry('L', 4),
            Map.entry('f', 4),
            Map.entry('n', 4),
            Map.entry('d', 8),
            Map.entry('q', 8),
            Map.entry('Q', 8),
            Map.entry('N', 16),
            Map.entry('Z', 64));

    private static final double HUNDREDTH = 1e-2;
    private static final double E7 = 1e-7;

    private final String name;
    private final String format;
    private final List<String> columns;
    private final int[] offsets;
    private final double[] multipliers;
    private final int size;

    /** @param columns separated by commas */
    Definition(String name, String format, String columns) {
        this.name = name;
        this.format = format;
        this.columns = Arrays.asList(columns.split(","));
        this.offsets = new int[format.length()];
        this.multipliers = new double[format.length()];
        int at = 0;
        for (int i = 0; i < format.length(); i++) {
            offsets[i] = at;
            at += SIZES.getOrDefault(format.charAt(i), 0);
            multipliers[i] = usual(i);
        }
        this.size = at;
    }

    /** Whether every type is known and there is a name for each. */
    boolean makesSense() {
        return !name.isEmpty()
                && format.chars().allMatch(c -> SIZES.containsKey((char) c))
                && columns.size() >= format.length();
    }

    String name() {
        return name;
    }

    /** Bytes without the head. */
    int size() {
        return size;
    }

    /** -1 for none. */
    int column(String... names) {
        for (String n : names) {
            int i = columns.indexOf(n);
            if (i >= 0 && i < format.length()) {
                return i;
            }
        }
        return -1;
    }

    private static boolean scalesItself(char type) {
        return "cCeEL".indexOf(type) >= 0;
    }

    private double usual(int i) {
        String column = i < columns.size() ? columns.get(i) : "";
        return switch (column) {
            case "TimeUS" -> 1e-6;
            case "TimeMS", "GMS", "CurrTot" -> 1e-3;
            default -> name.equals("BCL") && column.matches("V\\d+") ? 1e-3 : 1;
        };
    }

    /**
     * Takes the multipliers that the log gives.
     *
     * @param ids one letter for each column
     * @param byId multipliers by their letter; 0 or none says that there is none
     */
    void scale(String ids, Map<Character, Double> byId) {
        for (int i = 0; i < Math.min(ids.length(), multipliers.length); i++) {
            Double m = byId.get(ids.charAt(i));
            if (!scalesItself(format.charAt(i)) && m != null) {
                multipliers[i] = m == 0 ? 1 : m;
            }
        }
    }

    double number(ByteBuffer b, int at, int column) {
        char type = format.charAt(column);
        int p = at + offsets[column];
        double raw = switch (type) {
            case 'b' -> b.get(p);
            case 'B', 'M' -> b.get(p) & 0xFF;
            case 'h' -> b.getShort(p);
            case 'c' -> b.getShort(p) * HUNDREDTH;
            case 'H' -> b.getShort(p) & 0xFFFF;
            case 'C' -> (b.getShort(p) & 0xFFFF) * HUNDREDTH;
            case 'g' -> half(b.getShort(p));
            case 'i' -> b.getInt(p);
            case 'e' -> b.getInt(p) * HUNDREDTH;
            case 'L' -> b.getInt(p) * E7;
            case 'I' -> b.getInt(p) & 0xFFFFFFFFL;
            case 'E' -> (b.getInt(p) & 0xFFFFFFFFL) * HUNDREDTH;
            case 'f' -> b.getFloat(p);
            case 'd' -> b.getDouble(p);
            case 'q', 'Q' -> b.getLong(p);
            default -> Double.NaN;
        };
        return raw * multipliers[column];
    }

    /** A figure of the text form: those types that scale themselves are scaled already. */
    double number(String[] cells, int column) {
        try {
            return column < cells.length ? Double.parseDouble(cells[column]) * multipliers[column] : Double.NaN;
        } catch (NumberFormatException e) {
            return Double.NaN;
        }
    }

    String text(ByteBuffer b, int at, int column) {
        int length = SIZES.get(format.charAt(column));
        byte[] bytes = new byte[length];
        b.get(at + offsets[column], bytes);
        int end = 0;
        while (end < length && bytes[end] != 0) {
            end++;
        }
        return new String(bytes, 0, end, StandardCharsets.UTF_8);
    }

    /** IEEE 754 half precision. */
    private static double half(short bits) {
        int sign = (bits & 0x8000) == 0 ? 1 : -1;
        int exponent = (bits >> 10) & 0x1F;
        int fraction = bits & 0x3FF;
        return exponent == 0x1F
                ? Double.NaN
                : exponent == 0 ? sign * Math.scalb(fraction, -24) : sign * Math.scalb(fraction + 0x400, exponent - 25);
    }
}
