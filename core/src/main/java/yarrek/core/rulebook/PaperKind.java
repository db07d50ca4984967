package yarrek.core.rulebook;

import java.util.List;
import java.util.Optional;

/**
 * What a kind of paper means beyond its name. Which kinds there are, and what each means, is the operator's data.
 *
 * @param words as people say it
 * @param holder whose it is: operator, pilot, aircraft or job
 * @param settles the fact that one in force settles: a yes or no by being there, a list of words by the levels held
 * @param noneIsNo whether none in force settles a yes or no as no; else it stays not known
 * @param alsoForJob whether one may be granted for a single job, and then counts as the holder's for it
 * @param home whether it shows where a pilot or an aircraft is at home
 * @param opensCategory whether, with one on file, a flight of no job may be of another category than the usual
 * @param answers the question of an application that it answers
 * @param insures liability, hull or trip
 */
public record PaperKind(
        String code,
        String words,
        String holder,
        Optional<String> settles,
        boolean noneIsNo,
        boolean alsoForJob,
        Optional<Home> home,
        boolean opensCategory,
        Optional<String> answers,
        Optional<String> insures) {
    /** Questions of an application that papers answer. */
    public static final List<String> QUESTIONS =
            List.of("registration", "insurance", "invitation", "aircraft", "maintenance", "crew");

    /** Of what a paper shows that it is at home where the paper counts. */
    public enum Home {
        CERTIFICATE,
        REGISTRATION
    }

    /** A kind of which nothing follows but that rules may ask for it. */
    public static PaperKind of(String code, String words, String holder) {
        return new PaperKind(
                code,
                words,
                holder,
                Optional.empty(),
                false,
                false,
                Optional.empty(),
                false,
                Optional.empty(),
                Optional.empty());
    }

    public PaperKind settling(String fact, boolean whenNoneNo) {
        return new PaperKind(
                code, words, holder, Optional.of(fact), whenNoneNo, alsoForJob, home, opensCategory, answers, insures);
    }
}
