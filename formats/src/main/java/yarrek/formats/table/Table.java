package yarrek.formats.table;

import java.util.ArrayList;
import java.util.List;

/**
 * A header and rows of texts.
 *
 * @param rows each with the line it stands on in its file, counted from 1; cells that are missing at its end are empty
 * @param notes what had to be taken for granted on reading
 */
public record Table(List<String> header, List<Row> rows, List<String> notes) {
    /** @param line counted from 1; the header's is 1 in a written table */
    public record Row(int line, List<String> cells) {
        public Row {
            cells = List.copyOf(cells);
        }

        public String cell(int column) {
            return column >= 0 && column < cells.size() ? cells.get(column) : "";
        }
    }

    public Table {
        header = List.copyOf(header);
        rows = List.copyOf(rows);
        notes = List.copyOf(notes);
    }

    public static Table of(List<String> header, List<List<String>> rows) {
        List<Row> numbered = new ArrayList<>();
        for (List<String> r : rows) {
            numbered.add(new Row(numbered.size() + 2, r));
        }
        return new Table(header, numbered, List.of());
    }
}
