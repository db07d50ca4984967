package yarrek.app.office;

import com.eatthepath.otp.TimeBasedOneTimePasswordGenerator;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.security.InvalidKeyException;
import java.sql.Timestamp;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.UUID;
import javax.crypto.SecretKey;
import javax.crypto.spec.SecretKeySpec;
import org.apache.commons.codec.binary.Base32;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Codes of six digits that an authenticator reckons from a shared secret and the clock (RFC 6238, half a minute each), and
 * codes on paper for the day it is lost. Every code opens once.
 */
@Service
public class SecondFactor {
    private static final int SECRET_BYTES = 20;
    private static final int RECOVERY_CODES = 10;
    private static final int RECOVERY_BYTES = 10;
    /** Clocks of telephones are off by less than half a minute. */
    private static final int STEPS_OFF = 1;

    private final JdbcClient jdbc;
    private final Clock clock;
    private final Base32 base32 = new Base32();
    private final TimeBasedOneTimePasswordGenerator codes = new TimeBasedOneTimePasswordGenerator();

    SecondFactor(JdbcClient jdbc, Clock clock) {
        this.jdbc = jdbc;
        this.clock = clock;
    }

    private record Kept(String secret, Instant since) {}

    private Optional<Kept> kept(UUID userId) {
        return jdbc.sql("select totp_secret, totp_since from app_user where id = ?")
                .param(userId)
                .query((r, n) -> new Kept(
                        r.getString(1),
                        r.getTimestamp(2) == null ? null : r.getTimestamp(2).toInstant()))
                .optional()
                .filter(k -> k.secret() != null);
    }

    /** Whether a code is asked for when this login signs in. */
    @Transactional(readOnly = true)
    public boolean isOn(UUID userId) {
        return kept(userId).filter(k -> k.since() != null).isPresent();
    }

    /** Recovery codes not used yet. */
    @Transactional(readOnly = true)
    public int recoveryCodesLeft(UUID userId) {
        return jdbc.sql("select count(*) from recovery_code where user_id = ? and used_at is null")
                .param(userId)
                .query(Integer.class)
                .single();
    }

    /** A new secret, not asked for before a first code has confirmed it. Nothing happens where codes are asked for already. */
    @Transactional
    public void begin(UUID userId) {
        jdbc.sql("update app_user set totp_secret = ? where id = ? and totp_since is null")
                .params(base32.encodeToString(Secret.bytes(SECRET_BYTES)), userId)
                .update();
    }

    /** The secret that waits for its first code, as an authenticator takes it; empty when none does. */
    @Transactional(readOnly = true)
    public Optional<String> pending(UUID userId) {
        return kept(userId).filter(k -> k.since() == null).map(Kept::secret);
    }

    /** What stands in the picture that an authenticator reads. */
    public static String address(String login, String secret) {
        return "otpauth://totp/Yarrek:"
                + URLEncoder.encode(login, StandardCharsets.UTF_8).replace("+", "%20") + "?secret=" + secret
                + "&issuer=Yarrek";
    }

    /**
     * @return codes for the day the authenticator is lost, the only time they are seen
     * @throws IllegalArgumentException when the code is not the one of now
     */
    @Transactional
    public List<String> confirm(UUID userId, String code) {
        if (pending(userId).isEmpty() || !timed(userId, plain(code))) {
            throw new IllegalArgumentException(
                    "that is not the code of this moment; look whether the telephone's clock is right, and type the next one");
        }
        jdbc.sql("update app_user set totp_since = ? where id = ?")
                .params(Timestamp.from(clock.instant()), userId)
                .update();
        return recovery(userId);
    }

    private List<String> recovery(UUID userId) {
        jdbc.sql("delete from recovery_code where user_id = ?").param(userId).update();
        List<String> fresh = new ArrayList<>();
        for (int i = 0; i < RECOVERY_CODES; i++) {
            String c = base32.encodeToString(Secret.bytes(RECOVERY_BYTES)).toLowerCase(Locale.ROOT);
            jdbc.sql("insert into recovery_code (user_id, code_hash) values (?, ?)")
                    .params(userId, Secret.hash(c))
                    .update();
            fresh.add(c.replaceAll("(.{4})(?!$)", "$1-"));
        }
        return fresh;
    }

    /** Whether a code opens: the one of now, the one before or after, or one on paper. It does so once. */
    @Transactional
    public boolean opens(UUID userId, String code) {
        String c = plain(code);
        return isOn(userId) && (timed(userId, c) || onPaper(userId, c));
    }

    private boolean timed(UUID userId, String code) {
        long now = clock.instant().getEpochSecond() / codes.getTimeStep().toSeconds();
        String secret = kept(userId).orElseThrow().secret();
        for (long step = now - STEPS_OFF; step <= now + STEPS_OFF; step++) {
            // taken in one statement, so that of two who use one code at the same moment one comes in
            if (code(secret, step).equals(code)
                    && jdbc.sql("update app_user set totp_last_step = ? where id = ? and totp_last_step < ?")
                                    .params(step, userId, step)
                                    .update()
                            == 1) {
                return true;
            }
        }
        return false;
    }

    private String code(String secret, long step) {
        try {
            SecretKey key = new SecretKeySpec(base32.decode(secret), codes.getAlgorithm());
            return codes.generateOneTimePasswordString(
                    key, Instant.ofEpochSecond(step * codes.getTimeStep().toSeconds()));
        } catch (InvalidKeyException e) {
            throw new IllegalStateException("the secret of a login cannot be read", e);
        }
    }

    private boolean onPaper(UUID userId, String code) {
        return jdbc.sql("update recovery_code set used_at = ? where user_id = ? and code_hash = ? and used_at is null")
                        .params(Timestamp.from(clock.instant()), userId, Secret.hash(code))
                        .update()
                == 1;
    }

    private static String plain(String code) {
        return code.replaceAll("[\\s-]", "").toLowerCase(Locale.ROOT);
    }

    /** No code is asked for any more. */
    @Transactional
    public void off(UUID userId) {
        jdbc.sql("update app_user set totp_secret = null, totp_since = null where id = ?")
                .param(userId)
                .update();
        jdbc.sql("delete from recovery_code where user_id = ?").param(userId).update();
    }
}
