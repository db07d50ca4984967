package yarrek.app.history;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.hibernate.envers.AuditReader;
import org.hibernate.envers.AuditReaderFactory;
import org.hibernate.envers.RevisionType;
import org.hibernate.envers.query.AuditEntity;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.page.NotFoundException;
import yarrek.app.page.Undo;
import yarrek.app.page.Viewer;

/**
 * What a record was at each change, by whom and when; a change taken back, a record fetched out of the bin. Only what one
 * change changed is put back, and only where nothing has changed it since.
 */
@Service
public class History {
    /** How long what was taken away can be fetched back. */
    public static final Duration BIN = Duration.ofDays(30);

    /** A field before and after; empty where there was nothing. */
    public record Change(String field, String before, String after) {}

    /** What happened to a record. */
    public enum What {
        /** Nobody knows who made it: it was there when the history began. */
        BEGAN("as it stood when the history began"),
        MADE("made"),
        CHANGED("changed"),
        TAKEN_AWAY("taken away");

        private final String words;

        What(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        private static What of(State s) {
            RevisionType t = s.type();
            return s.revision().isBeginning()
                    ? BEGAN
                    : t == RevisionType.ADD ? MADE : t == RevisionType.MOD ? CHANGED : TAKEN_AWAY;
        }
    }

    /** One change of a record; who is empty where nobody knows. */
    public record Entry(long revision, Instant at, String who, What what, List<Change> changes) {
        /** Whether nothing was before it. */
        public boolean first() {
            return what == What.MADE || what == What.BEGAN;
        }
    }

    /**
     * @param path where the record is shown; empty while it lies in the bin
     * @param undone whether its changes are taken back here
     */
    public record Told(
            String code, String id, String words, String called, String path, boolean undone, List<Entry> entries) {}

    /** A record that was taken away. */
    public record Binned(
            String code,
            String id,
            String words,
            String called,
            long revision,
            Instant at,
            String who,
            Instant until) {}

    private record State(Object record, Revision revision, RevisionType type) {}

    private final EntityManager em;
    private final Clock clock;
    private final Map<String, Recorded<?>> kinds;

    History(EntityManager em, Clock clock, List<Recorded<?>> kinds) {
        this.em = em;
        this.clock = clock;
        this.kinds = kinds.stream().collect(Collectors.toMap(Recorded::code, Function.identity()));
    }

    /** The kind of a code, where this viewer may see it. */
    private Recorded<?> kind(String code) {
        Recorded<?> kind = kinds.get(code);
        if (kind == null || !maySee(kind)) {
            throw new NotFoundException("history");
        }
        return kind;
    }

    private static boolean maySee(Recorded<?> kind) {
        return !kind.confidential() || Viewer.found().map(Viewer::isManager).orElse(true);
    }

    private static Object key(Recorded<?> kind, String id) {
        try {
            return kind.id().apply(id);
        } catch (IllegalArgumentException e) {
            throw new NotFoundException(kind.words());
        }
    }

    private AuditReader reader() {
        return AuditReaderFactory.get(em);
    }

    private List<State> states(Recorded<?> kind, Object id) {
        List<?> found = reader().createQuery()
                .forRevisionsOfEntity(kind.type(), false, true)
                .add(AuditEntity.id().eq(id))
                .addOrder(AuditEntity.revisionNumber().asc())
                .getResultList();
        return found.stream().map(History::state).toList();
    }

    private static State state(Object row) {
        Object[] parts = (Object[]) row;
        return new State(parts[0], (Revision) parts[1], (RevisionType) parts[2]);
    }

    /** @throws NotFoundException when there never was such a record */
    @Transactional(readOnly = true)
    public Told of(String code, String id) {
        return told(kind(code), id);
    }

    private <E> Told told(Recorded<E> kind, String id) {
        List<State> states = states(kind, key(kind, id));
        if (states.isEmpty()) {
            throw new NotFoundException(kind.words());
        }
        Fields fields = new Fields(kind, em, kinds.values());
        List<Entry> entries = new ArrayList<>();
        Map<String, String> before = Map.of();
        for (State s : states) {
            Map<String, String> after = s.type() == RevisionType.DEL ? Map.of() : fields.shown(s.record());
            entries.add(new Entry(
                    s.revision().id,
                    s.revision().at,
                    s.revision().isBeginning() ? "" : s.revision().who,
                    What.of(s),
                    Fields.changes(before, after)));
            before = after;
        }
        Collections.reverse(entries);
        E last = kind.type().cast(states.get(states.size() - 1).record());
        boolean there = states.get(states.size() - 1).type() != RevisionType.DEL;
        return new Told(
                kind.code(),
                id,
                kind.words(),
                kind.called().apply(last),
                there ? kind.path().apply(last) : "",
                kind.undone(),
                entries);
    }

    /**
     * Takes one change back: what it changed is as it was before, or the record is there again.
     *
     * @return where the record is shown
     * @throws IllegalArgumentException in words when that cannot be, or something it changed was changed again since
     */
    @Transactional
    public String takeBack(String code, String id, long revision) {
        return takeBack(kind(code), id, revision);
    }

    /** The way back from the change of a record that this viewer just stored, not from one that came after it. */
    @Transactional(readOnly = true)
    public Undo undo(String code, Object id) {
        String who = Viewer.current().name();
        State last = states(kind(code), id).stream()
                .filter(s -> s.revision().who.equals(who))
                .reduce((a, b) -> b)
                .orElseThrow(() -> new NotFoundException(kind(code).words()));
        return new Undo(
                "/history/" + code + "/" + id,
                Map.of("revision", Long.toString(last.revision().id)),
                last.type() == RevisionType.DEL ? "Put it back" : "Undo");
    }

    private <E> String takeBack(Recorded<E> kind, String id, long revision) {
        if (!kind.undone()) {
            throw new IllegalArgumentException(
                    "changes of this kind of record are not taken back here, but on its page");
        }
        Object key = key(kind, id);
        List<State> states = states(kind, key);
        int at = -1;
        for (int i = 0; i < states.size(); i++) {
            at = states.get(i).revision().id == revision ? i : at;
        }
        if (at < 0) {
            throw new NotFoundException("change");
        }
        if (states.get(at).type() == RevisionType.ADD || at == 0) {
            throw new IllegalArgumentException(
                    "this is how the record began; there is nothing before it to go back to");
        }
        Fields fields = new Fields(kind, em, kinds.values());
        E now = em.find(kind.type(), key);
        E back;
        if (states.get(at).type() == RevisionType.DEL) {
            back = fetched(kind, fields, states.get(at), now);
        } else {
            if (now == null) {
                throw new IllegalArgumentException("the record was taken away since; fetch it out of the bin first");
            }
            fields.putBack(now, states.get(at - 1).record(), states.get(at).record());
            back = now;
        }
        em.flush();
        kind.restored().accept(back);
        return kind.path().apply(back);
    }

    private <E> E fetched(Recorded<E> kind, Fields fields, State taken, E now) {
        if (now != null) {
            throw new IllegalArgumentException("it is there already");
        }
        if (taken.revision().at.plus(BIN).isBefore(clock.instant())) {
            throw new IllegalArgumentException(
                    "it was taken away more than " + BIN.toDays() + " days ago, and is no longer kept whole");
        }
        E back = kind.type().cast(fields.anew(taken.record()));
        em.persist(back);
        return back;
    }

    /** What was taken away within the time of the bin and is not back, the newest first. */
    @Transactional(readOnly = true)
    public List<Binned> bin() {
        return kinds.values().stream()
                .filter(History::maySee)
                .flatMap(k -> binned(k).stream())
                .sorted(Comparator.comparing(Binned::at).reversed())
                .toList();
    }

    private <E> List<Binned> binned(Recorded<E> kind) {
        List<?> found = reader().createQuery()
                .forRevisionsOfEntity(kind.type(), false, true)
                .add(AuditEntity.revisionType().eq(RevisionType.DEL))
                .add(AuditEntity.revisionProperty("at").ge(clock.instant().minus(BIN)))
                .addOrder(AuditEntity.revisionNumber().desc())
                .getResultList();
        Map<Object, State> last = found.stream()
                .map(History::state)
                .collect(Collectors.toMap(s -> Fields.id(em, s.record()), Function.identity(), (a, b) -> a));
        return last.entrySet().stream()
                .filter(e -> em.find(kind.type(), e.getKey()) == null)
                .map(e -> {
                    State s = e.getValue();
                    return new Binned(
                            kind.code(),
                            Objects.toString(e.getKey()),
                            kind.words(),
                            kind.called().apply(kind.type().cast(s.record())),
                            s.revision().id,
                            s.revision().at,
                            s.revision().who,
                            s.revision().at.plus(BIN));
                })
                .toList();
    }
}
