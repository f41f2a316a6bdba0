package underbaton.web.kernel;

import java.nio.charset.StandardCharsets;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;

/** A file that the browser saves. */
public final class Download {

    public static final String CSV = "text/csv;charset=UTF-8";
    public static final String JSON = "application/json;charset=UTF-8";
    public static final String MIDI = "audio/midi";

    private Download() {}

    /** @param name under which it is saved; any characters */
    public static ResponseEntity<byte[]> of(String name, String type, byte[] content) {
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_DISPOSITION, named(name))
                .contentType(MediaType.parseMediaType(type))
                .body(content);
    }

    /** The header's value that gives a file its name; any characters. */
    public static String named(String name) {
        return ContentDisposition.attachment()
                .filename(name, StandardCharsets.UTF_8)
                .build()
                .toString();
    }

    public static ResponseEntity<byte[]> of(String name, String type, String content) {
        return of(name, type, content.getBytes(StandardCharsets.UTF_8));
    }
}
