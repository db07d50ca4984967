package yarrek.app.chains;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.sql.Timestamp;
import java.time.Clock;
import java.time.Instant;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** What went to desks and what came back. A call is on file before anything is sent, and keeps its key for good. */
@Component
class DeskBook {
    static final String SENDING = "SENDING";
    static final String ANSWERED = "ANSWERED";
    static final String UNSURE = "UNSURE";
    static final String REFUSED = "REFUSED";
    static final String CONTRADICTS = "CONTRADICTS";

    /**
     * @param id the key under which the desk knows it
     * @param state SENDING, ANSWERED, UNSURE (whether it arrived is not known), REFUSED (the desk did not take it),
     *     CONTRADICTS (answered a second time, and differently)
     */
    record Call(
            UUID id,
            UUID approvalId,
            String desk,
            String body,
            String madeBy,
            Instant madeAt,
            String state,
            int tries,
            String number,
            String answer,
            Instant answeredAt) {
        public String stateWords() {
            return switch (state) {
                case ANSWERED -> "answered";
                case UNSURE -> "not known whether it arrived; sending again cannot make a second request of it";
                case REFUSED -> "not taken by the desk";
                case CONTRADICTS -> "answered twice, and differently";
                default -> "not sent yet";
            };
        }
    }

    private final JdbcClient jdbc;
    private final Clock clock;

    DeskBook(JdbcClient jdbc, Clock clock) {
        this.jdbc = jdbc;
        this.clock = clock;
    }

    private static String hash(String body) {
        try {
            return HexFormat.of()
                    .formatHex(MessageDigest.getInstance("SHA-256").digest(body.getBytes(StandardCharsets.UTF_8)));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }

    /** The call for a body: the one on file when the same was to be sent before, else a new one. */
    @Transactional(propagation = Propagation.REQUIRES_NEW)
    public Call open(UUID approvalId, String desk, String body, String by) {
        String hash = hash(body);
        Optional<Call> there = find(approvalId, hash);
        if (there.isPresent()) {
            return there.get();
        }
        try {
            jdbc.sql(
                            "insert into desk_call (id, approval_id, desk, body, body_hash, made_by, made_at, state, tries, number, answer) values (?, ?, ?, ?, ?, ?, ?, ?, 0, '', '')")
                    .params(
                            UUID.randomUUID(),
                            approvalId,
                            desk,
                            body,
                            hash,
                            by,
                            Timestamp.from(clock.instant()),
                            SENDING)
                    .update();
        } catch (DuplicateKeyException e) {
            return find(approvalId, hash).orElseThrow(() -> e); // somebody else pressed at the same moment
        }
        return find(approvalId, hash).orElseThrow();
    }

    private Optional<Call> find(UUID approvalId, String hash) {
        return query("approval_id = ? and body_hash = ?", approvalId, hash).stream()
                .findFirst();
    }

    private List<Call> query(String where, Object... params) {
        return jdbc.sql(
                        "select id, approval_id, desk, body, made_by, made_at, state, tries, number, answer, answered_at from desk_call where "
                                + where + " order by made_at")
                .params(params)
                .query((r, i) -> new Call(
                        (UUID) r.getObject(1),
                        (UUID) r.getObject(2),
                        r.getString(3),
                        r.getString(4),
                        r.getString(5),
                        r.getTimestamp(6).toInstant(),
                        r.getString(7),
                        r.getInt(8),
                        r.getString(9),
                        r.getString(10),
                        r.getTimestamp(11) == null ? null : r.getTimestamp(11).toInstant()))
                .list();
    }

    List<Call> of(UUID approvalId) {
        return query("approval_id = ?", approvalId);
    }

    /** Calls that a desk took and has not decided, as far as is known here. */
    List<Call> queued() {
        return query("state = 'ANSWERED' and answer like ?", "%\"queued\"%");
    }

    @Transactional(propagation = Propagation.REQUIRES_NEW)
    public void came(UUID id, String state, String number, String answer) {
        jdbc.sql(
                        "update desk_call set state = ?, tries = tries + 1, number = ?, answer = ?, answered_at = ? where id = ?")
                .params(
                        state,
                        number.length() > 80 ? number.substring(0, 80) : number,
                        answer.length() > 20_000 ? answer.substring(0, 20_000) : answer,
                        Timestamp.from(clock.instant()),
                        id)
                .update();
    }
}
