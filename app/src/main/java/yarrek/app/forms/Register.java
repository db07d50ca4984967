package yarrek.app.forms;

import java.util.List;
import java.util.UUID;
import java.util.function.BiConsumer;
import java.util.function.BiFunction;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.Supplier;

/**
 * Records of one kind as forms: the same fields, the same checks and the same storing whether they are typed on a page or
 * read from a table.
 *
 * @param code in addresses and file names
 * @param title of the register, such as "aircraft models"
 * @param keys fields by which a row of a table finds its record, the first that is filled in and known wins
 * @param unique fields that no two records may share
 * @param all every record
 * @param id of a record
 * @param fields adds the fields to a form
 * @param fill puts a record into a form
 * @param read reads a form, records its errors in it, and answers what would store it under an id, or as a new record when
 *     the id is null
 */
public record Register<V>(
        String code,
        String title,
        List<List<String>> keys,
        List<String> unique,
        Supplier<List<V>> all,
        Function<V, UUID> id,
        Consumer<Form> fields,
        BiConsumer<Form, V> fill,
        BiFunction<Form, UUID, Supplier<UUID>> read) {

    /** A form with the record in it; empty when the record is null. */
    public Form form(String formTitle, String action, String back, V record) {
        Form form = new Form(formTitle, action, back);
        fields.accept(form);
        if (record != null) {
            fill.accept(form, record);
        }
        return form;
    }
}
