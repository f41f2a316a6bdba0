package underbaton.web.access;

import jakarta.annotation.PreDestroy;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.security.Principal;
import java.security.SecureRandom;
import java.time.Duration;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentSkipListMap;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.authority.AuthorityUtils;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.core.context.SecurityContextImpl;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import underbaton.core.loop.Clock;
import underbaton.core.loop.Loop;
import underbaton.core.loop.Loops;
import underbaton.core.rig.Refusal;
import underbaton.web.live.Admission;
import underbaton.web.live.Live;

/**
 * The devices of the venue that were let in. They are known from memory, so that the database may vanish in a show; what a device shows
 * us is a secret by chance, of which only a digest is kept. Any thread may call it.
 */
@Component
public class Guests implements Admission {

    /** More than a house has screens. */
    private static final int MOST = 400;

    private static final int SECRET_BYTES = 32;
    private static final int LONGEST_TOKEN = 100;
    private static final long LOOK_EVERY_NANOS = TimeUnit.MILLISECONDS.toNanos(500);

    private final GuestMapper mapper;
    private final TransactionTemplate transactions;
    private final Clock clock;
    private final Live live;
    private final SecureRandom random = new SecureRandom();
    private final Map<Long, Guest> guests = new ConcurrentSkipListMap<>();
    private final Map<Long, Long> seen = new ConcurrentHashMap<>();
    private final AtomicLong lastId = new AtomicLong();
    private final Loop loop;

    Guests(GuestMapper mapper, TransactionTemplate transactions, Clock clock, Live live, Loops loops) {
        this.mapper = mapper;
        this.transactions = transactions;
        this.clock = clock;
        this.live = live;
        kept();
        lastId.set(guests.keySet().stream().mapToLong(id -> id).max().orElse(0));
        loop = loops.start("guests", this::look);
    }

    private void kept() {
        Map<Long, Set<GivenPage>> pages = mapper.pages().stream()
                .collect(Collectors.groupingBy(
                        GuestMapper.KeptPage::guestId,
                        Collectors.mapping(p -> new GivenPage(p.showId(), p.pageId()), Collectors.toSet())));
        mapper.all()
                .forEach(g -> guests.put(
                        g.id(),
                        new Guest(
                                g.id(),
                                g.name(),
                                g.role(),
                                g.digest(),
                                g.address(),
                                g.sinceMs(),
                                g.untilMs(),
                                Set.copyOf(pages.getOrDefault(g.id(), Set.of())))));
    }

    private long nowMs() {
        return clock.epochMicros() / 1000;
    }

    /** All that are let in now, the oldest first. */
    public List<Guest> all() {
        long now = nowMs();
        return guests.values().stream().filter(g -> g.isHereAt(now)).toList();
    }

    /** When a device was seen last, ms since 1970; empty when it was not since the start. */
    public Optional<Long> seen(long id) {
        return Optional.ofNullable(seen.get(id));
    }

    /**
     * Lets a device in.
     *
     * @param howLong empty for until it is taken away
     * @return what it is to show us from now on
     * @throws Refusal when the house is full
     */
    public String letIn(String name, Role role, String address, Optional<Duration> howLong) {
        if (all().size() >= MOST) {
            throw new Refusal("guests", "There is room for " + MOST + " devices; take some away first.");
        }
        byte[] secret = new byte[SECRET_BYTES];
        random.nextBytes(secret);
        String shown = Base64.getUrlEncoder().withoutPadding().encodeToString(secret);
        long now = nowMs();
        Guest guest = new Guest(
                lastId.incrementAndGet(),
                name,
                role,
                digest(shown),
                address,
                now,
                howLong.map(h -> now + h.toMillis()).orElse(0L),
                Set.of());
        mapper.add(guest);
        guests.put(guest.id(), guest);
        live.changed("venue");
        return guest.id() + "." + shown;
    }

    /** Whose this is, if he is let in. @param token as {@link #letIn} gave it; anything else is nobody's */
    Optional<Visitor> of(String token) {
        int dot = token.indexOf('.');
        if (dot < 1
                || token.length() > LONGEST_TOKEN
                || !token.substring(0, dot).matches("\\d{1,18}")) {
            return Optional.empty();
        }
        Guest guest = guests.get(Long.parseLong(token.substring(0, dot)));
        long now = nowMs();
        if (guest == null
                || !guest.isHereAt(now)
                || !MessageDigest.isEqual(guest.digest(), digest(token.substring(dot + 1)))) {
            return Optional.empty();
        }
        seen.put(guest.id(), now);
        return Optional.of(guest.visitor());
    }

    /** From now on it may other things. */
    public void role(long id, Role role) {
        Guest g = guests.get(id);
        if (g != null) {
            mapper.role(id, role);
            put(g.with(role));
        }
    }

    /** From now on it works the keys of these pages of a show alone; of none, of all. */
    public void give(long id, int showId, Set<Integer> pageIds) {
        Guest g = guests.get(id);
        if (g != null) {
            transactions.executeWithoutResult(t -> {
                mapper.deletePages(id, showId);
                pageIds.forEach(p -> mapper.addPage(id, new GivenPage(showId, p)));
            });
            put(g.with(showId, pageIds));
        }
    }

    /** Its pages come again with what it may now. */
    private void put(Guest changed) {
        guests.put(changed.id(), changed);
        live.end(who -> isOf(who, changed.id()));
        live.changed("venue");
    }

    /** It is out at once; its line too. */
    public void takeAway(long id) {
        guests.remove(id);
        live.end(who -> isOf(who, id));
        live.changed("venue");
        mapper.delete(id);
    }

    private static boolean isOf(Principal who, long id) {
        return visitor(who).filter(v -> v.id() == id).isPresent();
    }

    /** The lines of those that are no longer let in are closed. */
    private void look() {
        LockSupport.parkNanos(this, LOOK_EVERY_NANOS);
        live.end(who -> visitor(who).filter(v -> now(v).isEmpty()).isPresent());
    }

    // ---- what they may

    static Optional<Visitor> visitor(Principal who) {
        return who instanceof Authentication a && a.getPrincipal() instanceof Visitor v
                ? Optional.of(v)
                : Optional.empty();
    }

    /** As it is let in now, whatever it was when it came. */
    private Optional<Visitor> now(Visitor came) {
        if (came.id() == 0) {
            return Optional.of(came);
        }
        return Optional.ofNullable(guests.get(came.id()))
                .filter(g -> g.isHereAt(nowMs()))
                .map(Guest::visitor);
    }

    private boolean may(Principal who, Optional<Act> act) {
        Visitor visitor = visitor(who).flatMap(this::now).orElse(null);
        if (visitor == null) {
            return false;
        }
        boolean here = visitor.id() == 0;
        return here || act.filter(visitor.role()::may).isPresent();
    }

    @Override
    public boolean mayGive(Principal who, String order) {
        visitor(who).ifPresent(v -> seen.put(v.id(), nowMs()));
        return may(who, Table.ofOrder(order));
    }

    @Override
    public boolean maySee(Principal who, String topic) {
        return may(who, Table.ofPart(topic));
    }

    @Override
    public boolean isGuest(Principal who) {
        return visitor(who).filter(v -> v.id() == 0).isEmpty();
    }

    @Override
    public <T> T as(Principal who, Supplier<T> work) {
        SecurityContext before = SecurityContextHolder.getContext();
        try {
            SecurityContextHolder.setContext(new SecurityContextImpl((Authentication) who));
            return work.get();
        } finally {
            SecurityContextHolder.setContext(before);
        }
    }

    static Authentication authentication(Visitor visitor) {
        return new UsernamePasswordAuthenticationToken(
                visitor,
                null,
                AuthorityUtils.createAuthorityList("ROLE_" + visitor.role().name()));
    }

    private static byte[] digest(String shown) {
        try {
            return MessageDigest.getInstance("SHA-256").digest(shown.getBytes(StandardCharsets.US_ASCII));
        } catch (NoSuchAlgorithmException everyJavaHasIt) {
            throw new IllegalStateException(everyJavaHasIt);
        }
    }

    @PreDestroy
    void close() {
        loop.close();
    }
}
