package yarrek.app.answers;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.UUID;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.forms.TypedFact;
import yarrek.core.rulebook.FactDefinition;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.Vocabulary;
import yarrek.core.time.Days;

/** What was said in answer to the rules' questions. An answer stays until somebody takes it back. */
@Service
public class Answers {
    /** What an answer is about; the nearest one wins: the job before the site, the site before the operator. */
    public enum About {
        OPERATOR("the operator"),
        SITE("this site"),
        AIRCRAFT("this aircraft"),
        PILOT("this pilot"),
        JOB("this job"),
        OCCURRENCE("this incident");

        private final String words;

        About(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        /** What a question of the vocabulary is usually about. */
        public static About usual(FactDefinition d) {
            return valueOf(d.of().toUpperCase(Locale.ROOT));
        }
    }

    /** @param holdsTo for flying that begins until then; null: until it is taken back */
    public record Answer(
            About about,
            UUID aboutId,
            String fact,
            String label,
            String shown,
            String saidBy,
            Instant saidAt,
            Instant holdsTo) {
        /** Until when flying has to begin for it to hold, in the civil time of a place. */
        public String until(ZoneId zone) {
            return "for flying that begins by " + BY.format(holdsTo.atZone(zone));
        }
    }

    /** Something was said of this; what rests on it is judged again. */
    public record Said(About about, UUID aboutId) {}

    private static final DateTimeFormatter BY = DateTimeFormatter.ofPattern("EEE d MMM HH:mm", Locale.UK);

    private final EntityManager em;
    private final Clock clock;
    private final ApplicationEventPublisher events;

    Answers(EntityManager em, Clock clock, ApplicationEventPublisher events) {
        this.em = em;
        this.clock = clock;
        this.events = events;
    }

    /**
     * Stores answers, typed as people type; an empty one takes the answer back.
     *
     * @throws IllegalArgumentException naming the question when a value does not read as its type; then nothing is stored
     */
    @Transactional
    public void say(About about, UUID aboutId, Map<String, String> typed, String by) {
        say(about, aboutId, typed, by, ZoneOffset.UTC);
    }

    /** The same with times of day in the civil time of a place. */
    @Transactional
    public void say(About about, UUID aboutId, Map<String, String> typed, String by, ZoneId zone) {
        typed.forEach((fact, text) -> {
            FactDefinition d = Vocabulary.define(fact);
            AnswerEntity.Key key = new AnswerEntity.Key(about, aboutId, fact);
            AnswerEntity a = em.find(AnswerEntity.class, key);
            if (text.isBlank()) {
                if (a != null) {
                    em.remove(a);
                }
                return;
            }
            String value = read(d, text, zone).text();
            boolean first = a == null;
            if (first) {
                a = new AnswerEntity(about, aboutId, fact);
            }
            a.value = value;
            a.saidBy = by;
            a.saidAt = clock.instant();
            if (first) {
                em.persist(a);
            }
        });
        em.flush();
        events.publishEvent(new Said(about, aboutId));
    }

    /**
     * Reads a value as typed: "400 ft", "yes", a word, words with spaces between, a date.
     *
     * @throws IllegalArgumentException naming the question and what is accepted
     */
    public FactValue read(FactDefinition d, String text) {
        return read(d, text, ZoneOffset.UTC);
    }

    /** The same with times of day in the civil time of a place: "today 10:45", "25 Nov 2026 14:05", or an instant. */
    public FactValue read(FactDefinition d, String text, ZoneId zone) {
        return TypedFact.read(d, text, zone, clock.instant());
    }

    /** Adds to the facts what was said of these, the operator's first so that nearer answers win. */
    @Transactional(readOnly = true)
    public void put(Facts.Builder b, Map<About, UUID> of) {
        onFile(of.values()).of(of).forEach(a -> b.with(a.fact(), a.value(), a.source()));
    }

    /** What was said of these, in one statement. */
    @Transactional(readOnly = true)
    public OnFile onFile(Collection<UUID> ids) {
        Map<UUID, List<AnswerEntity>> byId = new HashMap<>();
        if (!ids.isEmpty()) {
            em.createQuery("from AnswerEntity a where a.aboutId in :ids order by a.fact", AnswerEntity.class)
                    .setParameter("ids", ids)
                    .getResultStream()
                    .filter(a -> Vocabulary.knows(a.fact))
                    .forEach(a -> byId.computeIfAbsent(a.aboutId, k -> new ArrayList<>())
                            .add(a));
        }
        return new OnFile(byId);
    }

    /** Answers about many things, read once. */
    public final class OnFile {
        private final Map<UUID, List<AnswerEntity>> byId;

        private OnFile(Map<UUID, List<AnswerEntity>> byId) {
            this.byId = byId;
        }

        /** A value as people write it; see {@link Answers#read(FactDefinition, String)}. */
        public FactValue read(FactDefinition d, String text) {
            return Answers.this.read(d, text);
        }

        /** What was said of these, the operator's first so that nearer answers win. */
        public List<yarrek.core.judging.Said> of(Map<About, UUID> of) {
            List<yarrek.core.judging.Said> said = new ArrayList<>();
            for (About about : About.values()) {
                byId.getOrDefault(of.get(about), List.of()).stream()
                        .filter(a -> a.about == about)
                        .forEach(a -> said.add(new yarrek.core.judging.Said(
                                about == About.JOB,
                                a.fact,
                                FactValue.of(Vocabulary.define(a.fact), a.value),
                                "said of " + about.words() + " by " + a.saidBy + " on "
                                        + Days.show(LocalDate.ofInstant(a.saidAt, ZoneOffset.UTC)),
                                holdsTo(a))));
            }
            return said;
        }
    }

    private static Optional<Instant> holdsTo(AnswerEntity a) {
        OptionalInt hours = Vocabulary.define(a.fact).holdsHours();
        return hours.isEmpty() ? Optional.empty() : Optional.of(a.saidAt.plus(Duration.ofHours(hours.getAsInt())));
    }

    /** What was said of these, newest first. */
    @Transactional(readOnly = true)
    public List<Answer> of(Collection<UUID> ids) {
        return ids.isEmpty()
                ? List.of()
                : em.createQuery(
                                "from AnswerEntity a where a.aboutId in :ids order by a.saidAt desc",
                                AnswerEntity.class)
                        .setParameter("ids", ids)
                        .getResultStream()
                        .filter(a -> Vocabulary.knows(a.fact))
                        .map(a -> {
                            FactDefinition d = Vocabulary.define(a.fact);
                            return new Answer(
                                    a.about,
                                    a.aboutId,
                                    a.fact,
                                    d.label(),
                                    FactValue.of(d, a.value).show(d),
                                    a.saidBy,
                                    a.saidAt,
                                    holdsTo(a).orElse(null));
                        })
                        .toList();
    }
}
