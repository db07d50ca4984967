package yarrek.core.rulebook;

/**
 * A kind of operation that a law knows, such as a subcategory or a certificate's privileges.
 *
 * @param title as people say it
 * @param gives what it permits, in a sentence
 * @param when purpose and circumstances in which it is a choice at all
 * @param aircraft what the aircraft must be or be declared for
 * @param pilot what the pilot must hold
 * @param operator what the operator must hold
 */
public record Operation(
        String id,
        String title,
        String gives,
        Condition when,
        Requirement aircraft,
        Requirement pilot,
        Requirement operator,
        String citation) {}
