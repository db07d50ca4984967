package yarrek.app.office;

import com.nulabinc.zxcvbn.Strength;
import com.nulabinc.zxcvbn.Zxcvbn;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import org.springframework.stereotype.Component;

/**
 * What a password must be: of some length, and not among those that are tried first. How soon it would be guessed is reckoned
 * by the lists and patterns of zxcvbn; no sort of character is asked for, since that makes passwords worse.
 */
@Component
class PasswordRules {
    static final int SHORTEST = 10;
    /** The hash looks at no more. */
    static final int LONGEST_BYTES = 72;
    /** Of 0 to 4: not guessed within 10^8 tries. */
    private static final int STRONG_ENOUGH = 3;

    static final String HINT =
            "at least 10 characters that are not easily guessed; four words that have nothing to do with one another will do";

    private final Zxcvbn lists = new Zxcvbn();

    /**
     * @param own words of the login itself: its name and that of its person
     * @throws IllegalArgumentException saying what is wrong with it
     */
    void check(String password, String... own) {
        if (password.length() < SHORTEST) {
            throw new IllegalArgumentException("the password needs at least " + SHORTEST + " characters");
        }
        if (password.getBytes(StandardCharsets.UTF_8).length > LONGEST_BYTES) {
            throw new IllegalArgumentException("the password may have at most " + LONGEST_BYTES
                    + " bytes; letters with accents count as two or three");
        }
        List<String> close = new ArrayList<>(List.of("yarrek"));
        for (String o : own) {
            close.addAll(List.of(o.strip().split("\\s+")));
        }
        Strength s = lists.measure(password, close);
        boolean easy = s.getScore() < STRONG_ENOUGH;
        String why = s.getFeedback().getWarning();
        s.wipe();
        if (easy) {
            throw new IllegalArgumentException("the password would be guessed too soon"
                    + (why == null || why.isEmpty() ? "" : " (" + why.replaceAll("[.]$", "") + ")")
                    + "; add a word or two that have nothing to do with it");
        }
    }
}
