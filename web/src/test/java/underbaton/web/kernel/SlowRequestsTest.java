package underbaton.web.kernel;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static underbaton.web.UnderBaton.until;

import com.microsoft.playwright.Page;
import java.io.IOException;
import java.net.InetAddress;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import underbaton.web.UnderBaton;
import underbaton.web.stage.Stage;

/** Four hundred requests that are begun and never ended leave room for orders, and have an end. */
class SlowRequestsTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private static final int MANY = 400;
    private final List<Socket> sockets = new ArrayList<>();
    private int show;

    @BeforeEach
    void open() {
        show = baton.show("The Ferryman’s Lantern");
        baton.bean(Stage.class).open(show);
    }

    @AfterEach
    void close() throws IOException {
        for (Socket socket : sockets) {
            socket.close();
        }
        baton.bean(Stage.class).close();
    }

    private void begin(String path, String kind) throws IOException {
        Socket socket = new Socket(
                InetAddress.getLoopbackAddress(), URI.create(baton.url("/")).getPort());
        socket.getOutputStream()
                .write(("POST " + path + " HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: " + kind
                                + "\r\nContent-Length: 9000\r\n\r\nname=")
                        .getBytes(StandardCharsets.ISO_8859_1));
        sockets.add(socket);
    }

    /** Each says one byte more now and then. @return how many are still listened to */
    private int trickle() {
        int there = 0;
        for (Socket socket : sockets) {
            try {
                socket.getOutputStream().write('a');
                there++;
                System.out.print(" " + sockets.indexOf(socket));
            } catch (IOException givenUp) {
                // That is what is waited for.
            }
        }
        System.out.println();
        return there;
    }

    @Test
    void ordersComeThroughAndTheOthersAreGivenUp() throws IOException {
        Page page = baton.open("/shows/" + show + "/desk");
        String first = page.locator(".standby .n").textContent();
        for (int i = 0; i < MANY; i++) {
            begin(
                    "/shows/" + show + (i % 2 == 0 ? "/desk/jump" : "/book/items"),
                    i % 3 == 0 ? "multipart/form-data; boundary=x" : "application/x-www-form-urlencoded");
        }
        until("most are refused at once", () -> trickle() < MANY / 2);
        assertThat(baton.get("/shows/" + show + "/book").statusCode()).isEqualTo(200);
        assertThat(baton.post("/shows/" + show + "/desk/note", "words", "x").statusCode())
                .isEqualTo(503);
        page.keyboard().press("Enter");
        assertThat(page.locator(".standby .n")).not().hasText(first);
        until("all are given up", () -> trickle() == 0);
        assertThat(baton.get("/shows/" + show + "/rig").statusCode()).isEqualTo(200);
    }
}
