package underbaton.web.kernel;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import java.nio.file.Path;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.validation.annotation.Validated;

/**
 * What can be set of the application, under {@code baton.}; a value that cannot be is refused at the start, with its name.
 *
 * @param demo whether the two demo shows are put on the shelf where they are missing
 * @param service whether the system has started it and watches over it
 * @param data the folder in which backups, and what waits for the database, are kept
 * @param wires how machines reach us
 * @param standins the simulated machines
 */
@Validated
@ConfigurationProperties("baton")
public record Settings(
        boolean demo,
        boolean service,
        @NotNull Path data,
        @NotNull @Valid Wires wires,
        @NotNull @Valid StandIns standins) {

    /**
     * @param address of this computer at which sessions and OSC are held; 0.0.0.0 for all
     * @param sessionPort at which others may invite us, 0 for any; the next one is used too
     * @param oscPort at which OSC is heard, 0 for any
     */
    public record Wires(
            @NotBlank String address, @Min(0) @Max(65_534) int sessionPort, @Min(0) @Max(65_515) int oscPort) {}

    /** @param port of the first simulated machine */
    public record StandIns(@Min(1024) @Max(65_000) int port) {}
}
