package underbaton.web.kernel;

import java.sql.SQLException;
import java.sql.SQLNonTransientConnectionException;
import java.sql.SQLRecoverableException;
import java.sql.SQLTimeoutException;
import java.sql.SQLTransientConnectionException;
import java.util.Optional;
import java.util.Set;
import org.springframework.dao.QueryTimeoutException;
import org.springframework.jdbc.CannotGetJdbcConnectionException;
import org.springframework.transaction.TransactionSystemException;

/** Why a database does not do what it is asked, where that is no fault of ours: each with what a person can do. */
enum DatabaseTrouble {
    FULL(
            "The disk on which the database lies is full, so nothing was changed. Make room on it; what you typed is still here, and "
                    + "the show goes on from memory."),
    HELD(
            "Somebody else holds this in the database just now, so nothing was changed. What you typed is still here: try again in a "
                    + "moment."),
    AWAY(
            "The database does not answer, so nothing was changed. The show goes on from memory; what you typed is still here: try "
                    + "again when the database is back (./baton start brings it back).");

    /** ISO/IEC 9075, class 08: connection exception. */
    private static final String CONNECTION = "08";

    /** MariaDB's error codes, from memory: disk full, error writing, table full, no space left in a temporary file. */
    private static final Set<Integer> NO_ROOM = Set.of(1021, 1026, 1114, 3, 28);
    /** Lock wait timeout, deadlock, statement timeout. */
    private static final Set<Integer> LOCKED = Set.of(1205, 1213, 1969);

    private final String words;

    DatabaseTrouble(String words) {
        this.words = words;
    }

    /** A sentence or two for the person who asked. */
    String words() {
        return words;
    }

    /** Empty for what is a fault of ours. From any thread. */
    static Optional<DatabaseTrouble> of(Throwable cause) {
        for (Throwable t = cause; t != null; t = t.getCause()) {
            // What failed first says more than what could then not be taken back.
            if (t instanceof TransactionSystemException e && e.getApplicationException() != null) {
                Optional<DatabaseTrouble> first = of(e.getApplicationException());
                if (first.isPresent()) {
                    return first;
                }
            }
            if (t instanceof SQLException e && NO_ROOM.contains(e.getErrorCode())) {
                return Optional.of(FULL);
            }
            if (t instanceof SQLException e && LOCKED.contains(e.getErrorCode())) {
                return Optional.of(HELD);
            }
            if (isAway(t)) {
                return Optional.of(AWAY);
            }
        }
        return Optional.empty();
    }

    private static boolean isAway(Throwable t) {
        return t instanceof SQLTransientConnectionException
                || t instanceof SQLNonTransientConnectionException
                || t instanceof SQLRecoverableException
                || t instanceof SQLTimeoutException
                || t instanceof QueryTimeoutException
                || t instanceof CannotGetJdbcConnectionException
                || t instanceof TransactionSystemException
                || t instanceof SQLException e
                        && e.getSQLState() != null
                        && e.getSQLState().startsWith(CONNECTION);
    }
}
