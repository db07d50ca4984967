package yarrek.app.api;

import io.swagger.v3.oas.models.Components;
import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.security.SecurityRequirement;
import io.swagger.v3.oas.models.security.SecurityScheme;
import jakarta.persistence.PersistenceException;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.dao.ConcurrencyFailureException;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.http.converter.HttpMessageConverters;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.http.converter.json.JacksonJsonHttpMessageConverter;
import org.springframework.security.access.AccessDeniedException;
import org.springframework.web.bind.MissingServletRequestParameterException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.multipart.MaxUploadSizeExceededException;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.exc.UnrecognizedPropertyException;
import tools.jackson.databind.json.JsonMapper;
import yarrek.app.page.AtOnce;
import yarrek.app.page.NotFoundException;
import yarrek.formats.log.BrokenFileException;

/** Description of the API, and its errors. */
@Configuration
class ApiConfig {
    @Bean
    OpenAPI openApi() {
        return new OpenAPI()
                .info(
                        new Info()
                                .title("Yarrek API")
                                .version("1")
                                .description(
                                        "Computes what the pages compute. A fact left out of a request is not known, and never taken as fine. The authority's current text and the pilot in command have the last word."))
                .components(new Components()
                        .addSecuritySchemes(
                                "token",
                                new SecurityScheme()
                                        .type(SecurityScheme.Type.HTTP)
                                        .scheme("bearer")))
                .addSecurityItem(new SecurityRequirement().addList("token"));
    }

    /** What a caller says and nobody reads is a mistake, at any level; what is stored may have members that are gone. */
    @Bean
    WebMvcConfigurer strictBodies(JsonMapper json) {
        JsonMapper strict = json.rebuild()
                .enable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
                .build();
        return new WebMvcConfigurer() {
            @Override
            public void configureMessageConverters(HttpMessageConverters.ServerBuilder builder) {
                builder.withJsonConverter(new JacksonJsonHttpMessageConverter(strict));
            }
        };
    }

    /** Errors as problem details with a stable code. */
    @RestControllerAdvice(annotations = RestController.class)
    @Order(Ordered.HIGHEST_PRECEDENCE)
    static class Problems {
        @ExceptionHandler(BrokenFileException.class)
        ProblemDetail broken(BrokenFileException e) {
            return problem(HttpStatus.UNPROCESSABLE_CONTENT, "The file cannot be read", e.getMessage(), e.code());
        }

        @ExceptionHandler(BadRequestException.class)
        ProblemDetail bad(BadRequestException e) {
            return problem(
                    HttpStatus.UNPROCESSABLE_CONTENT,
                    "The request says something that is not understood",
                    e.getMessage(),
                    e.code());
        }

        @ExceptionHandler(ConflictException.class)
        ProblemDetail conflict(ConflictException e) {
            return problem(HttpStatus.CONFLICT, "It is there already", e.getMessage(), e.code());
        }

        @ExceptionHandler(PersistenceException.class)
        ProblemDetail written(PersistenceException e) {
            RuntimeException said = AtOnce.said(e);
            if (said instanceof ConcurrencyFailureException || said instanceof DataIntegrityViolationException) {
                return atOnce();
            }
            throw said;
        }

        @ExceptionHandler({ConcurrencyFailureException.class, DataIntegrityViolationException.class})
        ProblemDetail atOnce() {
            return problem(
                    HttpStatus.CONFLICT,
                    "Somebody else was first",
                    "the same was changed or stored at the same moment; nothing of this request was stored; send it again",
                    "record.conflict");
        }

        @ExceptionHandler(HttpMessageNotReadableException.class)
        ProblemDetail unreadable(HttpMessageNotReadableException e) {
            if (e.getMostSpecificCause() instanceof UnrecognizedPropertyException u) {
                return problem(
                        HttpStatus.UNPROCESSABLE_CONTENT,
                        "The request says something that is not understood",
                        "there is no member '" + u.getPropertyName() + "' here; it takes " + u.getKnownPropertyIds(),
                        "request.member");
            }
            String m = String.valueOf(e.getMostSpecificCause().getMessage());
            return problem(
                    HttpStatus.BAD_REQUEST,
                    "The body is not the JSON that is expected",
                    m.lines().findFirst().orElse(""),
                    "request.json");
        }

        @ExceptionHandler(MissingServletRequestParameterException.class)
        ProblemDetail unsaid(MissingServletRequestParameterException e) {
            return problem(
                    HttpStatus.BAD_REQUEST,
                    "The request does not say all it must",
                    "'" + e.getParameterName() + "' is missing",
                    "request.parameter");
        }

        @ExceptionHandler(NotFoundException.class)
        ProblemDetail missing(NotFoundException e) {
            return problem(HttpStatus.NOT_FOUND, "Not here", e.getMessage(), "record.missing");
        }

        @ExceptionHandler(AccessDeniedException.class)
        ProblemDetail denied(AccessDeniedException e) {
            return problem(
                    HttpStatus.FORBIDDEN,
                    "Not for this token",
                    "The role behind this token does not allow this.",
                    "access.denied");
        }

        @ExceptionHandler(MaxUploadSizeExceededException.class)
        ProblemDetail tooLarge(MaxUploadSizeExceededException e) {
            return problem(
                    HttpStatus.CONTENT_TOO_LARGE,
                    "The file is larger than 100 MB",
                    "Nothing was stored. Cut the log into single flights and try again.",
                    "upload.size");
        }

        private static ProblemDetail problem(HttpStatus status, String title, String detail, String code) {
            ProblemDetail p = ProblemDetail.forStatusAndDetail(status, detail);
            p.setTitle(title);
            p.setProperty("code", code);
            return p;
        }
    }

    /** What the caller sent is there already, as somebody else's. */
    static class ConflictException extends RuntimeException {
        private static final long serialVersionUID = 1;

        private final String code;

        ConflictException(String code, String message) {
            super(message);
            this.code = code;
        }

        String code() {
            return code;
        }
    }

    /** What the caller sent is well-formed but cannot be taken. */
    static class BadRequestException extends RuntimeException {
        private final String code;

        BadRequestException(String code, String message) {
            super(message);
            this.code = code;
        }

        String code() {
            return code;
        }
    }
}
