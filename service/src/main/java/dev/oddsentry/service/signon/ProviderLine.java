package dev.oddsentry.service.signon;

import java.net.http.HttpClient;
import java.time.Duration;
import org.springframework.http.client.ClientHttpRequestFactory;
import org.springframework.http.client.JdkClientHttpRequestFactory;
import org.springframework.http.converter.FormHttpMessageConverter;
import org.springframework.security.oauth2.client.http.OAuth2ErrorResponseErrorHandler;
import org.springframework.security.oauth2.core.http.converter.OAuth2AccessTokenResponseHttpMessageConverter;
import org.springframework.stereotype.Component;
import org.springframework.web.client.RestClient;
import org.springframework.web.client.RestOperations;
import org.springframework.web.client.RestTemplate;

/** Talks to identity providers, none of whom keeps somebody waiting for long; follows none who send it elsewhere. */
@Component
class ProviderLine {
    private static final Duration TO_CONNECT = Duration.ofSeconds(4);
    private static final Duration TO_ANSWER = Duration.ofSeconds(8);

    private final ClientHttpRequestFactory requests;

    ProviderLine() {
        var factory = new JdkClientHttpRequestFactory(HttpClient.newBuilder()
                .connectTimeout(TO_CONNECT)
                .followRedirects(HttpClient.Redirect.NEVER)
                .build());
        factory.setReadTimeout(TO_ANSWER);
        this.requests = factory;
    }

    /** For what answers in JSON. */
    RestClient plain() {
        return RestClient.builder().requestFactory(requests).build();
    }

    /** For a token endpoint (RFC 6749), whose refusals are in a form of their own. */
    RestClient tokens() {
        return RestClient.builder()
                .requestFactory(requests)
                .configureMessageConverters(converters -> converters
                        .addCustomConverter(new FormHttpMessageConverter())
                        .addCustomConverter(new OAuth2AccessTokenResponseHttpMessageConverter()))
                .defaultStatusHandler(new OAuth2ErrorResponseErrorHandler())
                .build();
    }

    /** For what the framework asks in the older way. */
    RestOperations template() {
        var template = new RestTemplate(requests);
        template.setErrorHandler(new OAuth2ErrorResponseErrorHandler());
        return template;
    }

    /** For keys, whose server refuses like any other. */
    RestOperations keys() {
        return new RestTemplate(requests);
    }
}
