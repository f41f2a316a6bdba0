package underbaton.wire;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** The network analyser as an independent decoder of what we write. */
public final class Tshark {

    private Tshark() {}

    /** @return what it prints in full detail for a capture file */
    public static String details(Path capture, String... options) throws IOException, InterruptedException {
        List<String> command = new ArrayList<>(List.of("tshark", "-r", capture.toString(), "-V"));
        // Ports that the system hands out may be registered for something else; what is in a packet says more.
        command.addAll(List.of("-o", "udp.try_heuristic_first:TRUE"));
        command.addAll(List.of(options));
        Process process = new ProcessBuilder(command)
                .redirectError(ProcessBuilder.Redirect.DISCARD)
                .start();
        String printed = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        if (process.waitFor() != 0) {
            throw new IOException("tshark failed");
        }
        return printed;
    }
}
