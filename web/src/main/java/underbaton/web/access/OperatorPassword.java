package underbaton.web.access;

import java.util.concurrent.locks.ReentrantLock;
import org.springframework.security.crypto.argon2.Argon2PasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Component;
import underbaton.core.rig.Refusal;
import underbaton.web.kernel.SettingsMapper;

/** By which the operator comes in from another computer of the venue; kept by Argon2id (RFC 9106). Any thread may call it. */
@Component
public class OperatorPassword {

    public static final int SHORTEST = 10;
    private static final int LONGEST = 200;
    private static final String KEPT = "venue password";

    private final PasswordEncoder encoder = Argon2PasswordEncoder.defaultsForSpringSecurity_v5_8();
    private final SettingsMapper settings;
    private final Attempts attempts;
    /** One is looked at after the other: each takes a good part of a core for a tenth of a second. */
    private final ReentrantLock one = new ReentrantLock(true);

    private volatile String kept;

    OperatorPassword(SettingsMapper settings, Attempts attempts) {
        this.settings = settings;
        this.attempts = attempts;
        this.kept = settings.get(KEPT).orElse("");
    }

    public boolean isSet() {
        return !kept.isEmpty();
    }

    /** @throws Refusal when it is too short to be one */
    public void set(String password) {
        if (password.length() < SHORTEST || password.length() > LONGEST) {
            throw new Refusal(
                    "password",
                    "A password for the operator has at least " + SHORTEST + " letters; four words are good.");
        }
        String encoded = encoder.encode(password);
        settings.put(KEPT, encoded);
        kept = encoded;
    }

    /**
     * Whether somebody at an address of the venue has said the right one.
     *
     * @throws Refusal when he has to wait before the next is looked at
     */
    public boolean isRight(String password, String address) {
        attempts.require(address);
        boolean right = false;
        if (isSet() && password.length() <= LONGEST) {
            one.lock();
            try {
                right = encoder.matches(password, kept);
            } finally {
                one.unlock();
            }
        }
        if (right) {
            attempts.right(address);
        } else {
            attempts.wrong(address);
        }
        return right;
    }
}
