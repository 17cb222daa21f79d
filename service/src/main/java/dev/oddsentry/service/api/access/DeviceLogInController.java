package dev.oddsentry.service.api.access;

import dev.oddsentry.service.access.DeviceLogIns;
import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.people.Person;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Logs in a program that has no browser, by somebody who has one; the fields are called as in RFC 8628. */
@RestController
@RequestMapping(path = "/api/device-log-ins", produces = "application/json")
class DeviceLogInController {
    private final DeviceLogIns logIns;
    private final Settings settings;

    DeviceLogInController(DeviceLogIns logIns, Settings settings) {
        this.logIns = logIns;
        this.settings = settings;
    }

    /** @param name what the program is, as its token is called then */
    record DeviceBody(@NotBlank @Size(max = 200) String name) {}

    record DeviceCodeBody(@NotBlank @Size(max = 100) String deviceCode) {}

    record DeviceAnswerBody(@NotNull Boolean allow) {}

    /**
     * @param verificationUri where the person types the code
     * @param verificationUriComplete the same with the code
     */
    record StartedDevice(
            String deviceCode,
            String userCode,
            String verificationUri,
            String verificationUriComplete,
            long expiresIn,
            long interval) {}

    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    StartedDevice startDeviceLogIn(@Valid @RequestBody DeviceBody body, HttpServletRequest request) {
        var started = logIns.begin(body.name().strip(), request.getRemoteAddr());
        String page = settings.baseUrl() + "/device";
        return new StartedDevice(
                started.deviceCode(),
                started.userCode(),
                page,
                page + "?code=" + started.userCode(),
                started.expiresIn(),
                started.interval());
    }

    @PostMapping("/token")
    DeviceLogIns.DeviceLogInState getDeviceToken(@Valid @RequestBody DeviceCodeBody body) {
        return logIns.state(body.deviceCode());
    }

    @GetMapping("/{userCode}")
    DeviceLogIns.AskingProgram getDeviceLogIn(@PathVariable String userCode) {
        return logIns.asking(userCode);
    }

    @PostMapping("/{userCode}/answer")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void answerDeviceLogIn(
            @AuthenticationPrincipal Person by,
            @PathVariable String userCode,
            @Valid @RequestBody DeviceAnswerBody body) {
        logIns.answer(by, userCode, body.allow());
    }
}
