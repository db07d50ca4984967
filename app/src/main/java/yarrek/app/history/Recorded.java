package yarrek.app.history;

import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.function.Consumer;
import java.util.function.Function;

/**
 * A kind of record whose history is shown. The module that keeps the records contributes it.
 *
 * @param code stands in the address
 * @param words what one of them is, such as "job"
 * @param type the entity
 * @param id its identity from the address
 * @param called what a record was called at a point of its history
 * @param path where it is shown, from its identity
 * @param labels of fields whose name does not say it; the rest is called after its name
 * @param hidden fields that only keep the books
 * @param undone whether its changes are taken back here
 * @param confidential whether only the manager may see it
 * @param restored told of a record when a change of it was taken back, so that what rests on it follows
 */
public record Recorded<E>(
        String code,
        String words,
        Class<E> type,
        Function<String, Object> id,
        Function<E, String> called,
        Function<E, String> path,
        Map<String, String> labels,
        Set<String> hidden,
        boolean undone,
        boolean confidential,
        Consumer<E> restored) {
    /** Fields that only say who entered it last, which the history says itself. */
    public static final Set<String> BOOKS = Set.of(
            "enteredBy",
            "enteredAt",
            "changedBy",
            "changedAt",
            "saidBy",
            "saidAt",
            "madeBy",
            "madeAt",
            "addedBy",
            "addedAt");

    /** A kind of record with an identity of its own. */
    public static <E> Recorded<E> of(
            String code,
            String words,
            Class<E> type,
            Function<E, String> called,
            Function<E, String> path,
            Consumer<E> restored) {
        return new Recorded<>(
                code, words, type, UUID::fromString, called, path, Map.of(), BOOKS, true, false, restored);
    }

    /** A kind of record whose changes are undone elsewhere: its history is only shown. */
    public static <E> Recorded<E> shown(
            String code, String words, Class<E> type, Function<E, String> called, Function<E, String> path) {
        return new Recorded<>(
                code, words, type, UUID::fromString, called, path, Map.of(), BOOKS, false, false, x -> {});
    }

    /** The same for the manager's eyes alone. */
    public Recorded<E> forTheManager() {
        return new Recorded<>(code, words, type, id, called, path, labels, hidden, undone, true, restored);
    }

    /** The same with labels of fields whose name does not say it. */
    public Recorded<E> labelled(Map<String, String> more) {
        return new Recorded<>(code, words, type, id, called, path, more, hidden, undone, confidential, restored);
    }
}
