package yarrek.formats.csv;

/**
 * What one column means.
 *
 * @param header as in the file
 * @param unit one of the role's kind
 * @param assumed whether role or unit was guessed and not stated in the file or by a person
 */
public record ColumnPlan(String header, ColumnRole role, Unit unit, boolean assumed) {
    /** @throws IllegalArgumentException if the unit does not measure what the role is */
    public ColumnPlan {
        if (unit.kind() != role.kind()) {
            throw new IllegalArgumentException(
                    "column '" + header + "' (" + role.label() + ") cannot be in " + unit.label());
        }
    }
}
