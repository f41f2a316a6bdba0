package underbaton.web.kernel;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import underbaton.web.UnderBaton;

/** Requests that no page of ours sends are told as that: not as a fault of ours, nor of the database, nor in Java. */
class TroubleTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private static final String FORM = "application/x-www-form-urlencoded";

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "400 | /book/cues/x/cell | column=what&text=a&version=1 | “x” cannot be its “cueId”",
                "400 | /book/cues/1/cell | column=what&text=a&version=two | “two” cannot be its “version”",
                "400 | /book/cues/1/cell | column=what&text=a | its “version” is missing",
                "400 | /book/undo | seen=many | “many” cannot be its “seen”",
                "400 | /score/1/section | bar=1&letter=A&bars=some | “some” cannot be its “bars”",
                "422 | /book/cells | cells=[{]} | this is no JSON",
                "404 | /nowhere | a=b | There is nothing at this address"
            })
    void aWrongRequestIsToldAsOne(int status, String path, String body, String words) throws Exception {
        told(status, path, FORM, body, words);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "/score/files | multipart/form-data | no boundary at all",
                "/score/files | multipart/form-data; boundary=x | --x and then nothing",
                "/book/list | text/plain | a list"
            })
    void aFileThatIsNoneIsToldAsThat(String path, String type, String body) throws Exception {
        told(0, path, type, body, "This request cannot be understood");
    }

    private static void told(int status, String path, String type, String body, String words) throws Exception {
        int show = baton.show("The Ferryman’s Lantern");
        HttpResponse<String> answer = HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create(baton.url("/shows/" + show + path)))
                                .header("Content-Type", type)
                                .POST(BodyPublishers.ofString(body))
                                .build(),
                        HttpResponse.BodyHandlers.ofString());
        if (status != 0) {
            assertThat(answer.statusCode()).as(answer.body()).isEqualTo(status);
        }
        assertThat(answer.statusCode()).as(answer.body()).isBetween(400, 499);
        assertThat(answer.body()).contains(words).doesNotContain("java.", "org.", "Exception");
    }
}
