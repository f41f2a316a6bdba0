package underbaton.web.stage;

import java.net.InetAddress;
import java.util.List;
import java.util.stream.Stream;
import underbaton.core.rig.Refusal;

/**
 * What those may do who speak our own words in OSC. To be heard, so that listeners and relays take what they say, is one thing; to ask
 * and to follow what happens is another, and to give orders a third. This computer itself may all.
 *
 * @param machines what the machines of the rig may
 * @param guests what others may who are let in
 * @param asking addresses that may ask whatever the others may
 * @param ordering addresses that may give orders
 */
public record Rights(May machines, May guests, List<String> asking, List<String> ordering) {

    /** Each may what those before it may. */
    public enum May {
        BE_HEARD("be heard"),
        ASK("be heard, ask and follow"),
        ORDER("be heard, ask, follow and give orders");

        private final String words;

        May(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** Before anybody has said otherwise. */
    public static final Rights FIRST = new Rights(May.BE_HEARD, May.BE_HEARD, List.of(), List.of());

    private static final int MOST = 100;

    public Rights {
        asking = plain(asking);
        ordering = plain(ordering);
    }

    private static List<String> plain(List<String> typed) {
        List<String> plain = typed.stream()
                .map(String::strip)
                .filter(a -> !a.isEmpty())
                .distinct()
                .toList();
        plain.stream()
                .filter(a -> !a.matches("[0-9A-Fa-f.:%]{2,60}"))
                .findFirst()
                .ifPresent(wrong -> {
                    throw new Refusal(
                            "address", "“" + wrong + "” is no address; write it in numbers, such as 192.168.1.20.");
                });
        if (plain.size() > MOST) {
            throw new Refusal("address", "There is room for " + MOST + " addresses.");
        }
        return plain;
    }

    /** @param isMachine whether a machine of the rig stands there */
    May of(InetAddress from, boolean isMachine) {
        String address = from.getHostAddress();
        if (from.isLoopbackAddress() || ordering.contains(address)) {
            return May.ORDER;
        }
        May others = isMachine ? machines : guests;
        return Stream.of(others, asking.contains(address) ? May.ASK : May.BE_HEARD)
                .max(Enum::compareTo)
                .orElseThrow();
    }

    /** @throws Refusal saying where the right is given */
    void require(May wanted, InetAddress from, boolean isMachine) {
        if (of(from, isMachine).compareTo(wanted) < 0) {
            String what = wanted == May.ORDER ? "give orders" : "ask and follow";
            throw new Refusal(
                    "rights",
                    from.getHostAddress() + " may not " + what
                            + " here. Whoever runs the show can allow it on the page Rig, under “How others reach us”.");
        }
    }
}
