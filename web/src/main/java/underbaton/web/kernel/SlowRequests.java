package underbaton.web.kernel;

import jakarta.servlet.ServletException;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.time.Duration;
import java.util.concurrent.Semaphore;
import org.apache.catalina.connector.Request;
import org.apache.catalina.connector.Response;
import org.apache.catalina.valves.ValveBase;
import org.apache.coyote.ActionCode;
import org.apache.coyote.InputBuffer;
import org.apache.tomcat.util.net.ApplicationBufferHandler;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.stereotype.Component;
import underbaton.core.loop.Clock;

/**
 * Keeps threads of the server for the lines of browsers, over which orders come, however many requests are under way and
 * however slowly they are sent. A request waits on a thread for its body; the server's own limit counts from the last byte,
 * so that a body of a byte a second would hold a thread for as long as it likes. Here a whole body has a deadline, and of
 * bodies, and of requests at all, only so many are under way; the others are refused at once and their connection is closed.
 */
@Component
class SlowRequests implements WebServerFactoryCustomizer<TomcatServletWebServerFactory> {

    /** Of the server's 200 threads; those that are left take what comes over the lines. */
    private static final int MOST_REQUESTS = 120;

    private static final int MOST_BODIES = 40;
    /** What is longer is cut off without an answer. */
    private static final long LONGEST_BODY = 256L << 20;

    private static final int SERVICE_UNAVAILABLE = 503;
    /** A body that comes at 64 kB a second, or faster, is in time whatever its length. */
    private static final long NANOS_PER_BYTE = 1_000_000_000L / 65_536;

    /** As a notice of the pages: what draws one needs what is scarce now. */
    private static final String TOO_MANY =
            "<div class=\"notice fault\" role=\"alert\"><p>Too many requests are under way. "
                    + "Nothing was done; try again in a moment.</p></div>";

    private final Clock clock;
    private final long firstNanos;

    /** @param first how long a small body may take */
    SlowRequests(Clock clock, @Value("${baton.longest-body:10s}") Duration first) {
        this.clock = clock;
        firstNanos = first.toNanos();
    }

    @Override
    public void customize(TomcatServletWebServerFactory server) {
        // Round everything, an error's page included: that reads what is left of a body, too.
        server.addEngineValves(new Limits());
    }

    private final class Limits extends ValveBase {

        private final Semaphore requests = new Semaphore(MOST_REQUESTS);
        private final Semaphore bodies = new Semaphore(MOST_BODIES);

        Limits() {
            super(true);
        }

        @Override
        public void invoke(Request request, Response response) throws IOException, ServletException {
            org.apache.coyote.Request raw = request.getCoyoteRequest();
            boolean hasBody = raw.getContentLengthLong() > 0 || raw.getHeader("Transfer-Encoding") != null;
            Semaphore places = hasBody ? bodies : requests;
            if (!places.tryAcquire()) {
                leave(request, response);
                response.sendError(
                        SERVICE_UNAVAILABLE,
                        "Too many requests are under way. Nothing was done; try again in a moment.");
                return;
            }
            InputBuffer body = raw.getInputBuffer();
            InTime inTime = new InTime(body, request, response);
            raw.setInputBuffer(inTime);
            try {
                getNext().invoke(request, response);
                if (hasBody) {
                    inTime.readRest();
                }
            } finally {
                raw.setInputBuffer(body);
                places.release();
            }
        }
    }

    /** Nothing more of it is read, so nothing more can come over its connection. */
    private static void leave(Request request, Response response) {
        response.setHeader("Connection", "close");
        request.getCoyoteRequest().action(ActionCode.DISABLE_SWALLOW_INPUT, null);
    }

    /** A body was given up. */
    static final class TooSlow extends IOException {

        private static final long serialVersionUID = 1L;

        TooSlow(long read) {
            super("It came too slowly and was given up after " + read + " bytes.");
        }
    }

    /** A body with a deadline. */
    private final class InTime implements InputBuffer {

        private final InputBuffer body;
        private final Request request;
        private final Response response;
        private final long began = clock.nanos();
        private long read;

        InTime(InputBuffer body, Request request, Response response) {
            this.body = body;
            this.request = request;
            this.response = response;
        }

        @Override
        public int doRead(ApplicationBufferHandler into) throws IOException {
            if (clock.nanos() - began > firstNanos + read * NANOS_PER_BYTE) {
                leave(request, response);
                throw new TooSlow(read);
            }
            int some = body.doRead(into);
            read += Math.max(0, some);
            return some;
        }

        /** What was refused before it was read: a browser hears an answer only when all it says was taken from it. */
        void readRest() {
            Discarded discarded = new Discarded();
            try {
                while (read < LONGEST_BODY && doRead(discarded) >= 0) {
                    // The next.
                }
            } catch (IOException gone) {
                leave(request, response);
            }
        }

        @Override
        public int available() {
            return body.available();
        }
    }

    /** Where the server puts what nobody reads. */
    private static final class Discarded implements ApplicationBufferHandler {

        private ByteBuffer last = ByteBuffer.allocate(0);

        @Override
        public void setByteBuffer(ByteBuffer buffer) {
            last = buffer;
        }

        @Override
        public ByteBuffer getByteBuffer() {
            return last;
        }

        @Override
        public void expand(int size) {
            // It is never asked to hold more than it is given.
        }
    }
}
