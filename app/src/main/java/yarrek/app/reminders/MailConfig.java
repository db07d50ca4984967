package yarrek.app.reminders;

import org.springframework.beans.factory.ObjectProvider;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.mail.javamail.JavaMailSender;
import org.springframework.mail.javamail.JavaMailSenderImpl;

/** How mail leaves: through the server that is set, or in the demo to the stand-in mailbox. */
@Configuration
class MailConfig {
    private static final String TIMEOUT_MS = "10000";

    @Bean
    JavaMailSender mailSender(
            @Value("${yarrek.mail.host}") String host,
            @Value("${yarrek.mail.port}") int port,
            @Value("${yarrek.mail.user}") String user,
            @Value("${yarrek.mail.password}") String password,
            ObjectProvider<StandInMailbox> standIn) {
        JavaMailSenderImpl sender = new JavaMailSenderImpl();
        StandInMailbox box = standIn.getIfAvailable();
        sender.setHost(box == null ? host : "127.0.0.1");
        sender.setPort(box == null ? port : box.port());
        if (!user.isEmpty()) {
            sender.setUsername(user);
            sender.setPassword(password);
            sender.getJavaMailProperties().setProperty("mail.smtp.auth", "true");
            sender.getJavaMailProperties().setProperty("mail.smtp.starttls.enable", "true");
        }
        sender.setDefaultEncoding("UTF-8");
        for (String t : new String[] {"mail.smtp.connectiontimeout", "mail.smtp.timeout", "mail.smtp.writetimeout"}) {
            sender.getJavaMailProperties().setProperty(t, TIMEOUT_MS);
        }
        return sender;
    }

    @Bean
    Notices.MailAddresses mailAddresses(
            @Value("${yarrek.mail.from}") String from, @Value("${yarrek.address}") String base) {
        return new Notices.MailAddresses(from, base);
    }
}
