package yarrek.app.page;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.servlet.resource.NoResourceFoundException;

/** An address that is none: a page for people, details of the problem for programs. */
@ControllerAdvice
@Order(Ordered.HIGHEST_PRECEDENCE + 1)
class NothingHere {
    @ExceptionHandler(NoResourceFoundException.class)
    ResponseEntity<ProblemDetail> none(
            NoResourceFoundException e, HttpServletRequest request, HttpServletResponse response) throws IOException {
        if (request.getRequestURI().startsWith("/api/")) {
            return ResponseEntity.of(e.getBody()).build();
        }
        response.sendError(HttpStatus.NOT_FOUND.value());
        return null;
    }
}
