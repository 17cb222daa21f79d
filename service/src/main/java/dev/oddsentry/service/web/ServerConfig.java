package dev.oddsentry.service.web;

import org.apache.catalina.core.StandardHost;
import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** How the HTTP server is built: its limits, its refusals, and the line to each client. */
@Configuration
class ServerConfig {

    @Bean
    WebServerFactoryCustomizer<TomcatServletWebServerFactory> limitedServer(WebLimits limits) {
        return factory -> {
            factory.setProtocol(LimitedConnections.class.getName());
            factory.addConnectorCustomizers(connector -> {
                if (connector.getProtocolHandler() instanceof LimitedConnections protocol)
                    protocol.setMaxConnectionsPerAddress(limits.maxConnectionsPerAddress());
            });
            factory.addContextCustomizers(context -> {
                context.getPipeline().addValve(new ClientLine.Valve());
                if (context.getParent() instanceof StandardHost host)
                    host.setErrorReportValveClass(ProblemErrors.Valve.class.getName());
            });
        };
    }
}
