package underbaton.web.kernel;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.SQLException;
import java.sql.SQLTransientConnectionException;
import org.junit.jupiter.api.Test;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.dao.UncategorizedDataAccessException;
import org.springframework.transaction.TransactionSystemException;

/** Whatever a database says of itself is no fault of ours; all else is. */
class DatabaseTroubleTest {

    private static UncategorizedDataAccessException wrapped(SQLException cause) {
        return new UncategorizedDataAccessException("an edit", cause) {};
    }

    @Test
    void aFullDiskAndARowThatIsHeldAreToldAsWhatTheyAre() {
        assertThat(DatabaseTrouble.of(wrapped(new SQLException("The table 'parts' is full", "HY000", 1114))))
                .contains(DatabaseTrouble.FULL);
        assertThat(DatabaseTrouble.of(wrapped(new SQLException("Lock wait timeout exceeded", "40001", 1205))))
                .contains(DatabaseTrouble.HELD);
        assertThat(DatabaseTrouble.of(wrapped(new SQLTransientConnectionException("no connection in time"))))
                .contains(DatabaseTrouble.AWAY);
        assertThat(DatabaseTrouble.of(wrapped(new SQLException("gone", "08S01", 0))))
                .contains(DatabaseTrouble.AWAY);
    }

    /** As it came from a connection that was given up in the middle of a commit. */
    @Test
    void whatCannotBeTakenBackIsToldAsWhatFailedFirst() {
        TransactionSystemException rollback =
                new TransactionSystemException("JDBC rollback failed", new SQLException("Connection is closed"));
        assertThat(DatabaseTrouble.of(rollback)).contains(DatabaseTrouble.AWAY);
        rollback.initApplicationException(wrapped(new SQLException("table is full", "HY000", 1114)));
        assertThat(DatabaseTrouble.of(rollback)).contains(DatabaseTrouble.FULL);
    }

    @Test
    void whatTheDatabaseRefusesForItsContentIsOurs() {
        assertThat(DatabaseTrouble.of(new DataIntegrityViolationException(
                        "too long", new SQLException("Data too long for column", "22001", 1406))))
                .isEmpty();
        assertThat(DatabaseTrouble.of(new IllegalStateException("ours"))).isEmpty();
    }
}
