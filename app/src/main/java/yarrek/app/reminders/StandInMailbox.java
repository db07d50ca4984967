package yarrek.app.reminders;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.stream.Collectors;
import org.springframework.context.annotation.Profile;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.subethamail.smtp.helper.SimpleMessageListener;
import org.subethamail.smtp.helper.SimpleMessageListenerAdapter;
import org.subethamail.smtp.server.SMTPServer;
import yarrek.app.chains.ReceivedMail;
import yarrek.app.page.NotFoundException;

/** A simulated mail server and mailbox for the demo: it takes every mail on this machine and delivers none. */
@Component
@Profile("demo")
public class StandInMailbox {
    private static final int MOST_BYTES = 60 * 1024 * 1024;

    /** A mail that was taken. */
    public record Mail(long id, Instant receivedAt, String from, String to, String subject, String content) {}

    private final JdbcClient jdbc;
    private final Clock clock;
    private final SMTPServer server;

    StandInMailbox(JdbcClient jdbc, Clock clock) {
        this.jdbc = jdbc;
        this.clock = clock;
        this.server = SMTPServer.port(0)
                .bindAddress(InetAddress.getLoopbackAddress())
                .maxMessageSize(MOST_BYTES)
                .messageHandlerFactory(new SimpleMessageListenerAdapter(new SimpleMessageListener() {
                    @Override
                    public boolean accept(String from, String recipient) {
                        return true;
                    }

                    @Override
                    public void deliver(String from, String recipient, InputStream data) throws IOException {
                        take(from, recipient, data);
                    }
                }))
                .build();
        server.start();
    }

    int port() {
        return server.getPortAllocated();
    }

    private void take(String from, String to, InputStream data) throws IOException {
        byte[] raw = data.readAllBytes();
        try {
            ReceivedMail m = ReceivedMail.read(raw);
            String files =
                    m.attachments().stream().map(ReceivedMail.Attachment::name).collect(Collectors.joining(", "));
            jdbc.sql(
                            "insert into standin_mail (received_at, envelope_from, envelope_to, subject, content, raw) values (?, ?, ?, ?, ?, ?)")
                    .params(
                            java.sql.Timestamp.from(clock.instant()),
                            from,
                            to,
                            m.subject(),
                            m.text() + (files.isEmpty() ? "" : "\n\nFiles: " + files),
                            raw)
                    .update();
        } catch (IllegalArgumentException e) {
            throw new IOException("the mail does not read", e);
        }
    }

    /** The newest hundred. */
    public List<Mail> mails() {
        return jdbc.sql("select * from standin_mail order by id desc limit 100")
                .query((r, n) -> new Mail(
                        r.getLong("id"),
                        r.getTimestamp("received_at").toInstant(),
                        r.getString("envelope_from"),
                        r.getString("envelope_to"),
                        r.getString("subject"),
                        r.getString("content")))
                .list();
    }

    /** A message as it came. */
    public byte[] message(long id) {
        return jdbc.sql("select raw from standin_mail where id = ? and raw is not null")
                .param(id)
                .query((r, n) -> r.getBytes(1))
                .optional()
                .orElseThrow(() -> new NotFoundException("message"));
    }

    @PreDestroy
    void stop() {
        server.stop();
    }
}
