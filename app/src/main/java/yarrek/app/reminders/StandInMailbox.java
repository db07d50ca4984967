package yarrek.app.reminders;

import jakarta.annotation.PreDestroy;
import jakarta.mail.MessagingException;
import jakarta.mail.Session;
import jakarta.mail.internet.MimeMessage;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Properties;
import org.springframework.context.annotation.Profile;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.subethamail.smtp.helper.SimpleMessageListener;
import org.subethamail.smtp.helper.SimpleMessageListenerAdapter;
import org.subethamail.smtp.server.SMTPServer;

/** A simulated mail server and mailbox for the demo: it takes every mail on this machine and delivers none. */
@Component
@Profile("demo")
public class StandInMailbox {
    private static final int MOST_BYTES = 1024 * 1024;

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
        try {
            MimeMessage m = new MimeMessage(Session.getInstance(new Properties()), data);
            jdbc.sql(
                            "insert into standin_mail (received_at, envelope_from, envelope_to, subject, content) values (?, ?, ?, ?, ?)")
                    .params(
                            java.sql.Timestamp.from(clock.instant()),
                            from,
                            to,
                            String.valueOf(m.getSubject()),
                            String.valueOf(m.getContent()))
                    .update();
        } catch (MessagingException e) {
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

    @PreDestroy
    void stop() {
        server.stop();
    }
}
