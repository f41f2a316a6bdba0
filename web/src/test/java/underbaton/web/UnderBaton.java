package underbaton.web;

import com.deque.html.axecore.args.AxeRunOptions;
import com.deque.html.axecore.playwright.AxeBuilder;
import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.assertions.PlaywrightAssertions;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.StringJoiner;
import java.util.concurrent.ThreadLocalRandom;
import java.util.function.BooleanSupplier;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.extension.AfterEachCallback;
import org.junit.jupiter.api.extension.BeforeAllCallback;
import org.junit.jupiter.api.extension.ExtensionContext;
import org.springframework.boot.SpringApplication;
import org.springframework.context.ConfigurableApplicationContext;
import underbaton.core.midi.OscMessage;
import underbaton.core.traffic.Traffic;
import underbaton.standins.RehearsalRoom;
import underbaton.web.library.Shows;
import underbaton.web.stage.OscPort;
import underbaton.wire.osc.OscCodec;

/**
 * The real application with a real database and a real browser, started once for all tests: {@code @RegisterExtension
 * static final UnderBaton baton = new UnderBaton();}.
 */
public final class UnderBaton implements BeforeAllCallback, AfterEachCallback {

    private static final Path ROOT = Path.of("..").toAbsolutePath().normalize();
    /** Tests may run in several processes side by side, numbered from 1. */
    private static final int FORK = Integer.getInteger("baton.fork", 1);

    private static final Path DATABASE = ROOT.resolve("web/target/test-database-" + FORK);
    private static final Path DATA = ROOT.resolve("web/target/test-data-" + FORK);
    /** A machine that is shared can stand still for seconds; a test that passes never waits for this. */
    private static final long LONGEST_MILLIS = 30_000;

    private static final int LOG_LINES = 30;
    private static final HttpClient CLIENT = HttpClient.newHttpClient();
    private static ConfigurableApplicationContext application;
    private static Browser browser;
    private static int standInPort;
    private final List<BrowserContext> contexts = new ArrayList<>();

    @Override
    public void beforeAll(ExtensionContext test) {
        if (application != null) {
            return;
        }
        script("db", "stop", DATABASE.toString());
        delete(DATABASE);
        delete(DATA);
        startDatabase();
        standInPort = freeUdpPorts(2 * RehearsalRoom.NAMES.size());
        application = new SpringApplication(Application.class)
                .run(
                        "--spring.config.additional-location=file:" + DATABASE.resolve("connection.properties"),
                        "--server.port=0",
                        "--baton.demo=true",
                        "--baton.longest-body=4s",
                        "--baton.data=" + DATA,
                        "--baton.standins.port=" + standInPort);
        PlaywrightAssertions.setDefaultAssertionTimeout(LONGEST_MILLIS);
        Playwright playwright = Playwright.create(
                new Playwright.CreateOptions().setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")));
        browser = playwright
                .chromium()
                .launch(new BrowserType.LaunchOptions()
                        .setExecutablePath(Path.of("/usr/bin/chromium-headless-shell"))
                        .setArgs(List.of(
                                "--no-sandbox",
                                "--disable-background-networking",
                                "--disable-gpu",
                                // The door to the venue has a certificate of our own; that it is ours is looked at
                                // elsewhere.
                                "--ignore-certificate-errors")));
        Runtime.getRuntime().addShutdownHook(new Thread(() -> script("db", "stop", DATABASE.toString())));
    }

    @Override
    public void afterEach(ExtensionContext test) {
        contexts.forEach(BrowserContext::close);
        contexts.clear();
    }

    /** One of several of a kind. */
    public <T> T bean(String name, Class<T> kind) {
        return application.getBean(name, kind);
    }

    public <T> T bean(Class<T> type) {
        return application.getBean(type);
    }

    public String url(String path) {
        return "http://127.0.0.1:" + application.getEnvironment().getProperty("local.server.port") + path;
    }

    /** The port of the stand-in with this place in the rehearsal room. */
    public int standInPort(int place) {
        return RehearsalRoom.portOf(standInPort, place);
    }

    /** A browser of its own, as another person would have. */
    public Page browser() {
        return browser(1280, 800);
    }

    public Page browser(int width, int height) {
        BrowserContext context = browser.newContext(new Browser.NewContextOptions().setViewportSize(width, height));
        contexts.add(context);
        Page page = context.newPage();
        page.setDefaultTimeout(LONGEST_MILLIS);
        return page;
    }

    public Page open(String path) {
        Page page = browser();
        page.navigate(url(path));
        return page;
    }

    /**
     * The rules by which axe judges a part of the page, or all of it, as serious. Pages have no frames, so it need not look for any; nor is
     * it asked to describe all that is well.
     *
     * @param rules all where none is named
     */
    public static List<String> serious(AxeBuilder axe, String... rules) {
        AxeRunOptions options = new AxeRunOptions();
        options.setResultTypes(List.of("violations"));
        axe.options(options);
        return (rules.length == 0 ? axe : axe.withRules(List.of(rules)))
                .setLegacyMode(true).analyze().getViolations().stream()
                        .filter(r -> List.of("serious", "critical").contains(r.getImpact()))
                        .map(r -> r.getId() + " " + r.getNodes().get(0).getHtml())
                        .toList();
    }

    /** What a form posts. @param namesAndValues one after the other; a name may come more than once */
    public HttpResponse<String> post(String path, String... namesAndValues) {
        StringJoiner form = new StringJoiner("&");
        for (int i = 0; i < namesAndValues.length; i += 2) {
            form.add(namesAndValues[i] + "=" + URLEncoder.encode(namesAndValues[i + 1], StandardCharsets.UTF_8));
        }
        return send(HttpRequest.newBuilder(URI.create(url(path)))
                .header("Content-Type", "application/x-www-form-urlencoded")
                .POST(HttpRequest.BodyPublishers.ofString(form.toString()))
                .build());
    }

    /** A message of Open Sound Control for the application. */
    public DatagramPacket packet(String address, Object... arguments) {
        byte[] said = new OscCodec()
                .encode(new OscMessage(address, List.of(arguments)))
                .toArray();
        return new DatagramPacket(
                said,
                said.length,
                InetAddress.getLoopbackAddress(),
                bean(OscPort.class).number());
    }

    public HttpResponse<String> get(String path) {
        return send(HttpRequest.newBuilder(URI.create(url(path))).build());
    }

    private static HttpResponse<String> send(HttpRequest request) {
        try {
            return CLIENT.send(request, HttpResponse.BodyHandlers.ofString());
        } catch (IOException unreachable) {
            throw new UncheckedIOException(unreachable);
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(stopped);
        }
    }

    /** The id of the show with this name. */
    public int show(String name) {
        return bean(Shows.class).all().stream()
                .filter(s -> s.name().equals(name))
                .findFirst()
                .orElseThrow()
                .id();
    }

    public void startDatabase() {
        script("db", "start", DATABASE.toString());
    }

    public void stopDatabase() {
        script("db", "stop", DATABASE.toString());
    }

    /** The database stands still and answers nobody, but its connections stay; as on a machine that has run out of breath. */
    public void pauseDatabase() {
        signal("-STOP");
    }

    public void continueDatabase() {
        signal("-CONT");
    }

    private static void signal(String which) {
        try {
            String process = Files.readString(DATABASE.resolve("process")).split(" ")[0];
            new ProcessBuilder("kill", which, process).start().waitFor();
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        } catch (InterruptedException interrupted) {
            throw new IllegalStateException(interrupted);
        }
    }

    public static void until(String what, BooleanSupplier condition) {
        try {
            for (long waited = 0; !condition.getAsBoolean(); waited += 10) {
                if (waited > LONGEST_MILLIS) {
                    throw new AssertionError("never came about: " + what + "; the log's last lines:" + lastOfLog());
                }
                Thread.sleep(10);
            }
        } catch (InterruptedException interrupted) {
            throw new AssertionError(interrupted);
        }
    }

    private static String lastOfLog() {
        Traffic traffic = application.getBean(Traffic.class);
        StringBuilder lines = new StringBuilder();
        traffic.after(Math.max(0, traffic.last() - LOG_LINES), LOG_LINES)
                .forEach(e -> lines.append("\n    ").append(e));
        return lines.toString();
    }

    private static void script(String... arguments) {
        List<String> command = new ArrayList<>(List.of(ROOT.resolve("baton").toString()));
        command.addAll(List.of(arguments));
        try {
            Path output = Files.createTempFile("baton", ".log");
            Process process = new ProcessBuilder(command)
                    .redirectErrorStream(true)
                    .redirectOutput(output.toFile())
                    .start();
            if (process.waitFor() != 0) {
                throw new IllegalStateException(Files.readString(output, StandardCharsets.UTF_8));
            }
            Files.delete(output);
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        } catch (InterruptedException interrupted) {
            throw new IllegalStateException(interrupted);
        }
    }

    private static void delete(Path folder) {
        try (var files = Files.exists(folder) ? Files.walk(folder) : Stream.<Path>empty()) {
            for (Path file : files.sorted(Comparator.reverseOrder()).toList()) {
                Files.delete(file);
            }
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }

    /** Below the ports the system hands out by itself, so that none is taken between here and the application. */
    private static int freeUdpPorts(int count) {
        for (int tries = 0; tries < 100; tries++) {
            int first = 20_000 + FORK % 2 * 5_000 + ThreadLocalRandom.current().nextInt(250) * 20;
            if (IntStream.range(first, first + count).allMatch(UnderBaton::free)) {
                return first;
            }
        }
        throw new IllegalStateException("no free UDP ports");
    }

    private static boolean free(int port) {
        try (DatagramSocket socket = new DatagramSocket(port)) {
            return socket.isBound();
        } catch (IOException taken) {
            return false;
        }
    }
}
