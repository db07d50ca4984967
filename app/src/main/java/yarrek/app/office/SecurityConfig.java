package yarrek.app.office;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.authentication.AuthenticationProvider;
import org.springframework.security.authentication.BadCredentialsException;
import org.springframework.security.authentication.ProviderManager;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.authentication.dao.DaoAuthenticationProvider;
import org.springframework.security.config.Customizer;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.http.SessionCreationPolicy;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.AuthenticationException;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.crypto.factory.PasswordEncoderFactories;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.authentication.UsernamePasswordAuthenticationFilter;
import org.springframework.security.web.authentication.WebAuthenticationDetails;
import org.springframework.web.filter.OncePerRequestFilter;

/** What is asked of a request before a handler is; who may ask a handler stands at it. Pages by form login and session; the API by bearer token and nothing else. */
@Configuration
class SecurityConfig {
    private static final String CONTENT_SECURITY_POLICY =
            "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data:; font-src 'self'; connect-src 'self'; manifest-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'";

    @Bean
    PasswordEncoder passwordEncoder() {
        return PasswordEncoderFactories.createDelegatingPasswordEncoder();
    }

    @Bean
    @Order(1)
    SecurityFilterChain api(HttpSecurity http, Office office, HandlerRights rights) throws Exception {
        return http.securityMatcher("/api/**")
                .csrf(c -> c.disable()) // no cookies are looked at here
                .sessionManagement(s -> s.sessionCreationPolicy(SessionCreationPolicy.STATELESS))
                .authorizeHttpRequests(a -> a.requestMatchers("/api/v1/openapi.json", "/api/v1/openapi.json.yaml")
                        .permitAll()
                        .anyRequest()
                        .access(rights))
                .addFilterBefore(new BearerFilter(office), UsernamePasswordAuthenticationFilter.class)
                .exceptionHandling(e -> e.authenticationEntryPoint((request, response, x) -> {
                            response.setHeader("WWW-Authenticate", "Bearer");
                            problem(
                                    response,
                                    HttpStatus.UNAUTHORIZED,
                                    "Send a token from Office as the header 'Authorization: Bearer TOKEN'.");
                        })
                        .accessDeniedHandler((request, response, x) -> problem(
                                response, HttpStatus.FORBIDDEN, "The role behind this token does not allow this.")))
                .build();
    }

    private static void problem(HttpServletResponse response, HttpStatus status, String detail) throws IOException {
        response.setStatus(status.value());
        response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
        response.getWriter()
                .write("{\"type\":\"about:blank\",\"title\":\"" + status.getReasonPhrase() + "\",\"status\":"
                        + status.value() + ",\"detail\":\"" + detail + "\"}");
    }

    @Bean
    @Order(2)
    SecurityFilterChain pages(HttpSecurity http, Office office, PasswordEncoder encoder, HandlerRights rights)
            throws Exception {
        // the simulated services speak to programs, not to browsers: nothing there rests on who is signed in
        return http.csrf(c -> c.ignoringRequestMatchers("/stand-ins/**"))
                .authorizeHttpRequests(a -> a.requestMatchers(
                                "/webjars/**",
                                "/vendor/**",
                                "/fonts/**",
                                "/css/**",
                                "/js/**",
                                "/favicon.svg",
                                "/error",
                                "/actuator/health/**",
                                "/actuator/health")
                        .permitAll()
                        .anyRequest()
                        .access(rights))
                .authenticationManager(new ProviderManager(new LimitedSignIn(office, encoder)))
                .formLogin(f -> f.loginPage("/login")
                        .failureHandler((request, response, x) ->
                                response.sendRedirect(x instanceof TooMany ? "/login?wait" : "/login?wrong")))
                .logout(l -> l.logoutSuccessUrl("/login?out"))
                .headers(h -> h.contentSecurityPolicy(c -> c.policyDirectives(CONTENT_SECURITY_POLICY))
                        .referrerPolicy(Customizer.withDefaults()))
                .build();
    }

    /** Takes the viewer from the token. */
    private static final class BearerFilter extends OncePerRequestFilter {
        private final Office office;

        BearerFilter(Office office) {
            this.office = office;
        }

        @Override
        protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
                throws ServletException, IOException {
            String header = request.getHeader("Authorization");
            if (header != null && header.startsWith("Bearer ")) {
                office.byToken(header.substring("Bearer ".length()).strip()).ifPresent(v -> {
                    var context = SecurityContextHolder.createEmptyContext();
                    context.setAuthentication(
                            UsernamePasswordAuthenticationToken.authenticated(v, null, v.getAuthorities()));
                    SecurityContextHolder.setContext(context);
                });
            }
            chain.doFilter(request, response);
        }
    }

    /**
     * Asks whether the limit is reached before a password is looked at, where every way of signing in passes: a filter that
     * compares addresses is walked round by spelling one another way.
     */
    private static final class LimitedSignIn implements AuthenticationProvider {
        private final Office office;
        private final DaoAuthenticationProvider passwords;

        LimitedSignIn(Office office, PasswordEncoder encoder) {
            this.office = office;
            this.passwords = new DaoAuthenticationProvider(office);
            this.passwords.setPasswordEncoder(encoder);
        }

        @Override
        public Authentication authenticate(Authentication given) {
            String address = given.getDetails() instanceof WebAuthenticationDetails d ? d.getRemoteAddress() : "";
            if (office.tooManyFailures(given.getName(), address)) {
                throw new TooMany();
            }
            try {
                return passwords.authenticate(given);
            } catch (BadCredentialsException e) {
                office.failedLogin(given.getName(), address);
                throw e;
            }
        }

        @Override
        public boolean supports(Class<?> kind) {
            return passwords.supports(kind);
        }
    }

    /** There were too many wrong passwords; the right one is not looked at for a while. */
    private static final class TooMany extends AuthenticationException {
        private static final long serialVersionUID = 1;

        TooMany() {
            super("too many wrong passwords");
        }
    }
}
