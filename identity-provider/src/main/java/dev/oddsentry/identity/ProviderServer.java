package dev.oddsentry.identity;

import java.net.InetAddress;
import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.servlet.ServletRegistrationBean;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.web.context.WebApplicationContext;
import org.springframework.web.servlet.DispatcherServlet;
import org.springframework.web.servlet.config.annotation.EnableWebMvc;

/** The web server: on loopback alone, with a session cookie that is not another program's on this host. */
@Configuration
@EnableWebMvc
class ProviderServer {
    @Bean
    TomcatServletWebServerFactory server(IdentityProviderStandIn.Port port) {
        var server = new TomcatServletWebServerFactory(port.number());
        server.setAddress(InetAddress.getLoopbackAddress());
        server.getSettings().getSession().getCookie().setName("identity_session");
        return server;
    }

    @Bean
    ServletRegistrationBean<DispatcherServlet> dispatcher(WebApplicationContext context) {
        return new ServletRegistrationBean<>(new DispatcherServlet(context), "/");
    }
}
