package underbaton.web.signals;

import com.microsoft.playwright.Page;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** Reads and writes OSC packets with npm's {@code osc} (osc.js, MIT), which knows nothing of ours; it runs in the browser. */
final class NpmOsc {

    private final Page page;

    /** @param page an empty one of its own */
    NpmOsc(Page page) throws IOException {
        this.page = page;
        try (InputStream in = NpmOsc.class.getResourceAsStream("/npm/osc/osc-browser.min.js")) {
            String script = new String(in.readAllBytes(), StandardCharsets.UTF_8);
            page.setContent("<script>var osc = {};\n" + script + "</script>");
        }
    }

    /** {@code /address s:text f:0.5}: an address and its arguments with their types. */
    String read(byte[] packet) {
        List<Integer> octets = new ArrayList<>();
        for (byte octet : packet) {
            octets.add(octet & 0xFF);
        }
        return (String) page.evaluate(
                "octets => { const m = osc.readPacket(new Uint8Array(octets), { metadata: true });"
                        + " return [m.address, ...m.args.map(a => a.type + ':' + a.value)].join(' '); }",
                octets);
    }

    byte[] write(String address, String type, Object value) {
        List<?> octets = (List<?>) page.evaluate(
                "m => Array.from(osc.writePacket({ address: m.address, args: [{ type: m.type, value: m.value }] }, { metadata: true }))",
                Map.of("address", address, "type", type, "value", value));
        byte[] packet = new byte[octets.size()];
        for (int i = 0; i < packet.length; i++) {
            packet[i] = ((Number) octets.get(i)).byteValue();
        }
        return packet;
    }
}
