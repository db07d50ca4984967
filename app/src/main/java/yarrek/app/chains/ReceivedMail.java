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
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Properties;
import java.util.Set;
import java.util.UUID;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Document;

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
    /** Headers of which a message has one at least, beside its sender. */
    private static final Set<String> BESIDE = Set.of("date", "message-id", "subject", "to");

    /** What is longer is advertising, or an attack; the message itself is kept whole. */
    private static final int LONGEST_HTML = 200_000;

    private static final int LONGEST_HEAD = 65_536;
    private static final Pattern NAME = Pattern.compile("([!-9;-~]{1,60}):");
    private static final Pattern ID =
            Pattern.compile("<([0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12})\\.\\d+@yarrek>");

    static String idOf(UUID approval, int version) {
        return "<" + approval + "." + version + "@yarrek>";
    }

    /** Whether it begins as a message does: with headers, a sender among them, up to an empty line. */
    public static boolean isOne(byte[] content) {
        String head = new String(content, 0, Math.min(content.length, LONGEST_HEAD), StandardCharsets.ISO_8859_1);
        Set<String> names = new HashSet<>();
        for (String line : head.split("\\r?\\n", -1)) {
            if (line.isEmpty()) {
                return names.contains("from") && BESIDE.stream().anyMatch(names::contains);
            }
            if (line.startsWith(" ") || line.startsWith("\t")) {
                continue;
            }
            Matcher m = NAME.matcher(line);
            if (!m.lookingAt()) {
                return false;
            }
            names.add(m.group(1).toLowerCase(Locale.ROOT));
        }
        return false;
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
            Document words = Jsoup.parse(html.substring(0, Math.min(html.length(), LONGEST_HTML)));
            words.select("script, style").remove();
            words.select("br, p, div, tr").before("\n");
            return words.wholeText()
                    .lines()
                    .map(String::strip)
                    .filter(l -> !l.isEmpty())
                    .collect(Collectors.joining("\n"));
        }
    }

    /** As it is kept in the correspondence. */
    public String kept() {
        return "From: " + from + "\nSubject: " + subject + "\n\n" + text;
    }
}
