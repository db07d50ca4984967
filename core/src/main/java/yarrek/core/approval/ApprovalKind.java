package yarrek.core.approval;

import java.math.BigDecimal;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import yarrek.core.airspace.ZoneKind;
import yarrek.core.rulebook.Condition;

/**
 * A kind of approval, as data.
 *
 * @param jurisdictions codes of the places where it is asked for; empty for everywhere
 * @param granter who grants it, in words
 * @param trigger what makes it needed
 * @param needs kinds that are needed whenever this one is, and granted before it can be sent
 * @param after kinds that must be granted before it can be sent, where they are needed at all
 * @param prepareHours work on the first request of a job, hours
 * @param copyHours work on each further one, made by copying
 * @param usual lead time as a rule, {@code worst} at worst
 * @param earliestDays days before the day it is for at which it may be sent at the earliest; zero for any time
 * @param longestDays days one request may cover at most; zero for any number
 * @param fee what it costs, with the currency after it; empty when nothing or not known
 * @param quotes kinds whose number it must quote
 * @param unlock a maker's unlock: for one aircraft each, equal to the approvals it rests on, and followed to power-on
 * @param desk which desk takes it over HTTP: "air", "unlock" or empty for none
 * @param source where this is written, and how sure it is
 */
public record ApprovalKind(
        String code,
        String title,
        Set<String> jurisdictions,
        String granter,
        Trigger trigger,
        Set<String> needs,
        Set<String> after,
        double prepareHours,
        double copyHours,
        Lead usual,
        Lead worst,
        int earliestDays,
        int longestDays,
        Optional<Fee> fee,
        Set<String> quotes,
        Gives gives,
        boolean unlock,
        String desk,
        List<Question> questions,
        String source) {
    public ApprovalKind {
        if (!(prepareHours >= 0 && prepareHours <= 10_000) || !(copyHours >= 0 && copyHours <= prepareHours)) {
            throw new IllegalArgumentException(
                    "hours of work must be 0 to 10,000, and those of a copy not above those of the first");
        }
        if (earliestDays < 0 || longestDays < 0) {
            throw new IllegalArgumentException("days must be 0 or more");
        }
        jurisdictions = Set.copyOf(jurisdictions);
        needs = Set.copyOf(needs);
        after = Set.copyOf(after);
        quotes = Set.copyOf(quotes);
        questions = List.copyOf(questions);
    }

    /** An amount and its currency. */
    public record Fee(BigDecimal amount, String currency) {
        @Override
        public String toString() {
            return amount.toPlainString() + " " + currency;
        }
    }

    /**
     * What makes it needed: any of these.
     *
     * @param answers ids of rules that it lifts or settles; needed when one is breached without it
     * @param zones kinds of zone; with rules it stands for those zones only, one request for each; without rules it is
     *     needed wherever such a zone is met
     * @param makersMap needed where the maker's map blocks
     * @param when needed when this holds of the job
     */
    public record Trigger(Set<String> answers, Set<ZoneKind> zones, boolean makersMap, Condition when) {
        public Trigger {
            answers = Set.copyOf(answers);
            zones = Set.copyOf(zones);
        }
    }

    /**
     * What holding it means for the rules.
     *
     * @param paper kind of paper of the job it becomes, and its level
     * @param facts facts that it settles, as they are typed; "ceiling" stands for the ceiling granted
     */
    public record Gives(String paper, String level, Map<String, String> facts) {
        public Gives {
            facts = Map.copyOf(facts);
        }
    }

    /**
     * A question of the granter's list.
     *
     * @param number as the granter numbers it
     * @param section heading under which it stands
     * @param from what of the job answers it; "typed" when only a person can
     * @param weighty reviewers look at it most
     */
    public record Question(String number, String section, String ask, String from, boolean weighty) {}

    public boolean holdsIn(String jurisdiction) {
        return jurisdictions.isEmpty()
                || jurisdictions.contains(jurisdiction)
                || jurisdictions.contains(jurisdiction.replaceFirst("-.*", ""));
    }

    /** The laws in which it is asked for, or that it is everywhere. */
    public String places() {
        return jurisdictions.isEmpty() ? "everywhere" : String.join(" ", jurisdictions);
    }
}
