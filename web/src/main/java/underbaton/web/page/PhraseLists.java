package underbaton.web.page;

import java.util.Locale;
import java.util.Optional;
import underbaton.core.cue.Show;
import underbaton.core.rig.Argument;
import underbaton.core.rig.Device;
import underbaton.core.rig.Phrase;

/**
 * What the machines of a show can be told, for the lists that pages offer while somebody writes; as one text, since 20,000 phrases as
 * elements took a second to write and another to read.
 */
public final class PhraseLists {

    private PhraseLists() {}

    /** A line a machine: {@code >}, id, tab, department; then a line for each phrase: blank, name, tab, its amount, tab, an example of it. */
    public static String of(Show show) {
        StringBuilder text = new StringBuilder();
        for (Device device : show.devices()) {
            text.append('>')
                    .append(device.id())
                    .append('\t')
                    .append(device.department().code().toLowerCase(Locale.ROOT))
                    .append('\n');
            for (Phrase phrase : device.phrases()) {
                Optional<Argument> takes = phrase.argument();
                text.append(' ')
                        .append(phrase.name())
                        .append('\t')
                        .append(takes.map(a -> a.range(device.numbering(), device.levels()))
                                .orElse(""))
                        .append('\t')
                        .append(takes.map(a -> a.example(device.numbering())).orElse(""))
                        .append('\n');
            }
        }
        return text.toString();
    }
}
