package org.polyclave.server.account;

import org.polyclave.server.platform.BodyLimitFilter;
import org.springframework.boot.web.servlet.FilterRegistrationBean;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.security.authentication.AuthenticationManager;
import org.springframework.security.authentication.ProviderManager;
import org.springframework.security.authentication.dao.DaoAuthenticationProvider;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.annotation.web.configurers.AbstractHttpConfigurer;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.crypto.factory.PasswordEncoderFactories;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.context.HttpSessionSecurityContextRepository;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.security.web.csrf.CsrfFilter;

/**
 * Sessions in the database, CSRF tokens for the single page, tokens of scripts, and headers. What an account may see is decided by the
 * features themselves: a study that is not shared looks like one that does not exist.
 */
@Configuration
class SecurityConfiguration {
    @Bean
    SecurityFilterChain chain(
            HttpSecurity http, SecurityContextRepository contexts, TokenFilter tokens, BodyLimitFilter bodies)
            throws Exception {
        http.csrf(csrf -> csrf.spa().ignoringRequestMatchers(TokenFilter::bringsToken))
                .addFilterBefore(tokens, CsrfFilter.class)
                // Before anybody looks for a token in the body of a form.
                .addFilterBefore(bodies, CsrfFilter.class)
                .securityContext(context -> context.securityContextRepository(contexts))
                .authorizeHttpRequests(requests -> requests.anyRequest().permitAll())
                .formLogin(AbstractHttpConfigurer::disable)
                .httpBasic(AbstractHttpConfigurer::disable)
                .logout(AbstractHttpConfigurer::disable)
                .requestCache(AbstractHttpConfigurer::disable)
                .headers(headers -> headers.contentSecurityPolicy(policy -> policy.policyDirectives(
                                "default-src 'none'; frame-ancestors 'none'; base-uri 'none'; form-action 'self'"))
                        .referrerPolicy(referrer -> referrer.policy(
                                org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter
                                        .ReferrerPolicy.SAME_ORIGIN)));
        return http.build();
    }

    /** It stands in the chain of security only. */
    @Bean
    FilterRegistrationBean<TokenFilter> tokensInTheChainOnly(TokenFilter tokens) {
        FilterRegistrationBean<TokenFilter> registration = new FilterRegistrationBean<>(tokens);
        registration.setEnabled(false);
        return registration;
    }

    /** It needs to know who is signed in, so it stands in the chain of security only, too. */
    @Bean
    FilterRegistrationBean<BodyLimitFilter> limitsInTheChainOnly(BodyLimitFilter bodies) {
        FilterRegistrationBean<BodyLimitFilter> registration = new FilterRegistrationBean<>(bodies);
        registration.setEnabled(false);
        return registration;
    }

    @Bean
    SecurityContextRepository securityContexts() {
        return new HttpSessionSecurityContextRepository();
    }

    @Bean
    PasswordEncoder passwordEncoder() {
        return PasswordEncoderFactories.createDelegatingPasswordEncoder();
    }

    @Bean
    AuthenticationManager authenticationManager(UserDetailsService accounts, PasswordEncoder encoder) {
        DaoAuthenticationProvider provider = new DaoAuthenticationProvider(accounts);
        provider.setPasswordEncoder(encoder);
        return new ProviderManager(provider);
    }
}
