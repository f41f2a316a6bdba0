package underbaton.web.page;

import java.io.ByteArrayOutputStream;
import java.lang.reflect.ParameterizedType;
import java.lang.reflect.RecordComponent;
import java.lang.reflect.Type;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.springframework.core.DefaultParameterNameDiscoverer;
import org.springframework.core.MethodParameter;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMethod;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;
import underbaton.core.cue.Cue;
import underbaton.core.cue.HandKey;
import underbaton.core.cue.HandPage;
import underbaton.core.cue.Hands;
import underbaton.core.cue.Item;
import underbaton.core.cue.PatchBay;
import underbaton.core.cue.Show;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;
import underbaton.core.signal.Listener;
import underbaton.core.store.DeviceFile;
import underbaton.web.UnderBaton;
import underbaton.web.kernel.Fingerprint;
import underbaton.web.library.Shows;

/** What pages send to change a show: each way found by asking Spring, its fields filled with what people might type. */
final class AnyEdit {

    private static final String MAPPING = "requestMappingHandlerMapping";

    /** These make no edit of a show: they play, look, or concern the whole house. */
    private static final Pattern NO_EDIT = Pattern.compile("/shows/\\{showId}/(desk|linecheck|room|open|backup|"
            + "performances|bring-back|delete|rig/door|signals/trial).*|.*/(fire|touch|hush|rows|explain|arm|answer)"
            + "|/shows/\\{showId}/score/(pause|nudge|release|offer|\\{itemId}/play)|/shows(/file.*)?");

    private static final Pattern OPENED = Pattern.compile("name=\"number\"[^>]*?\\svalue=\"(\\d+)\"");

    private static final Pattern BLANK = Pattern.compile("\\{(\\w+)[^}]*}");

    private final HttpClient client = HttpClient.newHttpClient();
    private final UnderBaton baton;
    private final Random random;
    private final Shows shows;
    private final int id;
    private String where;
    private Device here;
    private Item item;
    private Optional<Cue> cue;
    /** The number of the file that was opened last, as its page names it. */
    private String opened = "1";

    /** One way to change a show. */
    record Edit(String path, List<MethodParameter> parameters) {

        /** What its form may say, by name; not what the page tells of itself, as how much of it is seen. */
        Set<String> names() {
            Set<String> names = new TreeSet<>();
            for (MethodParameter parameter : parameters) {
                parameter.initParameterNameDiscovery(new DefaultParameterNameDiscoverer());
                if (parameter.hasParameterAnnotation(RequestParam.class)) {
                    names.add(parameter.getParameterName());
                }
                Class<?> type = parameter.getParameterType();
                if (type.isRecord() && type.getSimpleName().endsWith("Form")) {
                    Stream.of(type.getRecordComponents())
                            .map(RecordComponent::getName)
                            .forEach(names::add);
                }
            }
            return names;
        }

        @Override
        public String toString() {
            return path;
        }
    }

    /** @param id of the show that is changed */
    AnyEdit(UnderBaton baton, int id, long seed) {
        this.baton = baton;
        this.id = id;
        random = new Random(seed);
        shows = baton.bean(Shows.class);
    }

    /** All ways, in the order of their addresses. */
    static List<Edit> all(UnderBaton baton) {
        return mapped(baton, RequestMethod.POST).stream()
                .filter(e -> !NO_EDIT.matcher(e.path).matches())
                .toList();
    }

    /** All pages of a show and parts of pages. */
    static List<Edit> pages(UnderBaton baton) {
        return mapped(baton, RequestMethod.GET);
    }

    private static List<Edit> mapped(UnderBaton baton, RequestMethod method) {
        List<Edit> found = new ArrayList<>();
        baton.bean(MAPPING, RequestMappingHandlerMapping.class)
                .getHandlerMethods()
                .forEach((info, handler) -> {
                    String path = info.getPatternValues().iterator().next();
                    if (info.getMethodsCondition().getMethods().contains(method)
                            && path.startsWith("/shows/{showId}")) {
                        found.add(new Edit(path, Arrays.asList(handler.getMethodParameters())));
                    }
                });
        found.sort((a, b) -> a.path.compareTo(b.path));
        return found;
    }

    /** Sends it as from a form that was filled a moment ago. */
    HttpResponse<String> send(Edit edit) throws Exception {
        return send(edit, Map.of());
    }

    /** @param said what stands in fields that it has, whatever people might type there */
    HttpResponse<String> send(Edit edit, Map<String, String> said) throws Exception {
        Filled filled = fill(edit, said);
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(baton.url(filled.path)));
        if (filled.files.isEmpty()) {
            request.header("Content-Type", "application/x-www-form-urlencoded")
                    .POST(HttpRequest.BodyPublishers.ofString(filled.form()));
        } else {
            request.header("Content-Type", "multipart/form-data; boundary=edge")
                    .POST(HttpRequest.BodyPublishers.ofByteArray(multipart(filled.fields, filled.files)));
        }
        HttpResponse<String> answer = client.send(request.build(), HttpResponse.BodyHandlers.ofString());
        Matcher number = OPENED.matcher(answer.body());
        opened = number.find() ? number.group(1) : opened;
        return answer;
    }

    /** Asks for a page or a part of one. */
    HttpResponse<String> open(Edit page) throws Exception {
        Filled filled = fill(page, Map.of());
        URI address = URI.create(baton.url(filled.path + "?" + filled.form()));
        return client.send(HttpRequest.newBuilder(address).build(), HttpResponse.BodyHandlers.ofString());
    }

    private record Filled(String path, Map<String, List<String>> fields, Map<String, String> files) {

        String form() {
            StringBuilder form = new StringBuilder();
            fields.forEach((n, all) -> all.forEach(v ->
                    form.append(form.isEmpty() ? "" : "&").append(n).append('=').append(encoded(v))));
            return form.toString();
        }
    }

    private Filled fill(Edit edit, Map<String, String> said) {
        look(edit.path);
        Map<String, List<String>> fields = new LinkedHashMap<>();
        Map<String, String> files = new LinkedHashMap<>();
        Map<String, String> inPath = new LinkedHashMap<>();
        for (MethodParameter parameter : edit.parameters) {
            parameter.initParameterNameDiscovery(new DefaultParameterNameDiscoverer());
            String name = parameter.getParameterName();
            Class<?> type = parameter.getParameterType();
            if (parameter.hasParameterAnnotation(PathVariable.class)) {
                inPath.put(name, name.equals("showId") ? Integer.toString(id) : value(name, type));
            } else if (MultipartFile.class.isAssignableFrom(type)) {
                files.put(name, file());
            } else if (parameter.hasParameterAnnotation(RequestParam.class)) {
                fields.put(name, values(name, parameter.getGenericParameterType()));
            } else if (type.isRecord() && !parameter.hasParameterAnnotation(RequestBody.class)) {
                for (RecordComponent component : type.getRecordComponents()) {
                    if (random.nextInt(12) > 0 || component.getType().isPrimitive()) {
                        fields.put(component.getName(), values(component.getName(), component.getGenericType()));
                    }
                }
            }
        }
        said.forEach((name, value) -> {
            if (edit.names().contains(name)) {
                fields.put(name, List.of(value));
            }
            inPath.computeIfPresent(name, (n, any) -> value);
        });
        String path = BLANK.matcher(edit.path)
                .replaceAll(m -> Matcher.quoteReplacement(encoded(inPath.getOrDefault(m.group(1), "1"))));
        return new Filled(path, fields, files);
    }

    private String file() {
        return where.contains("/book/")
                ? "item,cue,starts,what\n" + item.name() + ",870." + random.nextInt(99) + ",by hand,Pasted\n"
                : where.endsWith("/file")
                        ? DeviceFile.write(machine().withPhrases(List.of()))
                                .replace("\"" + machine().name() + "\"", "\"Copy " + random.nextInt(999) + "\"")
                        : one("name,says\nWarm,note 5\n", "1;Warm\n2;Cold\n");
    }

    /** Where the hand is, if that is a machine that goes into a file. */
    private Device machine() {
        return PatchBay.is(here)
                ? shows.get(id).devices().stream()
                        .filter(d -> !PatchBay.is(d))
                        .findFirst()
                        .orElseThrow()
                : here;
    }

    private static byte[] multipart(Map<String, List<String>> fields, Map<String, String> files) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        fields.forEach((name, all) -> all.forEach(v -> part(out, "name=\"" + name + "\"", v)));
        files.forEach((name, v) -> part(out, "name=\"" + name + "\"; filename=\"a.txt\"", v));
        out.writeBytes("--edge--\r\n".getBytes(StandardCharsets.UTF_8));
        return out.toByteArray();
    }

    private static void part(ByteArrayOutputStream out, String names, String value) {
        out.writeBytes(("--edge\r\nContent-Disposition: form-data; " + names + "\r\n\r\n" + value + "\r\n")
                .getBytes(StandardCharsets.UTF_8));
    }

    private static String encoded(String value) {
        return URLEncoder.encode(value, StandardCharsets.UTF_8).replace("+", "%20");
    }

    private List<String> values(String name, Type type) {
        if (type instanceof ParameterizedType list) {
            Class<?> of = (Class<?>) list.getActualTypeArguments()[0];
            return Stream.generate(() -> value(name, of))
                    .limit(1 + random.nextInt(3))
                    .toList();
        }
        return List.of(value(name, (Class<?>) type));
    }

    // ---- what people type

    private String one(String... all) {
        return all[random.nextInt(all.length)];
    }

    private String any(Stream<Integer> ids) {
        List<Integer> all = ids.toList();
        return Integer.toString(
                all.isEmpty() || random.nextInt(30) == 0 ? 999_999 : all.get(random.nextInt(all.size())));
    }

    private String value(String name, Class<?> type) {
        if (type.isEnum()) {
            Object[] all = type.getEnumConstants();
            return ((Enum<?>) all[random.nextInt(all.length)]).name();
        }
        if (type == boolean.class || type == Boolean.class) {
            return one("true", "false");
        }
        String written = written(name, shows.get(id));
        boolean number = type == int.class || type == Integer.class || type == long.class;
        return number && !written.matches("-?\\d{1,9}") ? Integer.toString(random.nextInt(20)) : written;
    }

    /** Where the hand is: a machine, an item and a form's address, chosen anew for each request. */
    private void look(String path) {
        Show show = shows.get(id);
        where = path;
        List<Device> listed = show.devices().stream()
                .filter(d -> !path.contains("/list") || d.list().isPresent())
                .toList();
        List<Device> machines = listed.isEmpty() ? show.devices() : listed;
        here = machines.get(random.nextInt(machines.size()));
        List<Item> items = show.items().stream()
                .filter(i -> !path.contains("/score/")
                        || i.score().isPresent() && !i.cues().isEmpty())
                .toList();
        item = items.isEmpty() ? show.items().get(0) : items.get(random.nextInt(items.size()));
        cue = item.cues().isEmpty()
                ? Optional.empty()
                : Optional.of(item.cues().get(random.nextInt(item.cues().size())));
    }

    private String written(String name, Show show) {
        boolean rig = where.contains("/rig/");
        return switch (name) {
            case "deviceId", "device", "machine" -> Integer.toString(here.id());
            case "from", "to" -> where.contains("/signals") ? one("rig", "others", here.id() + "") : midi(show);
            case "lightOf", "rig", "listOf", "second" ->
                one("0", "0", any(show.devices().stream().map(Device::id)));
            case "setId", "set" ->
                any(PatchBay.of(show).stream()
                        .flatMap(d -> d.phrases().stream())
                        .map(Phrase::id));
            case "phraseId", "phrase", "phrases" -> any(here.phrases().stream().map(Phrase::id));
            case "lightOn", "lightOff", "lightAsks", "lightStandby" -> "0";
            case "itemId", "item", "after" -> Integer.toString(where.contains("/signals") ? 0 : item.id());
            case "cueId" -> cue.map(Cue::id).orElse(0).toString();
            case "cue", "cues" -> any((random.nextInt(4) == 0 ? show.cues() : item.cues().stream()).map(Cue::id));
            case "listenerId", "listener" -> any(show.listeners().stream().map(Listener::id));
            case "keyId", "key" -> any(Hands.keys(show).map(HandKey::id));
            case "pageId", "page" -> any(show.hands().stream().map(HandPage::id));
            case "version" -> cue.map(Cue::version).orElse(0).toString();
            case "mark" -> where.contains("{mark}") ? patchLine(show) : one("NONE", "BLUE");
            case "line" -> where.endsWith("/line") ? one("", patchLine(show)) : "";
            case "name", "names" -> one("Warm", "Line " + random.nextInt(50), "Vox 1", "Ω “x” 😀", "a\nb\nc", " ", "1");
            case "says", "words", "answer" ->
                here.connection().carriesMidi()
                        ? one("program 3", "note 60 for 200 ms", "control 7 to ?", "note 5 | note 6", "bend 5", "")
                        : one("osc /a ,f ?", "osc /b", "osc /c 4");
            case "unit" -> one("", "decibels", "per cent", "value", "seconds", "pan", "text", "on or off");
            case "range" -> one("", "", "0 to 5", "-10 to 0", "9 to 3");
            case "effect" ->
                one("holds", "moment", "starts film for 0:30", "stops", "levels", "steps by +1", "holds x");
            case "column" -> one(here.id() + "", here.id() + "", "what", "number", "starts");
            case "text" -> where.endsWith("/text") ? "1 4/4\n1 quarter = 120" : cell();
            case "cells" ->
                "[{\"cue\":" + any(item.cues().stream().map(Cue::id)) + ",\"version\":99999,\"column\":\"" + here.id()
                        + "\",\"text\":\"" + cell() + "\"}]";
            case "on", "off" -> one("", here.id() + " " + cell());
            case "starts" -> one("by hand", "with", "after 2 s", "at 5:1", "at 0:30", "at 99:9");
            case "score" -> one("1 4/4\n1 quarter = 120\n9 A Verse", "1 6/8\n1 quarter = 60", "", "1 4/4 = ?");
            case "channel", "fromChannel", "toChannel", "secondChannel" -> one("1", "16", "2", "", "17");
            case "length" -> one("3:00", "0:10", "x", "");
            case "levels" -> one("", "", "−∞=0, −10=80, 0=100", "0=5");
            case "kinds" -> one("NOTES", "NOTES,CONTROLS", "CLOCK");
            case "kind" ->
                where.contains("/signals")
                        ? one("note", "controller", "program", "bend", "song", "transport", "osc")
                        : rig ? one("NOTE", "PROGRAM", "CONTROLLER") : one("SONG", "SCENE", "OTHER");
            case "wire" -> one("midi", "network", "osc-udp", "osc-tcp", "local");
            case "department" -> one("LIGHTS", "SOUND", "KEYS", "VIDEO");
            case "host" -> one("127.0.0.1", "console.local", "");
            case "port" -> one("5004", "9000", "99999");
            case "programs", "places", "first" -> where.contains("numbers") ? "900" : one("1", "0");
            case "step" -> one("1", "0.1");
            case "banks", "lists", "question", "transpose", "soft", "hard", "safe" -> "";
            case "octaves" -> one("-2", "-1", "0", "5");
            case "values" -> "FROM_0";
            case "untold" -> "AT_ONCE";
            case "lead", "settle", "pause", "offset" -> one("0", "40", "99999");
            case "does" -> one("GO", "STOP_ALL", "cue", "item", "phrase", "hand", "arm", "relay");
            case "target" ->
                one("0", here.id() + " " + any(here.phrases().stream().map(Phrase::id)));
            case "group" ->
                where.contains("/signals") ? any(show.listeners().stream().map(Listener::id)) : "";
            case "how" -> where.contains("/signals") ? one("through", "says", "written") : "press";
            case "tells" -> Integer.toString(here.id());
            case "way" -> one("PRESS", "pressed", "start");
            case "id" -> one("0", "0", any(Hands.keys(show).map(HandKey::id)));
            case "letter", "section", "as" -> one("A", "B", "C", "");
            case "what" -> one("meter", "tempo", "Oars", "A light");
            case "number", "numbers" -> opened;
            case "low", "high" -> one("", "C3", "60");
            case "firstControl", "lastControl", "firstProgram", "lastProgram" -> "";
            case "rows" -> where.contains("/hands") ? "3" : one("1\t2\n3\t4", "Amber\nBlue", "");
            case "columns" -> where.contains("/hands") ? "4" : one(here.id() + "", "number", "what");
            case "row" -> one("0", "1", "2");
            case "place" -> one("1", "5", "60");
            case "byBars", "byBeats" -> one("0", "1", "-1");
            case "bar", "bars" -> one("1", "9", "17", "4");
            case "tick" -> one("0", "1920", "7680");
            case "family" -> one("LOOKS_BY_NOTE", "SCENES_BY_PROGRAM", "LOOKS");
            case "keep", "ordering" -> one("numbers", "names", "places");
            case "seen" -> "1";
            case "was" -> "";
            default -> one("", "1", "2", "true", "Warm", "0");
        };
    }

    private static String patchLine(Show show) {
        return PatchBay.of(show).stream()
                .flatMap(d -> d.phrases().stream())
                .flatMap(f -> f.patch().stream())
                .flatMap(w -> w.kept().lines().stream())
                .map(Fingerprint::of)
                .findFirst()
                .orElse("none");
    }

    private String midi(Show show) {
        return any(show.devices().stream()
                .filter(d -> d.connection().carriesMidi() && !PatchBay.is(d))
                .map(Device::id));
    }

    private String cell() {
        List<Phrase> phrases = here.phrases();
        String phrase = phrases.isEmpty()
                ? "Stee"
                : phrases.get(random.nextInt(phrases.size())).name();
        return one(
                phrase, phrase, phrase + " → −15 dB", phrase + " → 50 % in 3 s", "Stee", "", phrase + " + " + phrase);
    }
}
