package underbaton.web.page;

import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpStatus;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.ResponseStatus;
import underbaton.web.kernel.Trouble;
import underbaton.web.library.NoSuchShow;
import underbaton.web.library.UnreadableShow;
import underbaton.web.stage.NotOnDesk;

/** A show that is not there, cannot be read, or is not on the desk; asked before what is said of faults in general. */
@ControllerAdvice
@Order(Ordered.HIGHEST_PRECEDENCE)
class ShowTrouble {

    @ExceptionHandler(NotOnDesk.class)
    @ResponseStatus(HttpStatus.CONFLICT)
    String notOnDesk(Model model) {
        return Trouble.notice("This show is not on the desk. Put it there first: Shows, then its name.", "", model);
    }

    @ExceptionHandler(UnreadableShow.class)
    @ResponseStatus(HttpStatus.INTERNAL_SERVER_ERROR)
    String unreadable(UnreadableShow show, Model model) {
        model.addAttribute("showId", show.showId());
        model.addAttribute("why", show.getMessage());
        return "page/unreadable";
    }

    @ExceptionHandler(NoSuchShow.class)
    @ResponseStatus(HttpStatus.NOT_FOUND)
    String noSuchShow() {
        return "page/gone";
    }
}
