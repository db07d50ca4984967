package yarrek.app.chains;

import jakarta.mail.BodyPart;
import jakarta.mail.MessagingException;
import jakarta.mail.Multipart;
import jakarta.mail.Part;
import jakarta.mail.Session;
import jakarta.mail.internet.MimeMessage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Properties;
import java.util.UUID;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.web.util.HtmlUtils;

/**
 * A message as mail programs save it (RFC 5322, usually {@code .eml}).
 *
 * @param at when its sender says it was written; empty when it does not
 * @param answers identities of requests whose messages it answers
 */
public record ReceivedMail(
        String from,
        String subject,
        Optional<Instant> at,
        String text,
        List<Attachment> attachments,
        List<UUID> answers) {

    public record Attachment(String name, byte[] content) {}

    private static final int MOST_PARTS = 50;
    private static final int DEEPEST = 8;
    private static final Pattern HEAD = Pattern.compile(
            "\\A(?:[!-9;-~]{1,60}:[^\\r\\n]*\\r?\\n(?:[ \\t][^\\r\\n]*\\r?\\n)*+)+", Pattern.CASE_INSENSITIVE);
    private static final Pattern ID =
            Pattern.compile("<([0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12})\\.\\d+@yarrek>");

    static String idOf(UUID approval, int version) {
        return "<" + approval + "." + version + "@yarrek>";
    }

    /** Whether it begins as a message does: with a block of headers, a sender among them. */
    public static boolean isOne(byte[] content) {
        String head = new String(content, 0, Math.min(content.length, 32_768), StandardCharsets.ISO_8859_1);
        Matcher m = HEAD.matcher(head);
        return m.find()
                && Pattern.compile("^From:", Pattern.CASE_INSENSITIVE | Pattern.MULTILINE)
                        .matcher(m.group())
                        .find();
    }

    /** @throws IllegalArgumentException when it cannot be read; says why */
    public static ReceivedMail read(byte[] content) {
        try {
            MimeMessage m = new MimeMessage(Session.getInstance(new Properties()), new ByteArrayInputStream(content));
            Body body = new Body();
            body.add(m, 0);
            String asked = Stream.of("In-Reply-To", "References")
                    .flatMap(h -> headers(m, h))
                    .collect(Collectors.joining(" "));
            List<UUID> answers = new ArrayList<>();
            Matcher id = ID.matcher(asked);
            while (id.find()) {
                answers.add(UUID.fromString(id.group(1)));
            }
            return new ReceivedMail(
                    m.getFrom() == null
                            ? "not said"
                            : Arrays.stream(m.getFrom()).map(Object::toString).collect(Collectors.joining(", ")),
                    m.getSubject() == null ? "" : m.getSubject(),
                    Optional.ofNullable(m.getSentDate()).map(java.util.Date::toInstant),
                    body.text(),
                    body.attachments,
                    answers.stream().distinct().toList());
        } catch (MessagingException | IOException e) {
            throw new IllegalArgumentException(
                    "the message cannot be read (" + e.getMessage() + "); keep its text and its files apart", e);
        }
    }

    private static Stream<String> headers(MimeMessage m, String name) {
        try {
            String[] all = m.getHeader(name);
            return all == null ? Stream.of() : Arrays.stream(all);
        } catch (MessagingException e) {
            throw new IllegalArgumentException("the header " + name + " of the message cannot be read", e);
        }
    }

    /** What a message carries, part by part. */
    private static final class Body {
        private final StringBuilder plain = new StringBuilder();
        private final StringBuilder html = new StringBuilder();
        private final List<Attachment> attachments = new ArrayList<>();
        private int parts;

        void add(Part part, int depth) throws MessagingException, IOException {
            if (++parts > MOST_PARTS || depth > DEEPEST) {
                throw new MessagingException(
                        "it has more than " + MOST_PARTS + " parts, or parts within parts beyond " + DEEPEST);
            }
            Object content = part.isMimeType("multipart/*") || part.isMimeType("text/*") ? content(part) : null;
            if (content instanceof Multipart m) {
                for (int i = 0; i < m.getCount(); i++) {
                    BodyPart p = m.getBodyPart(i);
                    add(p, depth + 1);
                }
                return;
            }
            boolean named = part.getFileName() != null;
            if (content instanceof String s && !named && !Part.ATTACHMENT.equalsIgnoreCase(part.getDisposition())) {
                (part.isMimeType("text/html") ? html : plain).append(s).append('\n');
                return;
            }
            attachments.add(new Attachment(
                    named ? part.getFileName() : "part-" + parts,
                    part.getInputStream().readAllBytes()));
        }

        private static Object content(Part part) throws MessagingException, IOException {
            try {
                return part.getContent();
            } catch (java.io.UnsupportedEncodingException e) {
                return new String(part.getInputStream().readAllBytes(), StandardCharsets.ISO_8859_1);
            }
        }

        /** The plain text; of a message that has only the other kind, its words without the marks. */
        String text() {
            if (!plain.toString().isBlank()) {
                return plain.toString().strip();
            }
            String words = html.toString()
                    .replaceAll("(?is)<(script|style)\\b.*?</\\1>", "")
                    .replaceAll("(?i)<(br|/p|/div|/tr)\\b[^>]*>", "\n")
                    .replaceAll("<[^>]*>", "");
            return HtmlUtils.htmlUnescape(words)
                    .replaceAll("[ \\t]+", " ")
                    .replaceAll("\\n\\s*\\n+", "\n\n")
                    .strip();
        }
    }

    /** As it is kept in the correspondence. */
    public String kept() {
        return "From: " + from + "\nSubject: " + subject + "\n\n" + text;
    }
}
