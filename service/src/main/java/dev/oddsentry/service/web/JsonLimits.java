package dev.oddsentry.service.web;

import dev.oddsentry.core.value.Numbers;
import java.math.BigDecimal;
import org.springframework.boot.jackson.autoconfigure.JsonMapperBuilderCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import tools.jackson.core.JsonParser;
import tools.jackson.databind.DeserializationContext;
import tools.jackson.databind.deser.std.StdDeserializer;
import tools.jackson.databind.module.SimpleModule;

/** What JSON of a request may hold: no numbers whose exponent alone asks for a million digits, no texts that the database cannot keep. */
@Configuration
class JsonLimits {
    private static final int MOST_DIGITS = 400;

    @Bean
    JsonMapperBuilderCustomizer limitedJson() {
        var module = new SimpleModule("limits")
                .addDeserializer(BigDecimal.class, new LimitedNumber())
                .addDeserializer(String.class, new StorableText());
        return builder -> builder.addModule(module);
    }

    private static final class LimitedNumber extends StdDeserializer<BigDecimal> {
        LimitedNumber() {
            super(BigDecimal.class);
        }

        @Override
        public BigDecimal deserialize(JsonParser parser, DeserializationContext context) {
            String text = parser.getValueAsString();
            return Numbers.parse(text == null ? "" : text.strip(), MOST_DIGITS)
                    .orElseGet(() -> (BigDecimal) context.handleWeirdStringValue(
                            BigDecimal.class, String.valueOf(text), "not a number of at most %d digits", MOST_DIGITS));
        }
    }

    private static final class StorableText extends StdDeserializer<String> {
        StorableText() {
            super(String.class);
        }

        @Override
        public String deserialize(JsonParser parser, DeserializationContext context) {
            if (!parser.currentToken().isScalarValue())
                return (String) context.handleUnexpectedToken(String.class, parser);
            String text = parser.getValueAsString();
            if (text == null) return (String) context.handleUnexpectedToken(String.class, parser);
            if (text.indexOf('\0') >= 0)
                return (String) context.handleWeirdStringValue(String.class, "…", "a text must not contain NUL");
            return text;
        }
    }
}
