package yarrek.app.office;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.security.SecureRandom;
import java.util.Base64;
import java.util.HexFormat;

/** Texts that nobody can guess; only their hash is kept, so that a copy of the database opens nothing. */
final class Secret {
    private static final int BYTES = 32;
    private static final SecureRandom RANDOM = new SecureRandom();

    private Secret() {}

    /** 43 characters that may stand in an address. */
    static String text() {
        return Base64.getUrlEncoder().withoutPadding().encodeToString(bytes(BYTES));
    }

    static byte[] bytes(int n) {
        byte[] bytes = new byte[n];
        RANDOM.nextBytes(bytes);
        return bytes;
    }

    /** 64 hexadecimal digits. */
    static String hash(String secret) {
        try {
            return HexFormat.of()
                    .formatHex(MessageDigest.getInstance("SHA-256").digest(secret.getBytes(StandardCharsets.UTF_8)));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }
}
