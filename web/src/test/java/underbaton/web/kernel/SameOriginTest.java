package underbaton.web.kernel;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.web.UnderBaton;

/** A page from elsewhere in the same browser must not fire cues. */
class SameOriginTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    /** Written by hand, since clients refuse to lie about host and origin. */
    private String firstLine(String method, String host, String origin) throws IOException {
        URI at = URI.create(baton.url("/shows/1/desk/go"));
        try (Socket socket = new Socket(at.getHost(), at.getPort())) {
            String request = method + " " + (method.equals("GET") ? "/" : at.getPath()) + " HTTP/1.1\r\nHost: "
                    + host.replace("PORT", "" + at.getPort())
                    + (origin.isEmpty() ? "" : "\r\nOrigin: " + origin.replace("PORT", "" + at.getPort()))
                    + "\r\nContent-Length: 0\r\nConnection: close\r\n\r\n";
            socket.getOutputStream().write(request.getBytes(StandardCharsets.US_ASCII));
            String answer = new String(socket.getInputStream().readAllBytes(), StandardCharsets.ISO_8859_1);
            return answer.lines().findFirst().orElse("");
        }
    }

    @Test
    void onlyOurOwnPagesMayChangeAnything() throws IOException {
        assertThat(firstLine("POST", "127.0.0.1:PORT", "http://evil.example")).contains("403");
        assertThat(firstLine("POST", "127.0.0.1:PORT", "null")).contains("403");
        assertThat(firstLine("POST", "127.0.0.1:PORT", "http://127.0.0.1:1")).contains("403");
        assertThat(firstLine("POST", "127.0.0.1:PORT", "http://127.0.0.1:PORT")).doesNotContain("403");
        assertThat(firstLine("POST", "127.0.0.1:PORT", "")).doesNotContain("403");
    }

    @Test
    void anotherHostNameIsNotAnswered() throws IOException {
        assertThat(firstLine("GET", "evil.example:PORT", "")).contains("403");
        assertThat(firstLine("GET", "localhost:PORT", "")).contains("200");
    }
}
