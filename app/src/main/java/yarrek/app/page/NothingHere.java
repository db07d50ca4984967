package yarrek.app.page;

import jakarta.servlet.http.HttpServletRequest;
import java.util.Map;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.ErrorResponse;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.servlet.ModelAndView;
import org.springframework.web.servlet.NoHandlerFoundException;
import org.springframework.web.servlet.resource.NoResourceFoundException;

/** An address that is none: a page for people, details of the problem for programs. */
@ControllerAdvice
@Order(Ordered.HIGHEST_PRECEDENCE + 1)
class NothingHere {
    @ExceptionHandler({NoHandlerFoundException.class, NoResourceFoundException.class})
    Object none(ErrorResponse e, HttpServletRequest request) {
        return request.getRequestURI().startsWith("/api/")
                ? ResponseEntity.of(e.getBody()).build()
                : new ModelAndView("error", Map.of("status", HttpStatus.NOT_FOUND.value()), HttpStatus.NOT_FOUND);
    }
}
