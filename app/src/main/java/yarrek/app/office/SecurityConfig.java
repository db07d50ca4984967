package yarrek.app.office;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.io.IOException;
import java.time.Duration;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.Semaphore;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpMethod;
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
import org.springframework.security.core.GrantedAuthority;
import org.springframework.security.core.authority.SimpleGrantedAuthority;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.crypto.factory.PasswordEncoderFactories;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.access.AccessDeniedHandler;
import org.springframework.security.web.access.AccessDeniedHandlerImpl;
import org.springframework.security.web.authentication.AuthenticationSuccessHandler;
import org.springframework.security.web.authentication.SavedRequestAwareAuthenticationSuccessHandler;
import org.springframework.security.web.authentication.UsernamePasswordAuthenticationFilter;
import org.springframework.security.web.authentication.WebAuthenticationDetails;
import org.springframework.security.web.context.SecurityContextHolderFilter;
import org.springframework.security.web.savedrequest.HttpSessionRequestCache;
import org.springframework.security.web.savedrequest.RequestCache;
import org.springframework.security.web.servlet.util.matcher.PathPatternRequestMatcher;
import org.springframework.security.web.util.matcher.OrRequestMatcher;
import org.springframework.security.web.util.matcher.RequestMatcher;
import org.springframework.web.filter.OncePerRequestFilter;
import yarrek.app.page.Viewer;

/** What is asked of a request before a handler is; who may ask a handler stands at it. Pages by form login and session; the API by bearer token and nothing else. */
@Configuration
class SecurityConfig {
    private static final String CONTENT_SECURITY_POLICY =
            "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data:; font-src 'self'; connect-src 'self'; manifest-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'";

    /** What every page is made of and nobody is asked for. */
    private static final String[] FILES = {"/webjars/**", "/vendor/**", "/fonts/**", "/css/**", "/js/**", "/favicon.svg"
    };

    private static final AccessDeniedHandler NOT_FOR_THIS_ROLE = new AccessDeniedHandlerImpl();

    /** Back to the page that was asked for before signing in. */
    static final AuthenticationSuccessHandler SIGNED_IN = new SavedRequestAwareAuthenticationSuccessHandler();

    @Bean
    PasswordEncoder passwordEncoder() {
        return PasswordEncoderFactories.createDelegatingPasswordEncoder();
    }

    @Bean
    @Order(1)
    SecurityFilterChain api(HttpSecurity http, Tokens tokens, HandlerRights rights) throws Exception {
        return http.securityMatcher("/api/**")
                .csrf(c -> c.disable()) // no cookies are looked at here
                .sessionManagement(s -> s.sessionCreationPolicy(SessionCreationPolicy.STATELESS))
                .authorizeHttpRequests(a -> a.requestMatchers("/api/v1/openapi.json", "/api/v1/openapi.json.yaml")
                        .permitAll()
                        .anyRequest()
                        .access(rights))
                .addFilterBefore(new BearerFilter(tokens), UsernamePasswordAuthenticationFilter.class)
                .exceptionHandling(e -> e.authenticationEntryPoint((request, response, x) -> {
                            response.setHeader("WWW-Authenticate", "Bearer");
                            problem(
                                    response,
                                    HttpStatus.UNAUTHORIZED,
                                    "Send a token from Office as the header 'Authorization: Bearer TOKEN'.");
                        })
                        .accessDeniedHandler((request, response, x) -> problem(
                                response,
                                HttpStatus.FORBIDDEN,
                                "The role behind this token, or that it is for reading only, does not allow this.")))
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
    SecurityFilterChain pages(
            HttpSecurity http, Office office, SecondFactor second, PasswordEncoder encoder, HandlerRights rights)
            throws Exception {
        // the simulated services speak to programs, not to browsers: nothing there rests on who is signed in
        return http.csrf(c -> c.ignoringRequestMatchers("/stand-ins/**"))
                .authorizeHttpRequests(a -> a.requestMatchers(FILES)
                        .permitAll()
                        .requestMatchers("/error", "/actuator/health/**", "/actuator/health")
                        .permitAll()
                        .anyRequest()
                        .access(rights))
                .requestCache(c -> c.requestCache(pagesAskedFor()))
                .addFilterAfter(new SessionHolds(office), SecurityContextHolderFilter.class)
                .authenticationManager(new ProviderManager(new LimitedSignIn(office, second, encoder)))
                .exceptionHandling(e -> e.accessDeniedHandler((request, response, x) -> {
                    if (isHalf(SecurityContextHolder.getContext().getAuthentication())) {
                        response.sendRedirect("/login/code");
                    } else {
                        NOT_FOR_THIS_ROLE.handle(request, response, x);
                    }
                }))
                .formLogin(f -> f.loginPage("/login")
                        .successHandler((request, response, who) -> {
                            if (isHalf(who)) {
                                response.sendRedirect("/login/code");
                            } else {
                                SIGNED_IN.onAuthenticationSuccess(request, response, who);
                            }
                        })
                        .failureHandler((request, response, x) ->
                                response.sendRedirect(x instanceof TooMany ? "/login?wait" : "/login?wrong")))
                .logout(l -> l.logoutSuccessUrl("/login?out"))
                .headers(h -> h.contentSecurityPolicy(c -> c.policyDirectives(CONTENT_SECURITY_POLICY))
                        .referrerPolicy(Customizer.withDefaults()))
                .build();
    }

    /** Where one goes on after signing in: the page that was asked for, and no part of one that a script asked for. */
    private static RequestCache pagesAskedFor() {
        HttpSessionRequestCache cache = new HttpSessionRequestCache();
        cache.setRequestMatcher(request -> HttpMethod.GET.matches(request.getMethod())
                && request.getHeader("HX-Request") == null
                && String.valueOf(request.getHeader("Accept")).contains(MediaType.TEXT_HTML_VALUE));
        return cache;
    }

    private static boolean isHalf(Authentication who) {
        return who != null && who.getPrincipal() instanceof HalfSignedIn;
    }

    /**
     * Asks at each request whether the login is still what it was at signing in: a session that was begun while its login was
     * being closed is not among those that closing it deletes.
     */
    private static final class SessionHolds extends OncePerRequestFilter {
        private final Office office;
        private final RequestMatcher files = new OrRequestMatcher(Arrays.stream(FILES)
                .map(f -> (RequestMatcher)
                        PathPatternRequestMatcher.withDefaults().matcher(f))
                .toList());

        SessionHolds(Office office) {
            this.office = office;
        }

        @Override
        protected boolean shouldNotFilter(HttpServletRequest request) {
            return files.matches(request);
        }

        @Override
        protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
                throws ServletException, IOException {
            if (Viewer.found().filter(v -> !office.holds(v)).isPresent()) {
                SecurityContextHolder.clearContext();
                HttpSession session = request.getSession(false);
                if (session != null) {
                    session.invalidate();
                }
            }
            chain.doFilter(request, response);
        }
    }

    /** Takes the viewer from the token. */
    private static final class BearerFilter extends OncePerRequestFilter {
        /** A token for reading opens what is open to readers, and shows what its login may see. */
        private static final List<GrantedAuthority> READING =
                List.of(new SimpleGrantedAuthority("ROLE_" + Viewer.Role.READER));

        private final Tokens tokens;

        BearerFilter(Tokens tokens) {
            this.tokens = tokens;
        }

        @Override
        protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
                throws ServletException, IOException {
            String header = request.getHeader("Authorization");
            if (header != null && header.startsWith("Bearer ")) {
                tokens.bearer(header.substring("Bearer ".length()).strip()).ifPresent(b -> {
                    var context = SecurityContextHolder.createEmptyContext();
                    context.setAuthentication(UsernamePasswordAuthenticationToken.authenticated(
                            b.viewer(), null, b.mayWrite() ? b.viewer().getAuthorities() : READING));
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
        /** So many may be held back at once; the rest is told to wait. */
        private static final int HELD_BACK = 16;

        private final Office office;
        private final SecondFactor second;
        private final DaoAuthenticationProvider passwords;
        private final Semaphore slow = new Semaphore(HELD_BACK);

        LimitedSignIn(Office office, SecondFactor second, PasswordEncoder encoder) {
            this.office = office;
            this.second = second;
            this.passwords = new DaoAuthenticationProvider(office);
            this.passwords.setPasswordEncoder(encoder);
        }

        @Override
        public Authentication authenticate(Authentication given) {
            String address = given.getDetails() instanceof WebAuthenticationDetails d ? d.getRemoteAddress() : "";
            if (office.tooManyFailures(given.getName(), address)) {
                throw new TooMany();
            }
            holdBack(office.slowness(given.getName()));
            Authentication who;
            try {
                who = passwords.authenticate(given);
            } catch (BadCredentialsException e) {
                office.failedLogin(given.getName(), address);
                throw e;
            }
            if (who != null && who.getPrincipal() instanceof Viewer v && second.isOn(v.userId())) {
                return UsernamePasswordAuthenticationToken.authenticated(
                        new HalfSignedIn(v.userId(), v.login()),
                        null,
                        List.of(new SimpleGrantedAuthority(HalfSignedIn.AUTHORITY)));
            }
            return who;
        }

        /** Whoever guesses a name from a thousand addresses is slowed down; nobody is shut out by it. */
        private void holdBack(Duration howLong) {
            if (howLong.isZero()) {
                return;
            }
            if (!slow.tryAcquire()) {
                throw new TooMany();
            }
            try {
                Thread.sleep(howLong.toMillis());
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new TooMany();
            } finally {
                slow.release();
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
