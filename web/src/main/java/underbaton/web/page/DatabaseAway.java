package underbaton.web.page;

import java.sql.SQLException;
import java.sql.SQLNonTransientConnectionException;
import java.sql.SQLRecoverableException;
import java.sql.SQLTimeoutException;
import java.sql.SQLTransientConnectionException;
import org.springframework.dao.QueryTimeoutException;
import org.springframework.jdbc.CannotGetJdbcConnectionException;

/** Tells a database that is away or stands still from one that answers and refuses. Safe for any thread. */
final class DatabaseAway {

    /** ISO/IEC 9075, class 08: connection exception. */
    private static final String CONNECTION = "08";

    private DatabaseAway() {}

    static boolean says(Throwable cause) {
        for (Throwable t = cause; t != null; t = t.getCause()) {
            boolean away = t instanceof SQLTransientConnectionException
                    || t instanceof SQLNonTransientConnectionException
                    || t instanceof SQLRecoverableException
                    || t instanceof SQLTimeoutException
                    || t instanceof QueryTimeoutException
                    || t instanceof CannotGetJdbcConnectionException
                    || t instanceof SQLException e
                            && e.getSQLState() != null
                            && e.getSQLState().startsWith(CONNECTION);
            if (away) {
                return true;
            }
        }
        return false;
    }
}
