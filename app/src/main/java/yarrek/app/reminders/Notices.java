package yarrek.app.reminders;

import jakarta.persistence.EntityManager;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.security.SecureRandom;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.mail.MailException;
import org.springframework.mail.SimpleMailMessage;
import org.springframework.mail.javamail.JavaMailSender;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.chains.Chains;
import yarrek.app.crew.Crew;
import yarrek.app.fleet.Fleet;
import yarrek.app.jobs.JobLists;
import yarrek.app.jobs.Jobs;
import yarrek.app.office.Office;
import yarrek.app.page.Show;
import yarrek.app.page.Viewer;
import yarrek.app.papers.Papers;
import yarrek.app.today.Today;
import yarrek.formats.calendar.CalendarFeed;

/** Calendars and digests, each seen with the eyes of the login it is for. */
@Service
public class Notices {
    private static final Logger LOG = LoggerFactory.getLogger(Notices.class);
    private static final int SECRET_BYTES = 32;

    /** Local hour from which the day's digest goes out. */
    private static final int DIGEST_HOUR = 6;

    /** Remind of a paper at nine on its day to act, and a week before. */
    private static final List<Integer> PAPER_ALARMS = List.of(9, -7 * 24);

    private static final List<Integer> JOB_ALARMS = List.of(-24);
    private static final int MOST_JOBS = 500;
    private static final int AHEAD_DAYS = 400;

    /** A feed in a list; its address is shown once and not kept. */
    public record Feed(UUID id, Instant createdAt, Instant revokedAt) {}

    private final EntityManager em;
    private final JdbcClient jdbc;
    private final Clock clock;
    private final Office office;
    private final Jobs jobs;
    private final JobLists jobLists;
    private final Papers papers;
    private final Crew crew;
    private final Fleet fleet;
    private final Today today;
    private final Chains chains;
    private final Show show;
    private final JavaMailSender mail;
    private final MailAddresses addresses;
    private final SecureRandom random = new SecureRandom();

    /** Where mail comes from, and where its links lead. */
    public record MailAddresses(String from, String base) {}

    Notices(
            EntityManager em,
            JdbcClient jdbc,
            Clock clock,
            Office office,
            Jobs jobs,
            JobLists jobLists,
            Papers papers,
            Crew crew,
            Fleet fleet,
            Today today,
            Chains chains,
            Show show,
            JavaMailSender mail,
            MailAddresses addresses) {
        this.em = em;
        this.jdbc = jdbc;
        this.clock = clock;
        this.office = office;
        this.jobs = jobs;
        this.jobLists = jobLists;
        this.papers = papers;
        this.crew = crew;
        this.fleet = fleet;
        this.today = today;
        this.chains = chains;
        this.show = show;
        this.mail = mail;
        this.addresses = addresses;
    }

    // --- feeds
    // ---------------------------------------------------------------------------------------------------------

    /** Makes a feed; the secret returned is the only time it is seen. */
    @Transactional
    public String createFeed(UUID userId) {
        byte[] bytes = new byte[SECRET_BYTES];
        random.nextBytes(bytes);
        String secret = Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
        em.persist(new FeedEntity(UUID.randomUUID(), userId, hash(secret), clock.instant()));
        return secret;
    }

    private static String hash(String secret) {
        try {
            return HexFormat.of()
                    .formatHex(MessageDigest.getInstance("SHA-256").digest(secret.getBytes(StandardCharsets.UTF_8)));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }

    @Transactional(readOnly = true)
    public List<Feed> feeds(UUID userId) {
        return em.createQuery("from FeedEntity f where f.userId = :u order by f.createdAt desc", FeedEntity.class)
                .setParameter("u", userId)
                .getResultStream()
                .map(f -> new Feed(f.id, f.createdAt, f.revokedAt))
                .toList();
    }

    /** Takes a feed of this login back; those of others are left alone. */
    @Transactional
    public void revokeFeed(UUID userId, UUID feedId) {
        FeedEntity f = em.find(FeedEntity.class, feedId);
        if (f != null && f.userId.equals(userId)) {
            f.revokedAt = clock.instant();
        }
    }

    /** The calendar behind a secret; empty when there is none, it was revoked, or its login is closed. */
    @Transactional(readOnly = true)
    public Optional<String> calendar(String secret, String base) {
        return em.createQuery("from FeedEntity f where f.secretHash = :h and f.revokedAt is null", FeedEntity.class)
                .setParameter("h", hash(secret))
                .getResultStream()
                .findFirst()
                .flatMap(f -> office.viewer(f.userId))
                .map(v -> CalendarFeed.write("Yarrek, " + v.name(), entries(v, base), clock.instant()));
    }

    private List<CalendarFeed.Entry> entries(Viewer viewer, String base) {
        List<CalendarFeed.Entry> entries = new ArrayList<>();
        for (Jobs.Row j : jobLists.upcoming(viewer, MOST_JOBS)) {
            entries.add(new CalendarFeed.Entry(
                    "job-" + j.id() + "@yarrek",
                    "Job: " + j.name(),
                    j.siteName() + ", " + j.pilotName() + ", " + j.buildName() + ". "
                            + (j.noGo() ? "No-go as planned: " : "") + j.reason(),
                    base + "/jobs/" + j.id(),
                    Optional.empty(),
                    Optional.of(j.start()),
                    Optional.of(j.end()),
                    JOB_ALARMS));
        }
        for (Chains.Due d : chains.due(viewer, AHEAD_DAYS, Integer.MAX_VALUE).first()) {
            entries.add(new CalendarFeed.Entry(
                    "send-" + UUID.nameUUIDFromBytes((d.jobId() + d.title()).getBytes(StandardCharsets.UTF_8))
                            + "@yarrek",
                    "Send by: " + d.title(),
                    "for " + d.jobName() + (d.known() ? "" : "; whether it is needed is not known"),
                    base + "/jobs/" + d.jobId() + "/chain",
                    Optional.of(d.sendBy()),
                    Optional.empty(),
                    Optional.empty(),
                    PAPER_ALARMS));
        }
        Map<UUID, String> names = names();
        LocalDate now = LocalDate.now(clock.withZone(office.operator().zone()));
        for (Papers.Row p : papers.all()) {
            boolean mine = !viewer.isPilot() || p.holderId().equals(viewer.personId());
            if (!mine || p.validTo() == null || p.validTo().isBefore(now) || !names.containsKey(p.holderId())) {
                continue;
            }
            String what = p.kindWords() + (p.level() == null ? "" : " " + p.level()) + " of " + names.get(p.holderId());
            if (p.actBy() != null) {
                entries.add(day("act", p, p.actBy(), "Act: " + what, p.actByWhy(), base));
            }
            entries.add(day(
                    "end", p, p.validTo(), "Last day: " + what, p.number() + " is valid to the end of this day", base));
        }
        return entries;
    }

    private static CalendarFeed.Entry day(
            String kind, Papers.Row p, LocalDate day, String summary, String why, String base) {
        return new CalendarFeed.Entry(
                kind + "-" + p.id() + "@yarrek",
                summary,
                why,
                base + "/papers/" + p.id(),
                Optional.of(day),
                Optional.empty(),
                Optional.empty(),
                PAPER_ALARMS);
    }

    private Map<UUID, String> names() {
        Map<UUID, String> names = new HashMap<>(fleet.aircraftNames());
        crew.all().forEach(p -> names.put(p.id(), p.name()));
        names.put(office.operator().id(), "the operator");
        names.putAll(jobs.names());
        return names;
    }

    // --- digest
    // --------------------------------------------------------------------------------------------------------

    /** Sends the day's digests that have not gone out yet; safe to run on several nodes. */
    public void sendDue() {
        if (office.isEmpty()) {
            return;
        }
        ZoneId zone = office.operator().zone();
        LocalDate day = LocalDate.now(clock.withZone(zone));
        if (clock.instant().atZone(zone).getHour() < DIGEST_HOUR) {
            return;
        }
        for (Office.MailWish w : office.digestWishes()) {
            if (claim(w.userId(), day)) {
                try {
                    send(w);
                } catch (MailException e) {
                    LOG.warn("the digest for {} was not taken by the mail server: {}", w.login(), e.getMessage());
                    jdbc.sql("delete from digest_sent where user_id = ? and sent_day = ?")
                            .params(w.userId(), day)
                            .update(); // tried again next time
                }
            }
        }
    }

    /** Whether this node may send it: the first to enter the row. */
    private boolean claim(UUID userId, LocalDate day) {
        try {
            return jdbc.sql("insert into digest_sent (user_id, sent_day, sent_at) values (?, ?, ?)")
                            .params(userId, day, java.sql.Timestamp.from(clock.instant()))
                            .update()
                    == 1;
        } catch (DuplicateKeyException e) {
            return false;
        }
    }

    /**
     * Sends the digest of today now.
     *
     * @throws MailException when the mail server does not take it
     * @throws IllegalArgumentException when the login has no address
     */
    public void send(Office.MailWish w) {
        if (w.email().isEmpty()) {
            throw new IllegalArgumentException("there is no address to send it to");
        }
        Viewer viewer = office.viewer(w.userId()).orElseThrow();
        SimpleMailMessage m = new SimpleMailMessage();
        m.setFrom(addresses.from());
        m.setTo(w.email());
        Today.Page page = today.page(viewer);
        m.setSubject("Yarrek, " + show.date(page.today()) + ": " + page.queue().size() + " to see to");
        m.setText(digest(page));
        mail.send(m);
    }

    private String digest(Today.Page page) {
        StringBuilder s = new StringBuilder("What needs a hand, by when\n\n");
        if (page.queue().isEmpty()) {
            s.append("Nothing.\n");
        }
        for (Today.Item i : page.queue()) {
            s.append(i.late() ? "LATE  " : "")
                    .append(show.dayMonth(i.by().atZone(page.zone()).toLocalDate()))
                    .append(i.allDay() ? "" : " " + show.clock(i.by(), page.zone()))
                    .append("  ")
                    .append(i.what())
                    .append(": ")
                    .append(i.state())
                    .append("\n    ")
                    .append(i.why())
                    .append("\n    ")
                    .append(addresses.base())
                    .append(i.link())
                    .append("\n\n");
        }
        s.append("Next jobs\n\n");
        for (Jobs.Row j : page.nextJobs()) {
            s.append(show.date(j.firstDay()))
                    .append(", ")
                    .append(show.clock(j.start(), j.zone()))
                    .append("  ")
                    .append(j.name())
                    .append(": ")
                    .append(j.go().says())
                    .append("\n    ")
                    .append(j.reason())
                    .append("\n\n");
        }
        return s.append("The authority's current text and the pilot in command have the last word.\n")
                .toString();
    }
}
