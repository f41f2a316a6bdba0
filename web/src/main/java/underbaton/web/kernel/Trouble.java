package underbaton.web.kernel;

import jakarta.servlet.http.HttpServletResponse;
import java.sql.SQLException;
import java.util.NoSuchElementException;
import java.util.stream.Collectors;
import org.apache.catalina.connector.ClientAbortException;
import org.apache.tomcat.util.http.InvalidParameterException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.core.NestedExceptionUtils;
import org.springframework.dao.DataAccessException;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.transaction.TransactionException;
import org.springframework.ui.Model;
import org.springframework.validation.BindingResult;
import org.springframework.validation.FieldError;
import org.springframework.web.ErrorResponse;
import org.springframework.web.bind.MissingServletRequestParameterException;
import org.springframework.web.bind.ServletRequestBindingException;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.context.request.async.AsyncRequestNotUsableException;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import org.springframework.web.multipart.MaxUploadSizeExceededException;
import org.springframework.web.multipart.MultipartException;
import underbaton.core.rig.Refusal;

/** Tells a person what could not be done, in the notice line of the page; what was typed stays where it is. */
@ControllerAdvice
public class Trouble {

    private static final Logger LOG = LoggerFactory.getLogger(Trouble.class);

    @ExceptionHandler(Refusal.class)
    @ResponseStatus(HttpStatus.UNPROCESSABLE_CONTENT)
    String refused(Refusal refusal, Model model) {
        model.addAttribute(
                "more", refusal.all().stream().skip(1).map(Refusal::getMessage).toList());
        String fields = refusal.all().stream().map(Refusal::field).collect(Collectors.joining(" "));
        return notice(refusal.getMessage(), fields.strip(), model);
    }

    @ExceptionHandler({DataAccessException.class, TransactionException.class, SQLException.class})
    String notKept(Exception cause, HttpServletResponse response, Model model) {
        DatabaseTrouble trouble = DatabaseTrouble.of(cause).orElse(null);
        if (trouble == null) {
            return fault(cause, response, model);
        }
        // One line: on a full disk a trace of each edit would take what room is left.
        LOG.warn("An edit was not kept: {}", cause.toString());
        response.setStatus(HttpStatus.SERVICE_UNAVAILABLE.value());
        model.addAttribute("fault", true);
        return notice(trouble.words(), "", model);
    }

    /** What nobody foresaw: told as ours and kept in the log file with its trace, and never as something else. */
    @ExceptionHandler(Exception.class)
    String fault(Exception cause, HttpServletResponse response, Model model) {
        if (cause instanceof ErrorResponse told) {
            response.setStatus(told.getStatusCode().value());
            return notice(
                    told.getStatusCode().value() == HttpStatus.NOT_FOUND.value()
                            ? "There is nothing at this address."
                            : notUnderstood(cause),
                    "",
                    model);
        }
        LOG.error("A request failed", cause);
        response.setStatus(HttpStatus.INTERNAL_SERVER_ERROR.value());
        model.addAttribute("fault", true);
        return notice(
                "This failed by a fault of Under Baton, not of yours, and nothing was changed. What you typed is still "
                        + "here. What went wrong stands in its log file.",
                "",
                model);
    }

    /** Whoever asked has gone; there is nobody to tell. */
    @ExceptionHandler({AsyncRequestNotUsableException.class, ClientAbortException.class})
    ResponseEntity<Void> left() {
        return null;
    }

    /** It broke off while it was read, or took longer than it may; one line, for such come in hundreds. */
    @ExceptionHandler({InvalidParameterException.class, MultipartException.class})
    String brokenOff(Exception cause, HttpServletResponse response, Model model) {
        boolean slow = NestedExceptionUtils.getMostSpecificCause(cause) instanceof SlowRequests.TooSlow;
        LOG.warn(
                "A request was not understood: {}",
                NestedExceptionUtils.getMostSpecificCause(cause).toString());
        response.setStatus((slow ? HttpStatus.REQUEST_TIMEOUT : HttpStatus.BAD_REQUEST).value());
        return notice(
                slow ? "This came too slowly and was given up. Nothing was changed; try again." : notUnderstood(cause),
                "",
                model);
    }

    @ExceptionHandler(MaxUploadSizeExceededException.class)
    @ResponseStatus(HttpStatus.CONTENT_TOO_LARGE)
    String tooLarge(Model model) {
        return notice(
                "The file is larger than 32 MB, and nothing that can be opened here is; is it another one?",
                "file",
                model);
    }

    /** No page of ours sends such a request; another program, or a page from before an update, may. */
    @ExceptionHandler({
        IllegalArgumentException.class,
        NoSuchElementException.class,
        ServletRequestBindingException.class,
        MethodArgumentTypeMismatchException.class
    })
    @ResponseStatus(HttpStatus.BAD_REQUEST)
    String misunderstood(Exception cause, Model model) {
        LOG.warn("A request was not understood", cause);
        return notice(notUnderstood(cause), "", model);
    }

    /** What of it is wrong, as far as the framework knows; its own words are for programmers and stay in the log file. */
    private static String notUnderstood(Exception cause) {
        String what = "";
        if (cause instanceof MethodArgumentTypeMismatchException e) {
            what = " (“" + e.getValue() + "” cannot be its “" + e.getName() + "”)";
        } else if (cause instanceof MissingServletRequestParameterException e) {
            what = " (its “" + e.getParameterName() + "” is missing)";
        } else if (cause instanceof BindingResult e && e.getFieldError() != null) {
            FieldError wrong = e.getFieldError();
            what = " (“" + wrong.getRejectedValue() + "” cannot be its “" + wrong.getField() + "”)";
        }
        return "This request cannot be understood" + what + ". Reload the page.";
    }

    /** The page or part of a page that tells it; for the handlers of other packages too. */
    public static String notice(String words, String fields, Model model) {
        model.addAttribute("words", words);
        model.addAttribute("fields", fields);
        return "page/notice :: notice";
    }
}
