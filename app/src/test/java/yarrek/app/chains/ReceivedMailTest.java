package yarrek.app.chains;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class ReceivedMailTest {
    private static final UUID REQUEST = UUID.fromString("6f6f1b7e-2c7e-4b77-9f5e-0d1f6c2b8a11");

    private static byte[] bytes(String lines) {
        return lines.replace("\n", "\r\n").getBytes(StandardCharsets.UTF_8);
    }

    /** A reply with its words twice, quoted-printable, and a file. */
    private static final String REPLY = """
            Received: from somewhere
             by somewhere else
            From: =?utf-8?Q?Tarrow_Tower_=E2=80=93_desk?= <desk@example.invalid>
            To: office@example.invalid
            Date: Tue, 1 Dec 2026 14:05:00 +0100
            Subject: =?utf-8?B?UmU6IGZpZWxkIGVkZ2UsIDEywrA=?=
            In-Reply-To: <6f6f1b7e-2c7e-4b77-9f5e-0d1f6c2b8a11.2@yarrek>
            References: <other@example.invalid>
             <6f6f1b7e-2c7e-4b77-9f5e-0d1f6c2b8a11.1@yarrek>
            MIME-Version: 1.0
            Content-Type: multipart/mixed; boundary="outer"

            --outer
            Content-Type: multipart/alternative; boundary="inner"

            --inner
            Content-Type: text/plain; charset=utf-8
            Content-Transfer-Encoding: quoted-printable

            Granted below 50=C2=A0m.
            --inner
            Content-Type: text/html; charset=utf-8

            <p>Granted below <b>50&nbsp;m</b>.</p>
            --inner--
            --outer
            Content-Type: application/pdf
            Content-Disposition: attachment; filename="grant.pdf"
            Content-Transfer-Encoding: base64

            JVBERi0xLjQK
            --outer--
            """;

    @Test
    void aReplyWithItsFileAndWhatItAnswers() {
        byte[] message = bytes(REPLY);
        assertThat(ReceivedMail.isOne(message)).isTrue();
        ReceivedMail m = ReceivedMail.read(message);
        assertThat(m.from()).contains("desk@example.invalid");
        assertThat(m.subject()).isEqualTo("Re: field edge, 12°");
        assertThat(m.at()).contains(Instant.parse("2026-12-01T13:05:00Z"));
        assertThat(m.text()).isEqualTo("Granted below 50\u00a0m.");
        assertThat(m.answers()).containsExactly(REQUEST);
        assertThat(m.attachments()).hasSize(1);
        assertThat(m.attachments().get(0).name()).isEqualTo("grant.pdf");
        assertThat(m.attachments().get(0).content()).isEqualTo("%PDF-1.4\n".getBytes(StandardCharsets.US_ASCII));
        assertThat(m.kept())
                .startsWith("From: ")
                .contains("Subject: Re: field edge, 12°")
                .endsWith("50\u00a0m.");
    }

    @Test
    void ofAMessageInMarksOnlyTheWordsAreKept() {
        ReceivedMail m = ReceivedMail.read(bytes("""
                From: a@example.invalid
                Subject: refused
                Content-Type: text/html; charset=iso-8859-1

                <html><style>p {color: red}</style><script>alert(1)</script><p>Not&nbsp;granted:</p><br>no&lt;thing</html>
                """));
        assertThat(m.text()).isEqualTo("Not\u00a0granted:\nno<thing");
        assertThat(m.at()).isEmpty();
        assertThat(m.attachments()).isEmpty();
    }

    @Test
    void anUnknownAlphabetIsReadAsBytes() {
        ReceivedMail m = ReceivedMail.read(
                bytes("From: a@example.invalid\nContent-Type: text/plain; charset=no-such\n\nGranted.\n"));
        assertThat(m.text()).isEqualTo("Granted.");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "Granted, see below.\nFrom: me",
                "From: Tarrow tower\nplease call back",
                "From: Tarrow tower\n\nplease call back",
                "%PDF-1.4\nFrom: x",
                "Subject: no sender\n\ntext",
                "\n\nFrom: x\n"
            })
    void whatIsNoMessageIsTakenAsText(String content) {
        assertThat(ReceivedMail.isOne(bytes(content))).isFalse();
    }

    @Test
    void aMessageOfMessagesWithoutEndIsRefusedInWords() {
        StringBuilder s = new StringBuilder("From: a@example.invalid\nContent-Type: multipart/mixed; boundary=b\n\n");
        for (int i = 0; i < 60; i++) {
            s.append("--b\nContent-Type: text/plain\n\npart\n");
        }
        byte[] message = bytes(s + "--b--\n");
        assertThatThrownBy(() -> ReceivedMail.read(message))
                .hasMessageContaining("more than 50 parts")
                .hasMessageContaining("keep its text and its files apart");
    }

    /** Marks that are opened and never closed, and more headers than anybody sends, take a moment and no more. */
    @Test
    @Timeout(20)
    void hostileMarksAndHeadersAreReadInAMoment() {
        ReceivedMail m =
                ReceivedMail.read(bytes("From: a@example.invalid\nSubject: x\nContent-Type: text/html\n\nGranted."
                        + "<script".repeat(300_000)));
        assertThat(m.text()).startsWith("Granted.");
        assertThat(ReceivedMail.isOne(bytes("From: a@example.invalid\nSubject: x\n" + "a:\n".repeat(9_000) + "\nx")))
                .isTrue();
    }

    /** Headers that never end are looked at in a moment. */
    @Test
    void longHeadersAreNoTrouble() {
        assertThat(ReceivedMail.isOne(("X: " + "y".repeat(200_000)).getBytes(StandardCharsets.US_ASCII)))
                .isFalse();
        assertThat(ReceivedMail.isOne(("X: 1\r\n" + " z\r\n".repeat(50_000)).getBytes(StandardCharsets.US_ASCII)))
                .isFalse();
    }
}
