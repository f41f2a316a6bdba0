package underbaton.web.page;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.springframework.web.bind.annotation.RequestMethod;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;
import underbaton.web.UnderBaton;

/** Every address of a show that is not there says so, whichever it is: they are found by asking the application. */
class GoneTest {

    @RegisterExtension
    static final UnderBaton baton = new UnderBaton();

    private static final String NOT_THERE = "999999";

    @Test
    void whatBelongsToAShowThatIsNotThereIsNotThere() throws IOException, InterruptedException {
        HttpClient client = HttpClient.newHttpClient();
        Set<String> wrong = new TreeSet<>();
        List<String> addresses = baton
                .bean("requestMappingHandlerMapping", RequestMappingHandlerMapping.class)
                .getHandlerMethods()
                .keySet()
                .stream()
                .filter(m -> m.getMethodsCondition().getMethods().contains(RequestMethod.GET))
                .flatMap(m -> m.getPatternValues().stream())
                .filter(p -> p.contains("{showId}"))
                .toList();
        for (String address : addresses) {
            String path = address.replace("{showId}", NOT_THERE).replaceAll("\\{[^}]*}", "1");
            HttpResponse<String> answer = client.send(
                    HttpRequest.newBuilder(URI.create(baton.url(path))).build(), HttpResponse.BodyHandlers.ofString());
            if (answer.statusCode() != 404) {
                wrong.add(address + " answers " + answer.statusCode());
            }
        }
        assertThat(addresses).hasSizeGreaterThan(40);
        assertThat(wrong).isEmpty();
    }
}
